import { num } from "#core/base";
/**
 * A linear form over the ledger's columns: column -> coefficient, in natural units. Columns are the fractions used at
 * the marks, then the unknowns. Sparse, since most forms touch two marks and a handful of unknowns.
 */
export type LinearForm = ReadonlyMap<number, number>;

/** The sum of forms x factors. Example: `combine([[new Map([[0, 1]]), 2]])` is 2 at column 0. */
export function combine(terms: readonly (readonly [LinearForm, number])[]): LinearForm {
  const sum = new Map<number, number>();
  for (const [form, factor] of terms)
    for (const [column, coefficient] of form) sum.set(column, (sum.get(column) ?? 0) + factor * coefficient);
  return sum;
}

/** Adds a form x a factor to a sum in place: for sums that grow with every leg, which copying would make slow. */
export function addTo(sum: Map<number, number>, form: LinearForm, factor: number): void {
  for (const [column, coefficient] of form) sum.set(column, (sum.get(column) ?? 0) + factor * coefficient);
}

/**
 * Value of a form at a point that holds every column.
 *
 * @example valueAt(new Map([[0, 2], [1, 3]]), [10, 1]) === 23
 */
export function valueAt(form: LinearForm, point: Float64Array): number {
  let sum = 0;
  for (const [column, coefficient] of form) sum += coefficient * num(point, column);
  return sum;
}
