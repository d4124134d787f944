import { normalCdf } from "./normal.ts";
import type { Estimate } from "./estimate.ts";

/** How sure something is said to be: one scale for every verdict, order and claim. */
export type Certainty = "sure" | "likely" | "open";

/** Sure: the 95 % span leaves the other side out. Likely: four times in five. */
const SURE = 0.975;
export const LIKELY = 0.8;

/**
 * How sure a chance makes of what it is the chance of, or of its opposite.
 *
 * @example certaintyOf(0.99) === "sure" && certaintyOf(0.01) === "sure"
 * @example certaintyOf(0.85) === "likely" && certaintyOf(0.6) === "open"
 */
export function certaintyOf(chance: number): Certainty {
  const most = Math.max(chance, 1 - chance);
  return most > SURE ? "sure" : most > LIKELY ? "likely" : "open";
}

/**
 * A chance in words, never a certainty that nothing has.
 *
 * @example oddsText(0.9999) === "99 in 100"
 */
export const oddsText = (chance: number): string =>
  `${Math.min(99, Math.max(1, Math.round(100 * chance)))} in 100`;

/**
 * Chance that a figure is truly below a value; half where nothing tells.
 *
 * @example chanceBelow({ mean: 0, sd: 1 }, 1.96).toFixed(3) === "0.975"
 */
export function chanceBelow({ mean, sd }: Estimate, value: number): number {
  if (sd > 0) return normalCdf((value - mean) / sd);
  return mean < value ? 1 : mean > value ? 0 : 0.5;
}
