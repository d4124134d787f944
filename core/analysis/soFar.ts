import { num, nth, DEFAULTS, METRES_PER_MILE, type Estimate } from "#core/base";
import {
  linearFigure,
  estimateOf,
  studentShare,
  usedOnRide,
  varianceOf,
  type Solved,
} from "#core/estimation";
import type { RideSoFar } from "#core/analysis/projection";

/** Stretches are looked at in spans of this: shorter ones show the gauge's steps, and hills last for miles. */
const LEAST_SPAN_M = 4 * METRES_PER_MILE;
/** The ledger's own scatter counts like so many stretches. */
const LEARNED_AS = 3;
/** What a mile takes is hardly ever below nothing: its scatter is not above its mean. */
const MOST_SCATTER = 1;

/**
 * Scatter of one mile of the road about its mean, as a share: what the ledger learned, with how the stretches ridden differ.
 * Climb and level explain the stretches ridden, not those to come, so here they count as scatter.
 */
function roadScatter(solved: Solved, usedShare: number): number {
  const { mean } = solved.posterior;
  const first = nth(solved.columns.firstMark, 0);
  const capacity = num(mean, nth(Object.values(solved.columns.capacity), 0));
  const ridden = nth(solved.input.rides, 0).legs.flatMap(({ metres, charged }, leg) => {
    const length = Object.values(metres).reduce((a, b) => a + b, 0);
    if (charged || length <= 0) return [];
    return [{ metres: length, used: num(mean, first + leg + 1) - num(mean, first + leg) }];
  });
  const metres = ridden.reduce((sum, each) => sum + each.metres, 0);
  const rate = usedShare / metres;
  if (!(rate > 0)) return DEFAULTS.scatterShare;
  const learned =
    (DEFAULTS.scatterShare * DEFAULTS.rateWhPerMi * Math.sqrt(solved.scatterSquared)) /
    (capacity * rate * METRES_PER_MILE);
  const spans: { metres: number; used: number }[] = [];
  for (const each of ridden) {
    const last = spans.at(-1);
    if (last && last.metres < LEAST_SPAN_M)
      spans[spans.length - 1] = { metres: last.metres + each.metres, used: last.used + each.used };
    else spans.push(each);
  }
  const square = spans.reduce(
    (sum, each) => sum + (each.metres / METRES_PER_MILE) * (each.used / each.metres / rate - 1) ** 2,
    0,
  );
  const told = LEARNED_AS + Math.max(0, spans.length - 1);
  return Math.min(MOST_SCATTER, Math.sqrt((LEARNED_AS * learned ** 2 + square) / told) * studentShare(told));
}

/**
 * A ride as its ledger has it at its last mark, for the way left: what was used on it and what is spent in all, jointly.
 *
 * @param distance ridden on the test, with its error, m; @param wide factor of the sds
 */
export function soFar(solved: Solved, distance: Estimate, wide: number): RideSoFar {
  const used = usedOnRide(solved, 0).form;
  const last = nth(solved.columns.firstMark, 0) + nth(solved.input.rides, 0).legs.length;
  const spent = new Map([[last, 1]]);
  const both = new Map([...used, [last, (used.get(last) ?? 0) + 1]]);
  const variance = (form: ReadonlyMap<number, number>) =>
    varianceOf(solved.posterior, linearFigure(solved, form));
  const square = wide * wide;
  const usedShare = estimateOf(solved, linearFigure(solved, used));
  const spentShare = estimateOf(solved, linearFigure(solved, spent));
  return {
    distance,
    used: { mean: usedShare.mean, sd: usedShare.sd * wide },
    spent: { mean: spentShare.mean, sd: spentShare.sd * wide },
    covariance: (square * (variance(both) - variance(used) - variance(spent))) / 2,
    scatter: roadScatter(solved, usedShare.mean),
  };
}
