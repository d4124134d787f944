import { CholeskyDecomposition, Matrix } from "ml-matrix";
import { errorCovariance, type Evidence } from "./evidence.ts";
import { dot, lastEntry, type Form } from "./forms.ts";
import type { Prior } from "./prior.ts";

/**
 * The linear Gaussian answer in its evidence form: prior covariance D (diagonal), V = H D H' + R, everything through
 * the Cholesky factor L of V, which is as large as the number of readings.
 */
export interface Posterior {
  readonly mean: Float64Array;
  /** Posterior variance of each form. */
  variances(forms: readonly Form[]): readonly number[];
  /** Chi-square of the readings against the prior prediction, over their number. */
  readonly chi2PerReading: number;
  /** Residual of each reading against the answer without it, in sds. */
  looStandardised(): readonly number[];
}

/** A copy of the prior's variances with one source's set to zero. */
function varianceWithout(prior: Prior, without: string | undefined): Float64Array {
  return without === undefined
    ? prior.variance
    : prior.variance.map((variance, i) => (prior.source[i] === without ? 0 : variance));
}

/** L^-1 b by forward substitution, in place; entries before `first` of b are known to be zero. */
function forward(lower: readonly Float64Array[], b: Float64Array, first = 0): Float64Array {
  for (let i = first; i < b.length; i += 1) {
    const row = lower[i]!;
    let sum = b[i]!;
    for (let k = first; k < i; k += 1) sum -= row[k]! * b[k]!;
    b[i] = sum / row[i]!;
  }
  return b;
}

/** A column of L^-1 H D, and the first reading it touches: a leg's scatter says nothing of the readings before it. */
interface Column {
  readonly first: number;
  readonly values: Float64Array;
}

/** The variance of forms: g' D g less the square of L^-1 H D g, column by column of L^-1 H D, each made when first needed. */
function varianceReader(forms: readonly Form[], variance: Float64Array, lower: readonly Float64Array[]) {
  const n = lower.length;
  const columns: (Column | undefined)[] = [];
  const makeColumn = (v: number): Column => {
    const values = new Float64Array(n);
    let first = n;
    for (let i = n - 1; i >= 0; i -= 1) {
      values[i] = forms[i]![v]! * variance[v]!;
      if (values[i] !== 0) first = i;
    }
    return { first, values: forward(lower, values, first) };
  };
  return (form: Form): number => {
    const known = new Float64Array(n);
    let prior = 0;
    for (let v = 0; v < form.length; v += 1) {
      const coefficient = form[v]!;
      if (coefficient === 0 || variance[v] === 0) continue;
      prior += coefficient * coefficient * variance[v]!;
      const { first, values } = (columns[v] ??= makeColumn(v));
      for (let i = first; i < n; i += 1) known[i] = known[i]! + coefficient * values[i]!;
    }
    return Math.max(0, prior - dot(known, known));
  };
}

/**
 * Solves for the base variables given the evidence.
 *
 * @param without an error source taken as exactly known, for the budget
 * @returns null when the readings' covariance is singular: two that must agree exactly and do not
 */
export function solvePosterior(prior: Prior, evidence: Evidence, without?: string): Posterior | null {
  const { forms, values, rows } = evidence;
  const n = forms.length;
  const variance = varianceWithout(prior, without);
  const spread = forms.map((form) => form.map((coefficient, i) => coefficient * variance[i]!));
  const ends = forms.map(lastEntry);
  const covariance = errorCovariance(rows, without);
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1) {
      const sum = covariance.get(i, j) + dot(spread[i]!, forms[j]!, Math.min(ends[i]!, ends[j]!));
      covariance.set(i, j, sum);
      covariance.set(j, i, sum);
    }
  const cholesky = n > 0 ? new CholeskyDecomposition(covariance) : null;
  if (cholesky && !cholesky.isPositiveDefinite()) return null;
  const lower = cholesky
    ? cholesky.lowerTriangularMatrix.to2DArray().map((row) => Float64Array.from(row))
    : [];
  const residual = values.map((value, i) => value - dot(forms[i]!, prior.mean));
  const weights = cholesky ? cholesky.solve(Matrix.columnVector(residual)).to1DArray() : [];
  const mean = Float64Array.from(prior.mean);
  spread.forEach((row, i) => {
    for (let v = 0; v < mean.length; v += 1) mean[v] = mean[v]! + weights[i]! * row[v]!;
  });
  const read = varianceReader(forms, variance, lower);
  return {
    mean,
    variances: (asked) => asked.map(read),
    chi2PerReading: n === 0 ? 0 : residual.reduce((sum, value, i) => sum + value * weights[i]!, 0) / n,
    looStandardised: () =>
      weights.map((weight, i) => {
        const unit = new Float64Array(n);
        unit[i] = 1;
        const inverse = forward(lower, unit, i);
        return weight / Math.sqrt(dot(inverse, inverse));
      }),
  };
}
