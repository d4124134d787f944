import { nth, normalCdf, TOLD_CHANCE } from "#core/base";
import { differenceOf, combine, type ErrorComponents } from "../errorComponents.ts";

export interface StandingInput {
  readonly id: string;
  /** What is compared, its errors told apart. */
  readonly figure: ErrorComponents;
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

/** Places that cannot be told apart: from the first to the last of a bracket. */
export interface Bracket {
  readonly from: number;
  readonly to: number;
}

/** Neighbours with at least this chance of standing the other way round are named. */
const WORTH_SAYING = 0.1;

/**
 * Chance that the first is really less than the second, from their joint posterior. Half when they are the same.
 *
 * @example chanceLess({ mean: 10, effects: { a: 1 } }, { mean: 10, effects: { b: 1 } }).toFixed(3) === "0.500"
 */
export function chanceLess(first: ErrorComponents, second: ErrorComponents): number {
  const { mean, sd } = combine(differenceOf(second, first));
  return sd > 0 ? normalCdf(mean / sd) : mean > 0 ? 1 : mean < 0 ? 0 : 0.5;
}

/** Brackets from the top: each holds the rows that are not told apart from its first. One of a single row is none. */
function bracketsOf<T>(sorted: readonly T[], chanceBetter: (a: T, b: T) => number): readonly Bracket[] {
  const brackets: Bracket[] = [];
  for (let from = 0; from < sorted.length;) {
    let to = from;
    while (to + 1 < sorted.length && chanceBetter(nth(sorted, from), nth(sorted, to + 1)) < TOLD_CHANCE)
      to += 1;
    if (to > from) brackets.push({ from: from + 1, to: to + 1 });
    from = to + 1;
  }
  return brackets;
}

/**
 * Rows from best to worst, with brackets of what is not told apart and the neighbouring places that could well be swapped.
 *
 * @param better which end is best: the least, as of Wh per mile, or the most, as of a range
 * @param swapsWithin how many places are looked at for what could be swapped; @param worthSaying least chance that is named
 */
export function standings<T extends StandingInput>(
  rows: readonly T[],
  better: "less" | "more" = "less",
  swapsWithin = Infinity,
  worthSaying = WORTH_SAYING,
): {
  readonly places: readonly Standing<T>[];
  readonly swaps: readonly Swapped[];
  readonly brackets: readonly Bracket[];
} {
  const sign = better === "less" ? 1 : -1;
  const sorted = [...rows].sort((a, b) => sign * (a.figure.mean - b.figure.mean));
  const swaps = sorted.slice(1, swapsWithin).flatMap((row, i) => {
    const [first, second] = better === "less" ? [row, nth(sorted, i)] : [nth(sorted, i), row];
    const chance = chanceLess(first.figure, second.figure);
    return chance >= worthSaying ? [{ upper: i + 1, lower: i + 2, chance }] : [];
  });
  const chanceBetter = (a: T, b: T) =>
    better === "less" ? chanceLess(a.figure, b.figure) : chanceLess(b.figure, a.figure);
  return {
    brackets: bracketsOf(sorted.slice(0, swapsWithin), chanceBetter),
    places: sorted.map((row, i) => ({ place: i + 1, row })),
    swaps,
  };
}
