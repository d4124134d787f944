import { nth } from "#core/base";

/** Fewer in order than this share, and the order says nothing: sections of a test each begin anew. */
const MOST = 0.65;
/** Fewer figures than this have no order. */
const FEWEST = 4;

/**
 * Places of figures that fall out of an order that most of them keep: recaps, slips and figures of something else. The most that
 * can stay in order stay (longest non-decreasing run with `slack`).
 *
 * @param values that should not fall, in the order they were said; @param slack by how much one may fall, in their unit
 * @example outOfOrder([40, 4, 9, 17, 16.9, 33], 0.3) deep equals new Set([0])
 */
export function outOfOrder(values: readonly number[], slack: number): ReadonlySet<number> {
  if (values.length < FEWEST) return new Set();
  const best = values.map(() => 1);
  const before = values.map(() => -1);
  for (let i = 0; i < values.length; i += 1)
    for (let j = 0; j < i; j += 1)
      if (nth(values, i) >= nth(values, j) - slack && nth(best, j) + 1 > nth(best, i)) {
        best[i] = nth(best, j) + 1;
        before[i] = j;
      }
  const kept = new Set<number>();
  for (let i = best.indexOf(Math.max(...best)); i >= 0; i = nth(before, i)) kept.add(i);
  if (kept.size < MOST * values.length) return new Set();
  return new Set(values.map((_, i) => i).filter((i) => !kept.has(i)));
}
