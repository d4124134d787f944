import { solvePosterior } from "./posterior.ts";
import { sourcesOf } from "./evidence.ts";
import type { Figure } from "./figures.ts";
import type { Solved } from "./solve.ts";

export interface BudgetLine {
  readonly source: string;
  /** Fall in the figure's variance were this source known exactly. */
  readonly variance: number;
}

/** What a figure's doubt is made of: for each error source, the fall in variance with that source's set to zero; largest first. */
export function budgetOf(solved: Solved, figure: Figure): readonly BudgetLine[] {
  const { prior, evidence, posterior } = solved;
  const whole = posterior.variances([figure.gradient])[0]!;
  return sourcesOf(prior, evidence.rows)
    .flatMap((source) => {
      const without = solvePosterior(prior, evidence, source);
      return without ? [{ source, variance: whole - without.variances([figure.gradient])[0]! }] : [];
    })
    .filter(({ variance }) => variance > 0)
    .sort((a, b) => b.variance - a.variance);
}
