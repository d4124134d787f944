/** A linear form over the ledger's base variables: index -> coefficient, dense. */
export type Form = Float64Array;

/** Adds `factor` times a form into another, in place. */
export function addInto(target: Form, form: Form, factor: number): void {
  for (let i = 0; i < target.length; i += 1) target[i] = target[i]! + factor * form[i]!;
}

/** The sum of forms x factors as a new form of the same length. */
export function combine(size: number, terms: readonly (readonly [Form, number])[]): Form {
  const sum = new Float64Array(size);
  for (const [form, factor] of terms) addInto(sum, form, factor);
  return sum;
}

/** Value of a form at a point, over the first `until` variables if given. */
export function dot(form: Form, point: Float64Array, until = form.length): number {
  let sum = 0;
  for (let i = 0; i < until; i += 1) sum += form[i]! * point[i]!;
  return sum;
}

/** How many variables from the start hold all that is not zero. */
export function lastEntry(form: Form): number {
  let end = form.length;
  while (end > 0 && form[end - 1] === 0) end -= 1;
  return end;
}
