import { nth, DEFAULTS, METRES_PER_MILE, MPS_PER_MPH, unitToken, scale, type Estimate } from "#core/base";
import type { Ground } from "#core/fields";
import {
  EFFORT_W,
  fitRoad,
  massOf,
  predicted,
  type Riding,
  type RoadFit,
  roadOf,
  type RoadRow,
  type RoadState,
} from "#core/bike";
import { labelEnergy, NOMINAL_CELL_VOLTS } from "#core/battery";
import type { PackRecord, Sweep, SweepRow } from "#core/records";
import { ampsStep, spot } from "./spot.ts";

/** One square of a sweep: a level on a ground at about one speed, its directions together. SI units. */
export interface SweepSpot {
  readonly level: string;
  readonly ground: Ground;
  readonly speedMps: number;
  readonly whPerM: Estimate;
  /** Range by the charge, and by the label's energy, m. */
  readonly rangeByChargeM: number | null;
  readonly rangeByLabelM: number;
  readonly oneWay: boolean;
  /** Rows it is made of, by place in the sweep. */
  readonly rows: readonly number[];
}

/** Energy over speed on one ground, as the fit has it, with its band. */
export interface SweepCurve {
  readonly ground: Ground;
  /** "throttle" or "pedal". */
  readonly drive: "throttle" | "pedal";
  readonly speedMps: readonly number[];
  readonly whPerM: readonly Estimate[];
  /** Against this speed the range doubles and halves; null where no speed within reach does. */
  readonly againstMps: number;
  readonly doublesAtMps: number | null;
  readonly halvesAtMps: number | null;
}

export interface SweepResults {
  readonly spots: readonly SweepSpot[];
  /** Of this sweep alone; null without a spot. */
  readonly fit: RoadFit | null;
  readonly curves: readonly SweepCurve[];
  /** Rows that cannot be, by place, with what to type. */
  readonly problems: readonly { readonly row: number; readonly sentence: string }[];
}

/** Speeds of one level apart by more than this are squares of their own. */
const ONE_SPEED_MPS = 1.25;
const CURVE_MPH = { from: 5, to: 32, step: 0.5 } as const;
const SEARCH_MPH = { from: 4, to: 40, step: 0.1 } as const;

export const drivenBy = (level: string): "throttle" | "pedal" =>
  level === "throttle" ? "throttle" : "pedal";

/** Rows of one square: the same level and ground, speeds close together, in the order typed. */
function squares(rows: readonly SweepRow[]): readonly (readonly number[])[] {
  const found: number[][] = [];
  rows.forEach((row, i) => {
    const same = found.find((square) => {
      const first = nth(rows, nth(square, 0));
      return (
        first.level === row.level &&
        first.ground === row.ground &&
        Math.abs(first.speedMps - row.speedMps) <= ONE_SPEED_MPS
      );
    });
    if (same) same.push(i);
    else found.push([i]);
  });
  return found;
}

function nominalVolts({ chemistry, seriesCells, labelWh, ampHours }: PackRecord): number | null {
  if (seriesCells !== undefined) return seriesCells * NOMINAL_CELL_VOLTS[chemistry];
  return labelWh !== undefined && ampHours !== undefined ? labelWh / ampHours : null;
}

/** How a square was ridden, for the road load. */
export function sweepState(sweep: Sweep, riding: Riding, level: string, ground: Ground, speedMps: number) {
  const riderW = drivenBy(level) === "throttle" ? 0 : EFFORT_W[sweep.effort];
  return {
    massKg: massOf(riding).kg,
    speedMps,
    ground,
    tempC: sweep.airTempC ?? DEFAULTS.packTempC,
    riderW,
    lightsOn: riding.setUp?.lightsOn ?? false,
    ...roadOf(riding),
  };
}

/** A square in words: "brick, town, 14.8 mph". */
const squareName = ({ level, ground, speedMps }: SweepSpot) =>
  `${ground}, ${level}, ${unitToken(speedMps, "speed", 1)}`;

/** The squares of a sweep, each as a row for the fit. */
export function sweepRows(sweep: Sweep, riding: Riding, spots: readonly SweepSpot[]): readonly RoadRow[] {
  return spots.map((each) => ({
    name: squareName(each),
    state: sweepState(sweep, riding, each.level, each.ground, each.speedMps),
    measured: each.whPerM,
    oneWay: each.oneWay,
    riderSdW: drivenBy(each.level) === "throttle" ? 0 : EFFORT_W[sweep.effort] * DEFAULTS.riderSdShare,
  }));
}

