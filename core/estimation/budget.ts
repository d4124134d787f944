import type { ErrorSource } from "#core/battery/readings";
import { varianceOf, type Figure } from "./figures.ts";
import type { Solved } from "./solve.ts";

export interface BudgetLine {
  readonly source: ErrorSource;
  /** Fall in the figure's variance were this source known exactly. */
  readonly variance: number;
}

/** The names of all error sources that play a part. */
function sourcesOf({ columns, travel, evidence }: Solved): readonly ErrorSource[] {
  const names = new Set<ErrorSource>();
  const take = (source: ErrorSource | null, sd: number) => {
    if (source !== null && sd > 0) names.add(source);
  };
  for (const { source, sd } of columns.unknowns.list) take(source, sd);
  for (const { errors } of [...travel.rows, ...evidence])
    for (const { source, sd } of errors) take(source, sd);
  return [...names];
}

/** What a figure's doubt is made of: for each error source, the fall in variance with that source's set to zero; largest first. */
export function budgetOf(solved: Solved, figure: Figure): readonly BudgetLine[] {
  const whole = varianceOf(solved.posterior, figure);
  return sourcesOf(solved)
    .flatMap((source) => {
      const without = solved.without(source);
      const extra = source === "road scatter" ? 0 : figure.extra;
      return without ? [{ source, variance: whole - varianceOf(without, { ...figure, extra }) }] : [];
    })
    .filter(({ variance }) => variance > whole * 1e-6)
    .sort((a, b) => b.variance - a.variance);
}
