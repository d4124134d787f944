/** A lower triangle, row by row. */
export type Lower = readonly Float64Array[];

/** Cholesky factor of a symmetric positive definite matrix, of which the lower half is read: A = L L'. A pivot that is not positive counts as next to nothing. */
export function choleskyOf(matrix: readonly Float64Array[]): Lower {
  const n = matrix.length;
  const lower = matrix.map(() => new Float64Array(n));
  for (let i = 0; i < n; i += 1) {
    const row = lower[i]!;
    for (let j = 0; j <= i; j += 1) {
      const other = lower[j]!;
      let sum = matrix[i]![j]!;
      for (let k = 0; k < j; k += 1) sum -= row[k]! * other[k]!;
      row[j] = i === j ? Math.sqrt(Math.max(sum, Number.MIN_VALUE)) : sum / other[j]!;
    }
  }
  return lower;
}

/** Solves L x = b. */
export function forwardSubstitute(lower: Lower, b: Float64Array): Float64Array {
  const x = new Float64Array(lower.length);
  for (let i = 0; i < x.length; i += 1) {
    const row = lower[i]!;
    let sum = b[i]!;
    for (let k = 0; k < i; k += 1) sum -= row[k]! * x[k]!;
    x[i] = sum / row[i]!;
  }
  return x;
}

/** Solves L' x = b. */
export function backSubstitute(lower: Lower, b: Float64Array): Float64Array {
  const x = Float64Array.from(b);
  for (let i = x.length - 1; i >= 0; i -= 1) {
    x[i] = x[i]! / lower[i]![i]!;
    for (let k = 0; k < i; k += 1) x[k] = x[k]! - lower[i]![k]! * x[i]!;
  }
  return x;
}
