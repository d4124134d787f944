import { rowAt, nth, num } from "./nth.ts";
/** A lower triangle, row by row. */
export type Lower = readonly Float64Array[];

/** Cholesky factor of a symmetric positive definite matrix, of which the lower half is read: A = L L'. A pivot that is not positive counts as next to nothing. */
export function choleskyOf(matrix: readonly Float64Array[]): Lower {
  const n = matrix.length;
  const lower = matrix.map(() => new Float64Array(n));
  for (let i = 0; i < n; i += 1) {
    const row = rowAt(lower, i);
    for (let j = 0; j <= i; j += 1) {
      const other = rowAt(lower, j);
      let sum = num(rowAt(matrix, i), j);
      for (let k = 0; k < j; k += 1) sum -= nth(row, k) * nth(other, k);
      row[j] = i === j ? Math.sqrt(Math.max(sum, Number.MIN_VALUE)) : sum / nth(other, j);
    }
  }
  return lower;
}

/** Solves L x = b. */
export function forwardSubstitute(lower: Lower, b: Float64Array): Float64Array {
  const x = new Float64Array(lower.length);
  for (let i = 0; i < x.length; i += 1) {
    const row = rowAt(lower, i);
    let sum = num(b, i);
    for (let k = 0; k < i; k += 1) sum -= num(row, k) * num(x, k);
    x[i] = sum / num(row, i);
  }
  return x;
}

/** Solves L' x = b. */
export function backSubstitute(lower: Lower, b: Float64Array): Float64Array {
  const x = Float64Array.from(b);
  for (let i = x.length - 1; i >= 0; i -= 1) {
    x[i] = num(x, i) / num(rowAt(lower, i), i);
    for (let k = 0; k < i; k += 1) x[k] = num(x, k) - num(rowAt(lower, i), k) * num(x, i);
  }
  return x;
}
