import { bisect, meanOf } from "../numeric.ts";
import { normalCdf } from "./normal.ts";
import { halfWidth95, Z_95, type Estimate } from "./estimate.ts";

/** A span that can be, of something that is never negative. */
export interface BoundedSpan {
  readonly low: number;
  readonly high: number;
  /** Hardly known: only its upper end says something. */
  readonly isVague: boolean;
}

/** Up to this share of the mean a half-width is a plus-or-minus; beyond it the two sides differ. */
const MOST_HALF = 0.25;
const STEPS = 60;

/** A quantile of a normal that is cut off below nought. */
function quantileAboveZero({ mean, sd }: Estimate, p: number): number {
  const below = normalCdf(-mean / sd);
  const wanted = below + p * (1 - below);
  return meanOf(bisect(0, Math.max(0, mean) + 8 * sd, STEPS, (x) => normalCdf((x - mean) / sd) < wanted));
}

/** The log-normal of the same mean and sd: the log's middle, above the floor, and its sd. */
function logNormal(above: number, sd: number) {
  const spread = Math.log(1 + (sd / above) ** 2);
  return { middle: above * Math.exp(-spread / 2), sd: Math.sqrt(spread) };
}

/**
 * The central 95 % of something that is never less than its floor (nought where none is told) where a plus-or-minus would reach below
 * that or near it: as a log-normal of the same mean and sd above it, or, where the sd is more than the mean, as the normal above it.
 *
 * @returns null where a plus-or-minus says it, and for what is surely below its floor
 * @example boundedSpan({ mean: 9, sd: 4.08 })?.low.toFixed(0) === "4"
 * @example boundedSpan({ mean: 9, sd: 4.08 })?.high.toFixed(0) === "19"
 * @example boundedSpan({ mean: 57, sd: 3, floor: 47 })?.low.toFixed(0) === "52"
 * @example boundedSpan({ mean: 9, sd: 1 }) === null
 * @example boundedSpan({ mean: -7, sd: 6 / 1.96 }) === null
 */
export function boundedSpan({ mean, sd, floor = 0 }: Estimate): BoundedSpan | null {
  const above = mean - floor;
  if (above + Z_95 * sd <= 0 || Z_95 * sd <= MOST_HALF * above) return null;
  if (sd >= above) {
    const of = (p: number) => floor + quantileAboveZero({ mean: above, sd }, p);
    return { low: of(0.025), high: of(0.975), isVague: true };
  }
  const { middle, sd: spread } = logNormal(above, sd);
  const by = Math.exp(Z_95 * spread);
  return { low: floor + middle / by, high: floor + middle * by, isVague: false };
}

/**
 * The central 95 % of something that is never less than its floor: the same as is written of it, from and to.
 *
 * @example spanOf({ mean: 10, sd: 1 }).low.toFixed(2) === "8.04"
 */
export function spanOf(value: Estimate): BoundedSpan {
  const half = halfWidth95(value);
  return boundedSpan(value) ?? { low: value.mean - half, high: value.mean + half, isVague: false };
}

/**
 * Chance that something never less than its floor is more than a bound, by the same.
 *
 * @example chanceAbove({ mean: 10, sd: 1 }, 10).toFixed(3) === "0.500"
 * @example chanceAbove({ mean: 57, sd: 3, floor: 47 }, 40) === 1
 */
export function chanceAbove(value: Estimate, bound: number): number {
  const { mean, sd, floor = 0 } = value;
  if (sd === 0) return mean >= bound ? 1 : 0;
  const span = boundedSpan(value);
  if (!span) return normalCdf((mean - bound) / sd);
  if (bound <= floor) return 1;
  if (span.isVague) return normalCdf((mean - bound) / sd) / normalCdf((mean - floor) / sd);
  const { middle, sd: spread } = logNormal(mean - floor, sd);
  return normalCdf(Math.log(middle / (bound - floor)) / spread);
}
