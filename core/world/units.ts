/** The world has its own constants, as it has its own physics: nothing of what is tried in it is its own. */
export const MILE_M = 1609.344;
export const MPH = MILE_M / 3600;
export const GRAVITY = 9.80665;
const KELVIN = 273.15;

export const kelvin = (celsius: number) => celsius + KELVIN;

/** The value at a place of a row. @throws RangeError beyond it */
export function at<T>(row: readonly T[], place: number): T {
  const value = row.at(place);
  if (value === undefined) throw new RangeError(`There is nothing at place ${place} of ${row.length}.`);
  return value;
}

/** A value between the points of a table, held beyond its ends. */
export function between(xs: readonly number[], ys: readonly number[], x: number): number {
  if (x <= at(xs, 0)) return at(ys, 0);
  for (let i = 1; i < xs.length; i += 1)
    if (x <= at(xs, i)) {
      const share = (x - at(xs, i - 1)) / (at(xs, i) - at(xs, i - 1));
      return at(ys, i - 1) + share * (at(ys, i) - at(ys, i - 1));
    }
  return at(ys, -1);
}
