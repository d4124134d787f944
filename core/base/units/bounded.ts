import { normalCdf } from "./normal.ts";
import { Z_95, type Estimate } from "./estimate.ts";

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
  let [low, high] = [0, Math.max(0, mean) + 8 * sd];
  for (let i = 0; i < STEPS; i += 1) {
    const middle = (low + high) / 2;
    if (normalCdf((middle - mean) / sd) < wanted) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}

/**
 * The central 95 % of something that is never negative and known so little that a plus-or-minus would reach below nought or
 * near it: as a log-normal of the same mean and sd, or, where the sd is more than the mean, as the normal above nought.
 *
 * @returns null where a plus-or-minus says it, and for what is surely negative
 * @example boundedSpan({ mean: 9, sd: 4.08 })?.low.toFixed(0) === "4"
 * @example boundedSpan({ mean: 9, sd: 4.08 })?.high.toFixed(0) === "19"
 * @example boundedSpan({ mean: 9, sd: 1 }) === null
 * @example boundedSpan({ mean: -7, sd: 6 / 1.96 }) === null
 */
export function boundedSpan({ mean, sd }: Estimate): BoundedSpan | null {
  if (mean + Z_95 * sd <= 0 || Z_95 * sd <= MOST_HALF * mean) return null;
  if (sd >= mean) {
    const of = (p: number) => quantileAboveZero({ mean, sd }, p);
    return { low: of(0.025), high: of(0.975), isVague: true };
  }
  const spread = Math.log(1 + (sd / mean) ** 2);
  const middle = mean * Math.exp(-spread / 2);
  const by = Math.exp(Z_95 * Math.sqrt(spread));
  return { low: middle / by, high: middle * by, isVague: false };
}
