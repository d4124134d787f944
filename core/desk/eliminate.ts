import { choleskyOf, forwardSubstitute, backSubstitute } from "#core/base";
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
      const common = own.reduce((sum, _name, k) => sum + byOwn[i]![k]! * byOwn[j]![k]!, 0);
      return spread * (common + (i === j ? sd * sd : 0));
    }),
  );
  const lower = choleskyOf(noise);
  const rightOf = (i: number) =>
    measured[i]!.mean -
    value[i]! +
    own.reduce((sum, _name, k) => sum + byOwn[i]![k]! * at.own[k]!, 0) +
    at.shared.reduce((sum, z, k) => sum + byShared[i]![k]! * z, 0);
  const rights = measured.map((_, i) => rightOf(i));
  const right = forwardSubstitute(lower, Float64Array.from(rights));
  const columns = at.shared.map((_, k) =>
    forwardSubstitute(
      lower,
      Float64Array.from(byShared, (row) => row[k]!),
    ),
  );
  return {
    rows: measured.map((_, i) => ({ slopes: columns.map((column) => column[i]!), right: right[i]! })),
    ownAt: (shared) => {
      const left = rights.map(
        (each, i) => each - shared.reduce((sum, z, k) => sum + byShared[i]![k]! * z, 0),
      );
      const weights = backSubstitute(lower, forwardSubstitute(lower, Float64Array.from(left)));
      return own.map((_, k) => spread * byOwn.reduce((sum, row, i) => sum + row[k]! * weights[i]!, 0));
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
  const [{ mean, sd }, g, h] = [measured[0]!, byShared[0]!, byOwn[0]!];
  let [variance, right] = [sd * sd, mean - value[0]!];
  for (let k = 0; k < h.length; k += 1) {
    variance += h[k]! * h[k]!;
    right += h[k]! * at.own[k]!;
  }
  for (let k = 0; k < g.length; k += 1) right += g[k]! * at.shared[k]!;
  const noise = widened * widened;
  variance *= noise;
  const by = 1 / Math.sqrt(variance);
  return {
    rows: [{ slopes: g.map((slope) => slope * by), right: right * by }],
    ownAt: (shared) => {
      let left = right;
      for (let k = 0; k < g.length; k += 1) left -= g[k]! * shared[k]!;
      return h.map((slope) => (slope * left * noise) / variance);
    },
  };
}
