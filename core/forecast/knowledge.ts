import { ASSUMED } from "#core/assumptions";
import type { Uncertain } from "#core/quantities";
import { layWay, type Course } from "#core/course";
import { piecesUse, type Rig } from "./rig.ts";
import { applyAll, BIKE_UNKNOWNS, UNKNOWNS } from "./unknowns.ts";

/** What is known of a bike's own unknowns: mean and covariance, in sds of their priors. */
export interface Knowledge {
  readonly mean: readonly number[];
  readonly covariance: readonly (readonly number[])[];
  /** Earlier results it rests on. */
  readonly results: number;
}

/** Nothing but the assumptions. */
export const PRIOR: Knowledge = {
  mean: Array.from({ length: BIKE_UNKNOWNS }, () => 0),
  covariance: Array.from({ length: BIKE_UNKNOWNS }, (_, i) =>
    Array.from({ length: BIKE_UNKNOWNS }, (_, j) => (i === j ? 1 : 0)),
  ),
  results: 0,
};

/** A figure measured on an earlier ride of the bike, and how it was ridden. */
export interface EarlierResult {
  readonly rig: Rig;
  readonly course: Course;
  /** Wh per metre. */
  readonly whPerM: Uncertain;
}

/**
 * Learns from one earlier result: the logarithm of measured over forecast is a sum of the unknowns, each by its gradient;
 * what belonged to that day is noise. One linear update, as in a Kalman filter.
 */
function learn(known: Knowledge, { rig, course, whPerM }: EarlierResult): Knowledge {
  const way = layWay(course);
  const rate = (z: readonly number[]) => piecesUse(way.lap, applyAll(rig, z)).wh / way.lapM;
  const base = rate(known.mean);
  if (!(base > 0) || !(whPerM.mean > 0)) return known;
  const gradient = UNKNOWNS.map((_, i) => {
    const at = (by: number) => UNKNOWNS.map((_, k) => (known.mean[k] ?? 0) + (k === i ? by : 0));
    return Math.log(rate(at(0.5)) / rate(at(-0.5)));
  });
  const own = gradient.slice(0, BIKE_UNKNOWNS);
  const noise =
    gradient.slice(BIKE_UNKNOWNS).reduce((sum, g) => sum + g * g, 0) +
    (whPerM.sd / whPerM.mean) ** 2 +
    ASSUMED.modelSdShare ** 2;
  const pull = known.covariance.map((row) => row.reduce((sum, value, j) => sum + value * own[j]!, 0));
  const variance = noise + own.reduce((sum, g, i) => sum + g * pull[i]!, 0);
  const miss = Math.log(whPerM.mean / base);
  return {
    mean: known.mean.map((mean, i) => mean + (pull[i]! * miss) / variance),
    covariance: known.covariance.map((row, i) =>
      row.map((value, j) => value - (pull[i]! * pull[j]!) / variance),
    ),
    results: known.results + 1,
  };
}

/** What a bike's earlier results say of its rolling, drag and motor: the assumptions, narrowed by each in turn. */
export function knowledgeFrom(earlier: readonly EarlierResult[]): Knowledge {
  return earlier.reduce(learn, PRIOR);
}
