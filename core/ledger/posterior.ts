import { covarianceWith, eliminate, halfSolve, likeliest, type Layout } from "./chain.ts";
import { valueAt, type Form } from "./forms.ts";
import { isLocal, marginalsOf, type Marginals } from "./marginals.ts";
import { rowSd, type LedgerRow } from "./rows.ts";

/** The answer of the linear Gaussian model. */
export interface Posterior {
  /** The most likely value of every column, in natural units. */
  readonly mean: Float64Array;
  /** Chi-square of the readings against the prior prediction, over their number. */
  readonly chi2PerReading: number;
  variance(form: Form): number;
  /** Covariance of a form with every column. */
  covarianceWith(form: Form): Float64Array;
  /** Residual of each reading against the answer without it, in sds. */
  looStandardised(): readonly number[];
  /** Each reading's residual, and what the rest already knew of it: noise variance / (noise + rest), both whitened. */
  readings(): readonly {
    readonly residual: number;
    readonly free: number;
    readonly row: LedgerRow;
    readonly sd: number;
  }[];
}

const squares = (values: Float64Array) => {
  let sum = 0;
  for (let i = 0; i < values.length; i += 1) sum += values[i]! * values[i]!;
  return sum;
};

/**
 * Solves travel and evidence rows together.
 *
 * @param without an error source taken as exactly known, for the budget
 * @returns null when the rows leave something undetermined or hold what is not a number
 */
export function solvePosterior(
  layout: Layout,
  travel: readonly LedgerRow[],
  evidence: readonly LedgerRow[],
  without?: string,
): Posterior | null {
  const factor = eliminate(layout, [...travel, ...evidence], without);
  if (!factor) return null;
  const mean = likeliest(factor);
  let sweep: Marginals | null = null;
  const variance = (form: Form): number => {
    if (isLocal(layout, form)) return (sweep ??= marginalsOf(factor)).variance(form);
    const { chain, edge } = halfSolve(factor, form);
    return squares(chain) + squares(edge);
  };
  const readings = () =>
    evidence.map((row) => {
      const sd = rowSd(row, without);
      const known = variance(row.form) / (sd * sd);
      return {
        row,
        sd,
        residual: (row.value - valueAt(row.form, mean)) / sd,
        free: Math.max(1 - known, 1e-15),
      };
    });
  return {
    mean,
    chi2PerReading: evidence.length ? factor.triangle.rss / evidence.length : 0,
    variance,
    covarianceWith: (form) => covarianceWith(factor, form),
    readings,
    looStandardised: () => readings().map(({ residual, free }) => residual / Math.sqrt(free)),
  };
}
