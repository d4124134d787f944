import { DEFAULTS, bisect, sumOf } from "#core/base";
import { LEARNED_KINDS, type LearnedKind, type Spreads } from "./types.ts";

/** Spreads before any test: as assumed. */
export const DEFAULT_SPREADS: Spreads = { rolling: 1, drag: 1, motor: 1, habit: 1 };
/** How much wider than assumed a kind of unknown is: as learned, or not at all. */
export const kindSpread = (kind: string, spreads: Spreads): number =>
  kind in spreads ? spreads[kind as LearnedKind] : 1;

/** Where the search for a spread begins and ends. */
const SEARCH = { least: 0.3, most: 6 } as const;
const HALVINGS = 30;

/** Squares of a kind's unknowns, as expected of the posterior: mean squared and variance. */
export type ExpectedSquares = Readonly<Record<LearnedKind, readonly number[]>>;

/**
 * One round of learning the spreads (EM): those that make the unknowns, as the posterior has them, most likely together with
 * the prior ln s ~ N(ln 1.3, 0.4). Source: docs/method.md.
 */
export function learnSpreads(squares: ExpectedSquares): Spreads {
  const { spreadLnMean, spreadLnSd } = DEFAULTS;
  const learned = LEARNED_KINDS.map((kind) => {
    const all = squares[kind];
    const sum = sumOf(all);
    // Slope of the log density by ln s: falls all the way, so that one root is the most likely spread.
    const slope = (ln: number) =>
      sum * Math.exp(-2 * ln) - all.length - (ln - spreadLnMean) / spreadLnSd ** 2;
    const [low, high] = bisect(
      Math.log(SEARCH.least),
      Math.log(SEARCH.most),
      HALVINGS,
      (ln) => slope(ln) > 0,
    );
    return [kind, Math.exp((low + high) / 2)] as const;
  });
  return Object.fromEntries(learned) as Record<LearnedKind, number>;
}
