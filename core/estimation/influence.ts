import { nth } from "#core/base";
import type { Estimate } from "#core/base";
import { valueAt } from "./linearForm.ts";
import { varianceOf, type Figure } from "./figures.ts";
import { leaveOneOut } from "./leftOut.ts";
import type { SolvedLedger } from "./solve.ts";

/** How one reading bears on a figure. */
export interface Influence {
  /** Residual against the answer without it, sds. */
  readonly standing: number;
  /** The figure without this reading, by the linear update; unwidened. */
  readonly without: Estimate;
  /** Share of the figure's news from all readings that this one brings, 0..1: its fall in variance over their sum. */
  readonly share: number;
  /** What an energy reading says, and what the whole answer would have it read, Wh; of others the row's two sides. */
  readonly says: number;
  readonly answer: number;
  readonly sd: number;
}

/** Every reading's bearing on a figure, in the order of the readings: what the figure would be without it, and its weight. */
export function influences(
  { parts, posterior, evidence }: SolvedLedger,
  figure: Figure,
): readonly Influence[] {
  /** By part: the figure under it, its variance, and its covariance with every column. */
  const under = parts.map((part) => ({
    mean:
      figure.mean + valueAt(figure.gradient, part.posterior.mean) - valueAt(figure.gradient, posterior.mean),
    variance: varianceOf(part.posterior, figure),
    along: part.posterior.covarianceWith(figure.gradient),
  }));
  const found = leaveOneOut(parts).map((left, i) => {
    const row = nth(evidence, i);
    const without = left.parts.map(({ weight, residual: { sd, residual, free } }, p) => {
      const { mean, variance, along } = nth(under, p);
      const pull = valueAt(row.form, along) / sd;
      return { weight, mean: mean - (pull * residual) / free, variance: variance + pull ** 2 / free, news: pull ** 2 / free }; // prettier-ignore
    });
    const mean = without.reduce((sum, each) => sum + each.weight * each.mean, 0);
    const variance = without.reduce(
      (sum, each) => sum + each.weight * (each.variance + (each.mean - mean) ** 2),
      0,
    );
    return {
      standing: left.standing,
      without: { mean, sd: Math.sqrt(variance) },
      news: without.reduce((sum, { weight, news }) => sum + weight * news, 0),
      says: row.value - (row.shift ?? 0),
      answer: valueAt(row.form, posterior.mean) - (row.shift ?? 0),
      sd: nth(left.parts, 0).residual.sd,
    };
  });
  const news = found.reduce((sum, each) => sum + each.news, 0);
  return found.map(({ news: own, ...rest }) => ({ ...rest, share: news > 0 ? own / news : 0 }));
}
