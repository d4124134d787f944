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
  for (const key in a) sum += a[key]! * (b[key] ?? 0);
  return sum;
}

/** A row of sd 1 against the posterior. */
function rowEffects(desk: DeskPosterior, { day, slopes, variance }: Hypothetical): Effects {
  const by = 1 / Math.sqrt(variance);
  return desk.figure(day.shared, (z) => z.reduce((sum, each, k) => sum + slopes[k]! * by * each, 0)).effects;
}

/**
 * The sd of a figure, or of a difference, were a reading there as well, or taken otherwise: the posterior changed by one row
 * or two, without solving it again (Woodbury).
 *
 * @param effects of the figure on this desk
 * @param added what would be read; @param instead of which reading that is there, where it takes its place
 */
export function sdWith(
  desk: DeskPosterior,
  effects: Effects,
  added: Hypothetical,
  instead?: Hypothetical,
): number {
  const variance = dot(effects, effects);
  const now = rowEffects(desk, added);
  const [tn, nn] = [dot(effects, now), dot(now, now)];
  if (!instead) return Math.sqrt(Math.max(0, variance - (tn * tn) / (1 + nn)));
  const old = rowEffects(desk, instead);
  const [to, oo, on] = [dot(effects, old), dot(old, old), dot(old, now)];
  // Taking a row away counts with -1, adding one with +1.
  const [a, b, d] = [oo - 1, on, nn + 1];
  const determinant = a * d - b * b;
  const fall = (to * to * d - 2 * to * tn * b + tn * tn * a) / determinant;
  return Math.sqrt(Math.max(0, variance - fall));
}
