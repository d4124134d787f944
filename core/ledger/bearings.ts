import type { Uncertain } from "#core/quantities";
import { valueAt } from "./forms.ts";
import { varianceOf, type Figure } from "./figures.ts";
import type { Solved } from "./solve.ts";

/** How one reading bears on a figure. */
export interface Bearing {
  /** Residual against the answer without it, sds. */
  readonly standing: number;
  /** The figure without this reading, by the linear update; unwidened. */
  readonly without: Uncertain;
  /** Share of the figure's news from all readings that this one brings, 0..1: its fall in variance over their sum. */
  readonly share: number;
  /** What an energy reading says, and what the whole answer would have it read, Wh; of others the row's two sides. */
  readonly says: number;
  readonly answer: number;
  readonly sd: number;
}

/** Every reading's bearing on a figure, in the order of the readings: what the figure would be without it, and its weight. */
export function bearings({ posterior }: Solved, figure: Figure): readonly Bearing[] {
  const along = posterior.covarianceWith(figure.gradient);
  const whole = varianceOf(posterior, figure);
  const found = posterior.readings().map(({ row, sd, residual, free }) => {
    const pull = valueAt(row.form, along) / sd;
    const answer = valueAt(row.form, posterior.mean);
    return {
      standing: residual / Math.sqrt(free),
      without: {
        mean: figure.mean - (pull * residual) / free,
        sd: Math.sqrt(Math.max(0, whole + (pull * pull) / free)),
      },
      news: (pull * pull) / free,
      says: row.value - (row.shift ?? 0),
      answer: answer - (row.shift ?? 0),
      sd,
    };
  });
  const news = found.reduce((sum, each) => sum + each.news, 0);
  return found.map(({ news: own, ...rest }) => ({ ...rest, share: news > 0 ? own / news : 0 }));
}
