import { nth, halfWidth95, normalCdf, type Estimate } from "#core/base";
import { differenceOf, combine, type ErrorComponents } from "../errorComponents.ts";

export interface StandingInput {
  readonly id: string;
  /** What is compared, its errors told apart. */
  readonly figure: ErrorComponents;
  /** Known so little that it leads nothing: it stands behind all others. */
  readonly isLast?: boolean;
}

/** A plus-or-minus of more than this share of its figure leads no list. */
export const HARDLY_KNOWN = 0.5;

/**
 * Whether a figure is known so little that it should lead nothing.
 *
 * @example isHardlyKnown({ mean: 4, sd: 1.5 }) && !isHardlyKnown({ mean: 14, sd: 2 })
 */
export const isHardlyKnown = (figure: Estimate): boolean => halfWidth95(figure) > HARDLY_KNOWN * figure.mean;

export interface Standing<T extends StandingInput> {
  readonly place: number;
  readonly possible: PossiblePlaces;
  readonly row: T;
}

/** Two neighbours whose order is not sure. */
export interface Swapped {
  readonly upper: number;
  readonly lower: number;
  /** Chance that the lower place is really the better one; what the two share cancels. */
  readonly chance: number;
}

/** Places that a row may truly have, at 90 %. */
export interface PossiblePlaces {
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

/** A row stands surely ahead of another from this chance on, so that nine in ten of its possible places are named. */
const SURELY_AHEAD = 0.95;
/** Sds by which two are apart for that, were they as little alike as they can be. */
const FAR_APART = 1.645;

/** Possible places of rows in their order: after all that are surely ahead, before all that are surely behind. */
function possiblePlaces<T extends StandingInput>(
  sorted: readonly T[],
  better: "less" | "more",
): readonly PossiblePlaces[] {
  const sds = sorted.map(({ figure }) => combine(figure).sd);
  const ahead = sorted.map(() => 0);
  const behind = sorted.map(() => 0);
  sorted.forEach((first, i) => {
    for (let j = i + 1; j < sorted.length; j += 1) {
      const second = nth(sorted, j);
      const gap = (better === "less" ? 1 : -1) * (second.figure.mean - first.figure.mean);
      // Whatever two share, their difference has no more sd than both of theirs together.
      const isSure =
        gap > FAR_APART * (nth(sds, i) + nth(sds, j)) ||
        (better === "less"
          ? chanceLess(first.figure, second.figure)
          : chanceLess(second.figure, first.figure)) > SURELY_AHEAD;
      if (!isSure) continue;
      behind[i] = nth(behind, i) + 1;
      ahead[j] = nth(ahead, j) + 1;
    }
  });
  return sorted.map((_, i) => ({ from: 1 + nth(ahead, i), to: sorted.length - nth(behind, i) }));
}

/**
 * Rows from best to worst, those that are hardly known behind all others, each with the places it may truly have, and the
 * neighbouring places that could well be swapped.
 *
 * @param better which end is best: the least, as of Wh per mile, or the most, as of a range
 * @param swapsWithin how many rows are looked at for what could be swapped, and for possible places; @param worthSaying least chance that is named
 */
export function standings<T extends StandingInput>(
  rows: readonly T[],
  better: "less" | "more" = "less",
  swapsWithin = Infinity,
  worthSaying = WORTH_SAYING,
): {
  readonly places: readonly Standing<T>[];
  readonly swaps: readonly Swapped[];
} {
  const sign = better === "less" ? 1 : -1;
  const sorted = [...rows].sort(
    (a, b) => Number(a.isLast ?? false) - Number(b.isLast ?? false) || sign * (a.figure.mean - b.figure.mean),
  );
  const swaps = sorted.slice(1, swapsWithin).flatMap((row, i) => {
    const [first, second] = better === "less" ? [row, nth(sorted, i)] : [nth(sorted, i), row];
    const chance = chanceLess(first.figure, second.figure);
    return chance >= worthSaying ? [{ upper: i + 1, lower: i + 2, chance }] : [];
  });
  const shown = possiblePlaces(sorted.slice(0, swapsWithin), better);
  return {
    places: sorted.map((row, i) => ({
      place: i + 1,
      possible: shown[i] ?? { from: i + 1, to: sorted.length },
      row,
    })),
    swaps,
  };
}
