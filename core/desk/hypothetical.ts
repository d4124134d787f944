import { nth } from "#core/base";
import type { DeskPosterior } from "./posterior.ts";
import type { DeskDay } from "./types.ts";

/** A figure's error as independent parts, by name. */
type Effects = Readonly<Record<string, number>>;

/** A reading of one day that was not taken, or not so: its slopes by the shared unknowns, and its variance with its day's own. */
export interface Hypothetical {
  readonly day: DeskDay;
  readonly slopes: readonly number[];
  readonly variance: number;
}

function dot(a: Effects, b: Effects): number {
  let sum = 0;
  for (const key in a) sum += nth(a, key) * (b[key] ?? 0);
  return sum;
}

/** A row of sd 1 against the posterior. */
function rowEffects(desk: DeskPosterior, { day, slopes, variance }: Hypothetical): Effects {
  const by = 1 / Math.sqrt(variance);
  return desk.figure(day.shared, (z) => z.reduce((sum, each, k) => sum + nth(slopes, k) * by * each, 0))
    .effects;
}

/** A reading that would be there as well, or in the place of one that is. */
export interface Taking {
  readonly added: Hypothetical;
  readonly instead?: Hypothetical | undefined;
}

/**
 * How two figures would vary together were a reading there as well, or taken otherwise: the posterior changed by one row or
 * two, without solving it again (Woodbury).
 *
 * @param taking what would be read, and which reading that is there it takes the place of
 * @returns the covariance of two figures of this desk, by their effects, in the product of their units
 */
export function covarianceWith(
  desk: DeskPosterior,
  { added, instead }: Taking,
): (a: Effects, b: Effects) => number {
  const now = rowEffects(desk, added);
  const nn = dot(now, now);
  if (!instead) return (a, b) => dot(a, b) - (dot(a, now) * dot(b, now)) / (1 + nn);
  const old = rowEffects(desk, instead);
  const [oo, on] = [dot(old, old), dot(old, now)];
  // Taking a row away counts with -1, adding one with +1.
  const [p, r] = [oo - 1, nn + 1];
  const determinant = p * r - on * on;
  return (a, b) => {
    const [ao, an, bo, bn] = [dot(a, old), dot(a, now), dot(b, old), dot(b, now)];
    return dot(a, b) - (ao * bo * r - (ao * bn + an * bo) * on + an * bn * p) / determinant;
  };
}

/** The sd of a figure, or of a difference, were a reading there as well, or taken otherwise. */
export function sdWith(desk: DeskPosterior, effects: Effects, taking: Taking): number {
  return Math.sqrt(Math.max(0, covarianceWith(desk, taking)(effects, effects)));
}
