import { nth } from "./nth.ts";

/**
 * The first place of a sorted list that does not come before what is looked for; its length where all do.
 *
 * @param isBefore whether a place's entry comes before it: true up to somewhere, then false
 * @example firstNotBefore(3, (i) => 2 * i + 2 < 4) === 1
 */
export function firstNotBefore(length: number, isBefore: (i: number) => boolean): number {
  let [low, high] = [0, length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (isBefore(middle)) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * The piece of a rising list of bounds in which a place lies: from its bound up to the next one; the first or last piece where it
 * lies outside.
 *
 * @param bounds rising, one more than there are pieces
 * @returns index of the piece, from 0
 * @example pieceAt([0, 10, 30], 12) === 1
 * @example pieceAt([0, 10, 30], 99) === 1
 */
export function pieceAt(bounds: ArrayLike<number>, at: number): number {
  const beyond = firstNotBefore(bounds.length, (i) => nth(bounds, i) <= at);
  return Math.max(0, Math.min(beyond - 1, bounds.length - 2));
}

/**
 * Linear reading of a curve between its points; its end values outside.
 *
 * @param xs rising; @param ys as many
 * @throws RangeError where the curve has no point
 * @example interpolate([0, 10], [5, 7], 5) === 6
 * @example interpolate([0, 10], [5, 7], 99) === 7
 */
export function interpolate(xs: ArrayLike<number>, ys: ArrayLike<number>, x: number): number {
  if (xs.length === 1) return nth(ys, 0);
  const i = pieceAt(xs, x);
  const span = nth(xs, i + 1) - nth(xs, i);
  const share = span > 0 ? Math.min(1, Math.max(0, (x - nth(xs, i)) / span)) : 0;
  return nth(ys, i) + share * (nth(ys, i + 1) - nth(ys, i));
}

/**
 * Halves an interval in which something stops to hold.
 *
 * @param holds true up to some place, then false
 * @param halvings how often; each makes the interval half as wide
 * @returns the interval that is left: it holds at the low end, and no longer at the high one
 * @example bisect(0, 8, 3, (x) => x < 2.5) is [2, 3]
 */
export function bisect(
  low: number,
  high: number,
  halvings: number,
  holds: (x: number) => boolean,
): readonly [low: number, high: number] {
  let [a, b] = [low, high];
  for (let i = 0; i < halvings; i += 1) {
    const middle = (a + b) / 2;
    if (holds(middle)) a = middle;
    else b = middle;
  }
  return [a, b];
}

/**
 * Sum of some values.
 *
 * @example sumOf([1, 2, 3]) === 6
 */
export const sumOf = (values: readonly number[]): number => values.reduce((sum, each) => sum + each, 0);

/**
 * Mean of some values; no number (NaN) of none.
 *
 * @example meanOf([1, 2, 6]) === 3
 */
export const meanOf = (values: readonly number[]): number => sumOf(values) / values.length;

/**
 * Mean of some values; null of none.
 *
 * @example meanIfAny([]) === null
 */
export const meanIfAny = (values: readonly number[]): number | null =>
  values.length ? meanOf(values) : null;

/**
 * Median of some values.
 *
 * @throws RangeError of none
 * @example medianOf([5, 1, 2, 3]) === 2.5
 */
export function medianOf(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? nth(sorted, middle) : (nth(sorted, middle - 1) + nth(sorted, middle)) / 2;
}
