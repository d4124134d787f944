import { rowAt, nth, num } from "#core/base";
/**
 * The border of the chain: an upper triangle R with R x = rhs, built by rotating rows into it one at a time (Givens), so
 * that no squared matrix is ever formed. Row i holds its columns from 0, with the right-hand side last.
 */
export interface Triangle {
  readonly size: number;
  readonly rows: readonly Float64Array[];
  /** Sum of squares that no choice of x can remove. */
  rss: number;
}

/** A triangle that starts as independent standard normals in the first `normals` columns and knows nothing of the rest. */
export function openTriangle(size: number, normals: number): Triangle {
  const rows = Array.from({ length: size }, (_, i) => {
    const row = new Float64Array(size + 1);
    row[i] = i < normals ? 1 : 0;
    return row;
  });
  return { size, rows, rss: 0 };
}

/** Turns two rows so that the second has zero at a column; entries before `column` must be zero in both. */
export function rotate(pivot: Float64Array, row: Float64Array, column: number): void {
  const b = num(row, column);
  if (b === 0) return;
  const a = num(pivot, column);
  const length = Math.sqrt(a * a + b * b);
  const cos = a / length;
  const sin = b / length;
  pivot[column] = length;
  row[column] = 0;
  for (let j = column + 1; j < row.length; j += 1) {
    const p = num(pivot, j);
    const r = num(row, j);
    pivot[j] = cos * p + sin * r;
    row[j] = cos * r - sin * p;
  }
}

/** Rotates a row (columns, then right-hand side) into the triangle; the row is used up. */
export function absorb(triangle: Triangle, row: Float64Array): void {
  for (let i = 0; i < triangle.size; i += 1) rotate(rowAt(triangle.rows, i), row, i);
  triangle.rss += num(row, triangle.size) ** 2;
}

/** Solves R x = rhs from the bottom. */
export function solveTriangle({ rows, size }: Triangle): Float64Array {
  const x = new Float64Array(size);
  for (let i = size - 1; i >= 0; i -= 1) {
    const row = rowAt(rows, i);
    let sum = num(row, size);
    for (let j = i + 1; j < size; j += 1) sum -= num(row, j) * num(x, j);
    x[i] = sum / num(row, i);
  }
  return x;
}

/** Solves R x = y for a right-hand side of one's own. */
export function backward({ rows, size }: Triangle, y: Float64Array): Float64Array {
  const x = Float64Array.from(y);
  for (let i = size - 1; i >= 0; i -= 1) {
    const row = rowAt(rows, i);
    let sum = num(x, i);
    for (let j = i + 1; j < size; j += 1) sum -= num(row, j) * num(x, j);
    x[i] = sum / num(row, i);
  }
  return x;
}

/** Solves R' y = g from the top, in place. */
export function forward({ rows, size }: Triangle, g: Float64Array): Float64Array {
  for (let i = 0; i < size; i += 1) {
    if (g[i] === 0) continue;
    const row = rowAt(rows, i);
    const y = num(g, i) / num(row, i);
    g[i] = y;
    for (let j = i + 1; j < size; j += 1) g[j] = num(g, j) - num(row, j) * y;
  }
  return g;
}

/** Covariance of x: (R' R)^-1, by rows. */
export function covarianceOf(triangle: Triangle): readonly Float64Array[] {
  const { size } = triangle;
  const inverse: Float64Array[] = [];
  for (let i = 0; i < size; i += 1) {
    const unit = new Float64Array(size);
    unit[i] = 1;
    inverse.push(forward(triangle, unit));
  }
  return inverse.map((left, i) =>
    Float64Array.from({ length: size }, (_, j) => {
      const right = rowAt(inverse, j);
      let sum = 0;
      for (let k = Math.max(i, j); k < size; k += 1) sum += num(left, k) * nth(right, k);
      return sum;
    }),
  );
}

/** Whether the triangle can be solved: every diagonal a number clear of zero. */
export function isSolvable({ rows, size }: Triangle): boolean {
  return rows.every(
    (row, i) =>
      Math.abs(num(row, i)) > 1e-12 && Number.isFinite(num(row, i)) && Number.isFinite(num(row, size)),
  );
}

/** Log of the size of the triangle's determinant. */
export function logDeterminant({ rows }: Triangle): number {
  return rows.reduce((sum, row, i) => sum + Math.log(Math.abs(num(row, i))), 0);
}
