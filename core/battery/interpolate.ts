/**
 * Straight lines between points, flat outside them.
 *
 * @param xs rising abscissae; @param ys ordinates, as many
 * @example interpolate([0, 10], [0, 1], 4) === 0.4
 */
export function interpolate(xs: readonly number[], ys: readonly number[], x: number): number {
  const last = xs.length - 1;
  if (x <= xs[0]!) return ys[0]!;
  if (x >= xs[last]!) return ys[last]!;
  let high = 1;
  while (xs[high]! < x) high += 1;
  const share = (x - xs[high - 1]!) / (xs[high]! - xs[high - 1]!);
  return ys[high - 1]! + share * (ys[high]! - ys[high - 1]!);
}
