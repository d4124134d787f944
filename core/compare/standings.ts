import { normalCdf } from "#core/quantities";
import { differenceTraced, untraced, type Traced } from "./traced.ts";

export interface StandingInput {
  readonly id: string;
  /** What is compared, its errors told apart. */
  readonly figure: Traced;
}

export interface Standing<T extends StandingInput> {
  readonly place: number;
  readonly row: T;
}

/** Two neighbours whose order is not sure. */
export interface Swapped {
  readonly upper: number;
  readonly lower: number;
  /** Chance that the lower place is really the better one; what the two share cancels. */
  readonly chance: number;
}

/** Neighbours with at least this chance of standing the other way round are named. */
const WORTH_SAYING = 0.1;

/** Chance that the first is really less than the second, from their joint posterior. Half when they are the same. */
export function chanceLess(first: Traced, second: Traced): number {
  const { mean, sd } = untraced(differenceTraced(second, first));
  return sd > 0 ? normalCdf(mean / sd) : mean > 0 ? 1 : mean < 0 ? 0 : 0.5;
}

/**
 * Rows from best to worst, with the neighbouring places that could well be swapped.
 *
 * @param better which end is best: the least, as of Wh per mile, or the most, as of a range
 * @param swapsWithin how many places are looked at for what could be swapped
 */
export function standings<T extends StandingInput>(
  rows: readonly T[],
  better: "less" | "more" = "less",
  swapsWithin = Infinity,
): { readonly places: readonly Standing<T>[]; readonly swaps: readonly Swapped[] } {
  const sign = better === "less" ? 1 : -1;
  const sorted = [...rows].sort((a, b) => sign * (a.figure.mean - b.figure.mean));
  const swaps = sorted.slice(1, swapsWithin).flatMap((row, i) => {
    const [first, second] = better === "less" ? [row, sorted[i]!] : [sorted[i]!, row];
    const chance = chanceLess(first.figure, second.figure);
    return chance >= WORTH_SAYING ? [{ upper: i + 1, lower: i + 2, chance }] : [];
  });
  return { places: sorted.map((row, i) => ({ place: i + 1, row })), swaps };
}
