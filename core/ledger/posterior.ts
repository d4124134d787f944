import { CholeskyDecomposition, Matrix } from "ml-matrix";
import { errorCovariance, type Evidence } from "./evidence.ts";
import { dot, type Form } from "./forms.ts";
import type { Prior } from "./prior.ts";

/**
 * The linear Gaussian answer in its evidence form: prior covariance D (diagonal), V = H D H' + R, everything through
 * the Cholesky factor of V, which is as large as the number of readings.
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
    : prior.variance.map((v, i) => (prior.source[i] === without ? 0 : v));
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
  const covariance = errorCovariance(rows, without);
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1) {
      const sum = covariance.get(i, j) + dot(spread[i]!, forms[j]!);
      covariance.set(i, j, sum);
      covariance.set(j, i, sum);
    }
  const mean = Float64Array.from(prior.mean);
  if (n === 0)
    return {
      mean,
      variances: (asked) => asked.map((form) => priorVariance(form, variance)),
      chi2PerReading: 0,
      looStandardised: () => [],
    };
  const cholesky = new CholeskyDecomposition(covariance);
  if (!cholesky.isPositiveDefinite()) return null;
  const residual = Matrix.columnVector(values.map((value, i) => value - dot(forms[i]!, prior.mean)));
  const weights = cholesky.solve(residual);
  forms.forEach((_, i) => {
    const weight = weights.get(i, 0);
    const row = spread[i]!;
    for (let v = 0; v < mean.length; v += 1) mean[v] = mean[v]! + weight * row[v]!;
  });
  const chi2 = residual.transpose().mmul(weights).get(0, 0);
  return {
    mean,
    variances: (asked) => {
      if (asked.length === 0) return [];
      const cross = new Matrix(spread.map((row) => asked.map((form) => dot(row, form))));
      const solved = cholesky.solve(cross);
      return asked.map((form, column) => {
        let known = 0;
        for (let i = 0; i < n; i += 1) known += cross.get(i, column) * solved.get(i, column);
        return Math.max(0, priorVariance(form, variance) - known);
      });
    },
    chi2PerReading: chi2 / n,
    looStandardised: () => {
      const inverse = cholesky.solve(Matrix.eye(n));
      return values.map((_, i) => weights.get(i, 0) / Math.sqrt(inverse.get(i, i)));
    },
  };
}

function priorVariance(form: Form, variance: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < form.length; i += 1) sum += form[i]! * form[i]! * variance[i]!;
  return sum;
}
