import { num, nth, choleskyOf, forwardSubstitute, backSubstitute } from "#core/base";
import type { DeskDay, Linearised } from "./types.ts";

/** A day with its own unknowns solved out: rows of sd 1 in the shared ones, and the way back. */
export interface Eliminated {
  readonly rows: readonly { readonly slopes: readonly number[]; readonly right: number }[];
  /** The day's own unknowns where the shared ones stand. */
  readonly ownAt: (shared: readonly number[]) => readonly number[];
}

/**
 * Solves a day's own unknowns out of its observations: what they leave open is noise, V = sd^2 + H H'.
 *
 * @param at where it was linearised; @param widened factor on every sd of the day
 */
export function eliminate(
  day: DeskDay,
  linearised: Linearised,
  at: { readonly shared: readonly number[]; readonly own: readonly number[] },
  widened: number,
): Eliminated {
  if (day.measured.length === 1) return eliminateOne(day, linearised, at, widened);
  const { measured, own } = day;
  const { value, byShared, byOwn } = linearised;
  const n = measured.length;
  const spread = widened * widened;
  const noise = measured.map(({ sd }, i) =>
    Float64Array.from({ length: n }, (_, j) => {
      const common = own.reduce((sum, _name, k) => sum + nth(nth(byOwn, i), k) * nth(nth(byOwn, j), k), 0);
      return spread * (common + (i === j ? sd * sd : 0));
    }),
  );
  const lower = choleskyOf(noise);
  const rightOf = (i: number) =>
    nth(measured, i).mean -
    nth(value, i) +
    own.reduce((sum, _name, k) => sum + nth(nth(byOwn, i), k) * nth(at.own, k), 0) +
    at.shared.reduce((sum, z, k) => sum + nth(nth(byShared, i), k) * z, 0);
  const rights = measured.map((_, i) => rightOf(i));
  const right = forwardSubstitute(lower, Float64Array.from(rights));
  const columns = at.shared.map((_, k) =>
    forwardSubstitute(
      lower,
      Float64Array.from(byShared, (row) => nth(row, k)),
    ),
  );
  return {
    rows: measured.map((_, i) => ({ slopes: columns.map((column) => num(column, i)), right: num(right, i) })),
    ownAt: (shared) => {
      const left = rights.map(
        (each, i) => each - shared.reduce((sum, z, k) => sum + nth(nth(byShared, i), k) * z, 0),
      );
      const weights = backSubstitute(lower, forwardSubstitute(lower, Float64Array.from(left)));
      return own.map(
        (_, k) => spread * byOwn.reduce((sum, row, i) => sum + nth(row, k) * num(weights, i), 0),
      );
    },
  };
}

/** The same for a day of one observation, as most are: no matrix is needed. */
function eliminateOne(
  { measured }: DeskDay,
  { value, byShared, byOwn }: Linearised,
  at: { readonly shared: readonly number[]; readonly own: readonly number[] },
  widened: number,
): Eliminated {
  const [{ mean, sd }, g, h] = [nth(measured, 0), nth(byShared, 0), nth(byOwn, 0)];
  let [variance, right] = [sd * sd, mean - nth(value, 0)];
  for (let k = 0; k < h.length; k += 1) {
    variance += nth(h, k) * nth(h, k);
    right += nth(h, k) * nth(at.own, k);
  }
  for (let k = 0; k < g.length; k += 1) right += nth(g, k) * nth(at.shared, k);
  const noise = widened * widened;
  variance *= noise;
  const by = 1 / Math.sqrt(variance);
  return {
    rows: [{ slopes: g.map((slope) => slope * by), right: right * by }],
    ownAt: (shared) => {
      let left = right;
      for (let k = 0; k < g.length; k += 1) left -= nth(g, k) * nth(shared, k);
      return h.map((slope) => (slope * left * noise) / variance);
    },
  };
}
