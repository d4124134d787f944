import { num } from "#core/base";
import {
  covarianceWith,
  eliminate,
  forwardSubstitute,
  backSubstitute,
  type EliminationPlan,
} from "./chain.ts";
import { valueAt, type LinearForm } from "./linearForm.ts";
import { isLocal, marginalsOf, type Marginals } from "./marginals.ts";
import { rowSd, type LedgerRow, type Weighing } from "./rows.ts";

/** One reading against the rest of the rows. */
export interface Residual {
  readonly row: LedgerRow;
  /** The row's own sd. */
  readonly sd: number;
  /** Against the answer that holds it, in its own sds. */
  readonly residual: number;
  /** What the rest leaves open of it: its own variance over that and the rest's, 0..1. */
  readonly free: number;
}

/** The answer of a linear Gaussian model, or of a mixture of such by its moments. */
export interface Posterior {
  /** The expected value of every column, in natural units. */
  readonly mean: Float64Array;
  /** Chi-square of the readings against the prior prediction, over their number. */
  readonly chi2PerReading: number;
  /** How many readings that is over. */
  readonly count: number;
  variance(form: LinearForm): number;
  /** Covariance of a form with every column. */
  covarianceWith(form: LinearForm): Float64Array;
}

/** The answer under one weighing of the rows. */
export interface GaussianPosterior extends Posterior {
  /** Log density of the readings, up to what no weighing changes. */
  readonly logDensity: number;
  residuals(): readonly Residual[];
}

const squares = (values: Float64Array) => {
  let sum = 0;
  for (let i = 0; i < values.length; i += 1) sum += num(values, i) * num(values, i);
  return sum;
};

/**
 * Solves travel and evidence rows together.
 *
 * @returns null when the rows leave something undetermined or hold what is not a number
 */
export function solvePosterior(
  layout: EliminationPlan,
  travel: readonly LedgerRow[],
  evidence: readonly LedgerRow[],
  weighing: Weighing = {},
): GaussianPosterior | null {
  const factor = eliminate(layout, [...travel, ...evidence], weighing);
  if (!factor) return null;
  const mean = backSubstitute(factor);
  let sweep: Marginals | null = null;
  let told: readonly Residual[] | null = null;
  const variance = (form: LinearForm): number => {
    if (isLocal(layout, form)) return (sweep ??= marginalsOf(factor)).variance(form);
    const { chain, edge } = forwardSubstitute(factor, form);
    return squares(chain) + squares(edge);
  };
  return {
    mean,
    logDensity: factor.logDensity,
    count: evidence.length,
    chi2PerReading: evidence.length ? factor.triangle.rss / evidence.length : 0,
    variance,
    covarianceWith: (form) => covarianceWith(factor, form),
    residuals: () =>
      (told ??= evidence.map((row) => {
        const sd = rowSd(row, weighing);
        const known = variance(row.form) / (sd * sd);
        return {
          row,
          sd,
          residual: (row.value - valueAt(row.form, mean)) / sd,
          free: Math.max(1 - known, 1e-15),
        };
      })),
  };
}
