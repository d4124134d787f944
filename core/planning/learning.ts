import { slopedVariance, type Sloped } from "#core/forecast";
import type { Known, Untold } from "./known.ts";

/** Something to tell of an earlier test, and the forecast's sd once it is told, Wh per metre. */
export interface Learning extends Untold {
  readonly sdLeft: number;
}

/** Least share of the sd that something must take away to be named. */
const WORTH_SAYING = 0.02;
const MOST = 3;

/**
 * What would make a forecast surer without another ride: what is still untold of the bike's earlier tests, by what each
 * minute takes off its sd. `[]` when nothing would by a fiftieth.
 *
 * @param energy of the way, Wh, with its slopes; @param sd of its figure now, Wh per metre; @param overM the way, m
 */
export function learningOf(
  { knowledge, untold }: Known,
  energy: Sloped,
  sd: number,
  overM: number,
): readonly Learning[] {
  const now = slopedVariance(energy, knowledge);
  return untold
    .map(({ covariance, ...each }): Learning => {
      const less = (now - slopedVariance(energy, { ...knowledge, covariance })) / (overM * overM);
      return { ...each, sdLeft: Math.sqrt(Math.max(0, sd * sd - less)) };
    })
    .filter(({ sdLeft }) => sdLeft < sd * (1 - WORTH_SAYING))
    .sort((a, b) => (sd - b.sdLeft) / Math.max(1, b.minutes) - (sd - a.sdLeft) / Math.max(1, a.minutes))
    .slice(0, MOST);
}