/** The squares of a sweep. Rows that cannot be are left out and named. */
export function sweepSpots(sweep: Sweep, pack: PackRecord) {
  const problems: { row: number; sentence: string }[] = [];
  const label = labelEnergy(pack);
  const volts = nominalVolts(pack);
  const labelWh = label.ok ? label.value : 0;
  const spots = squares(sweep.rows).flatMap((square): readonly SweepSpot[] => {
    const rows = square.map((i) => nth(sweep.rows, i));
    const typed = rows.some(({ packVolts }) => packVolts === undefined);
    if (typed && volts === null) {
      problems.push({
        row: nth(square, 0),
        sentence: "Type the volts, or the pack's series cells on its page.",
      });
      return [];
    }
    const found = spot(
      rows.map(({ speedMps, ...rest }) => ({ ...rest, speedMph: speedMps / MPS_PER_MPH })),
      { ampHours: pack.ampHours ?? labelWh / (volts ?? 1), labelWh, nominalVolts: volts ?? 0 },
      ampsStep(sweep.rows),
    );
    if (!found.ok) {
      problems.push({ row: nth(square, 0), sentence: nth(found.problems, 0).sentence });
      return [];
    }
    const { whPerMi, sdWhPerMi, speedMph, rangeFromAhMi, rangeFromLabelWhMi } = found.value;
    const ways = new Set(rows.map(({ direction }) => direction));
    return [
      {
        level: nth(rows, 0).level,
        ground: nth(rows, 0).ground,
        speedMps: speedMph * MPS_PER_MPH,
        whPerM: scale({ mean: whPerMi, sd: sdWhPerMi }, 1 / METRES_PER_MILE),
        rangeByChargeM: pack.ampHours === undefined ? null : rangeFromAhMi * METRES_PER_MILE,
        rangeByLabelM: rangeFromLabelWhMi * METRES_PER_MILE,
        oneWay: !(ways.has("there") && ways.has("back")),
        rows: square,
      },
    ];
  });
  return { spots, problems };
}

/** Where the energy per metre is a given share of what it is at another speed; searched away from there. */
function speedWhere(
  at: (mps: number) => number,
  fromMps: number,
  level: number,
  faster: boolean,
  mostMps: number,
) {
  const step = SEARCH_MPH.step * MPS_PER_MPH * (faster ? 1 : -1);
  const least = SEARCH_MPH.from * MPS_PER_MPH;
  for (let mps = fromMps; mps >= least && mps <= mostMps; mps += step)
    if (faster ? at(mps) >= level : at(mps) <= level) return mps;
  return null;
}

/** Energy over speed on every ground and drive of a sweep, by its fit. */
export function sweepCurves(
  sweep: Sweep,
  riding: Riding,
  spots: readonly SweepSpot[],
  fit: RoadFit,
): readonly SweepCurve[] {
  const kinds = new Map(spots.map((each) => [`${each.ground}/${drivenBy(each.level)}`, each] as const));
  return [...kinds.values()].map(({ ground, level }) => {
    const drive = drivenBy(level);
    const state = (speedMps: number): RoadState => sweepState(sweep, riding, level, ground, speedMps);
    const limit = drive === "pedal" ? (riding.bike.assistToMps ?? Infinity) : Infinity;
    const own = spots.filter((each) => each.ground === ground && drivenBy(each.level) === drive);
    const speeds: number[] = [];
    const fastest = Math.min(CURVE_MPH.to * MPS_PER_MPH, limit);
    for (let mph: number = CURVE_MPH.from; mph * MPS_PER_MPH <= fastest + 1e-9; mph += CURVE_MPH.step)
      speeds.push(mph * MPS_PER_MPH);
    const at = (mps: number) => predicted({ ...fit, covariance: fit.covariance }, state(mps)).mean;
    const sorted = own.map(({ speedMps }) => speedMps).sort((a, b) => a - b);
    const againstMps = nth(sorted, Math.floor(sorted.length / 2));
    const base = at(againstMps);
    const most = Math.min(SEARCH_MPH.to * MPS_PER_MPH, limit);
    return {
      ground,
      drive,
      speedMps: speeds,
      whPerM: speeds.map((mps) => predicted(fit, state(mps))),
      againstMps,
      doublesAtMps: speedWhere(at, againstMps, base / 2, false, most),
      halvesAtMps: speedWhere(at, againstMps, 2 * base, true, most),
    };
  });
}

/**
 * Everything a sweep says: its squares by both schools of range, the road load fitted to them, and energy over speed with
 * its band. Source: docs/method.md.
 */
export function sweepResults(sweep: Sweep, riding: Riding, pack: PackRecord): SweepResults {
  const { spots, problems } = sweepSpots(sweep, pack);
  const fit = fitRoad(sweepRows(sweep, riding, spots));
  return {
    spots,
    fit: fit.ok ? fit.value : null,
    curves: fit.ok ? sweepCurves(sweep, riding, spots, fit.value) : [],
    problems,
  };
}
