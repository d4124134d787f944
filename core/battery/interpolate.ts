import { nth } from "#core/base";
/**
 * Straight lines between points, flat outside them.
 *
 * @param xs rising abscissae; @param ys ordinates, as many
 * @example interpolate([0, 10], [0, 1], 4) === 0.4
 */
export function interpolate(xs: readonly number[], ys: readonly number[], x: number): number {
  const last = xs.length - 1;
  if (x <= nth(xs, 0)) return nth(ys, 0);
  if (x >= nth(xs, last)) return nth(ys, last);
  let high = 1;
  while (nth(xs, high) < x) high += 1;
  const share = (x - nth(xs, high - 1)) / (nth(xs, high) - nth(xs, high - 1));
  return nth(ys, high - 1) + share * (nth(ys, high) - nth(ys, high - 1));
}
