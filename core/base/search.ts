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
