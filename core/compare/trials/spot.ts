import { DEFAULTS, err, ok, type Result, meanOf } from "#core/base";

/** A reading at steady speed in one direction: amps as they flickered, volts under load where they were read. */
export interface SpotRow {
  readonly speedMph: number;
  readonly ampsLow: number;
  readonly ampsHigh: number;
  readonly packVolts?: number | undefined;
}

export interface SpotPack {
  readonly ampHours: number;
  readonly labelWh: number;
  readonly nominalVolts: number;
}

/** What a spot says, its directions averaged over the same distance. */
export interface Spot {
  readonly whPerMi: number;
  readonly sdWhPerMi: number;
  /** Harmonic: the same distance at each. */
  readonly speedMph: number;
  /** Range by the charge, and by the label's energy. */
  readonly rangeFromAhMi: number;
  readonly rangeFromLabelWhMi: number;
}

/** Amps that flickered are even over their span; typed once they are off by half a display's step, or by a twentieth. */
const ampsSd = (low: number, high: number, stepA: number): number =>
  high > low
    ? (high - low) / Math.sqrt(12)
    : Math.max(DEFAULTS.ampsHalfStep, stepA / Math.sqrt(12), DEFAULTS.ampsOnceSdShare * Math.abs(low));

/** With fewer amps than this nothing tells the display's step. */
const ENOUGH = 3;
const isIn = (step: number) => (amps: number) => Math.abs(amps / step - Math.round(amps / step)) < 1e-9;

/**
 * Step of a display of amps, A, by what it showed: whole where all are whole, half, else a tenth.
 *
 * @example ampsStep([1, 2, 4].map((amps) => ({ ampsLow: amps, ampsHigh: amps }))) === 1
 * @example ampsStep([{ ampsLow: 1.5, ampsHigh: 2 }, { ampsLow: 4, ampsHigh: 4 }]) === 0.5
 * @example ampsStep([{ ampsLow: 1, ampsHigh: 2 }]) === 0.1
 */
export function ampsStep(rows: readonly Pick<SpotRow, "ampsLow" | "ampsHigh">[]): number {
  const amps = rows.flatMap(({ ampsLow, ampsHigh }) =>
    ampsLow === ampsHigh ? [ampsLow] : [ampsLow, ampsHigh],
  );
  if (amps.length < ENOUGH) return 0.1;
  return [1, 0.5].find((step) => amps.every(isIn(step))) ?? 0.1;
}

/**
 * A spot of a sweep: Wh/mi = V I / v of each direction, averaged per distance, which cancels wind and slope when both
 * directions are there. The span of the amps is an even spread; amps typed once have an error of their own, never less than
 * the display's step leaves. Source: docs/method.md.
 *
 * @param stepA of the display of amps; as the rows tell it
 * @example 14.8 mph at 5.5 to 6.5 A and 49.2 V, 15.9 mph at 3.5 to 4.5 A and 49.8 V: 16.24 Wh/mi, sd 0.66, at 15.33 mph
 */
export function spot(rows: readonly SpotRow[], pack: SpotPack, stepA = ampsStep(rows)): Result<Spot> {
  if (rows.length === 0) return err("no-rows", "rows", "Give at least one direction.");
  for (const [i, { speedMph, ampsLow, ampsHigh }] of rows.entries()) {
    if (!(speedMph > 0)) return err("no-speed", `rows.${i}.speedMph`, "Type the speed held: more than zero.");
    if (ampsHigh < ampsLow)
      return err("low-over-high", `rows.${i}.ampsLow`, "Amps run from the low to the high: type 5.5 to 6.5.");
  }
  const each = rows.map(({ speedMph, ampsLow, ampsHigh, packVolts = pack.nominalVolts }) => ({
    speedMph,
    whPerMi: (packVolts * (ampsLow + ampsHigh)) / 2 / speedMph,
    sd: (packVolts * ampsSd(ampsLow, ampsHigh, stepA)) / speedMph,
    ahPerMi: (ampsLow + ampsHigh) / 2 / speedMph,
  }));
  const whPerMi = meanOf(each.map((row) => row.whPerMi));
  const ahPerMi = meanOf(each.map((row) => row.ahPerMi));
  if (!(whPerMi > 0))
    return err("no-current", "rows", "Over both directions the pack gave nothing: check the amps.");
  return ok({
    whPerMi,
    sdWhPerMi: Math.hypot(...each.map(({ sd }) => sd)) / rows.length,
    speedMph: 1 / meanOf(each.map(({ speedMph }) => 1 / speedMph)),
    rangeFromAhMi: pack.ampHours / ahPerMi,
    rangeFromLabelWhMi: pack.labelWh / whPerMi,
  });
}
