import { DEFAULTS, type Estimate } from "#core/base";

/** What a pack of an age and a count of cycles should hold, as a share of its label. */
export interface ExpectedShare extends Estimate {
  readonly years: number;
  readonly cycles: number | null;
}

/**
 * Share of the label that a pack's age and cycles let expect: a new pack yields 95 %, less 2.5 % a year and 4 % per 100 full
 * cycles (four fifths after 500, as cells are rated), that loss doubtful by half, on top of the 4 % by which labels differ. An assumption, named wherever it is used.
 *
 * @example two years, 150 cycles: 0.95 x (1 - 0.05 - 0.06) = 0.8455
 */
export function expectedShare(years: number, cycles: number | null): ExpectedShare {
  const byAge = DEFAULTS.fadePerYear * Math.max(0, years);
  const byCycles = DEFAULTS.fadePerCycle * Math.max(0, cycles ?? 0);
  const mean = DEFAULTS.newDerate * Math.max(0, 1 - byAge - byCycles);
  const sd = DEFAULTS.newDerate * Math.hypot(DEFAULTS.newSd, DEFAULTS.fadeSdShare * (byAge + byCycles));
  return { mean, sd, years, cycles };
}

/** A capacity measured on a bench or on a ride, brought to 25 C. */
export interface CapacityPoint {
  /** ISO day. */
  readonly day: string;
  readonly wh: Estimate;
  readonly from: "bench" | "ride";
}

export interface PackHealth {
  /** Share of the label. */
  readonly share: Estimate;
  readonly expected: ExpectedShare | null;
  /** Null when the pack's age is not known. */
  readonly verdict: "inside" | "above" | "below" | null;
}

const YEAR_MS = 365.25 * 86_400_000;

/**
 * Years from one ISO day to another.
 *
 * @example yearsBetween("2024-06-01", "2026-06-01").toFixed(1) === "2.0"
 */
export function yearsBetween(from: string, to: string): number {
  return (Date.parse(to) - Date.parse(from)) / YEAR_MS;
}

/**
 * A pack's health at a measurement: its share of the label, and whether that lies within two sds of what its age and
 * cycles let expect.
 */
export function packHealth(
  point: CapacityPoint,
  labelWh: number,
  firstUsedOn: string | undefined,
  cycles: number | undefined,
): PackHealth {
  const share = { mean: point.wh.mean / labelWh, sd: point.wh.sd / labelWh };
  if (firstUsedOn === undefined) return { share, expected: null, verdict: null };
  const expected = expectedShare(yearsBetween(firstUsedOn, point.day), cycles ?? null);
  const off = (share.mean - expected.mean) / Math.hypot(share.sd, expected.sd);
  return { share, expected, verdict: off < -2 ? "below" : off > 2 ? "above" : "inside" };
}
