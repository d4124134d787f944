import { ASSUMED } from "#core/assumptions";
import { linearFigure, uncertain, usedOnRide, varianceOf, type Solved } from "#core/ledger";
import type { RideSoFar } from "#core/projection";
import { METRES_PER_MILE, type Uncertain } from "#core/quantities";

/**
 * A ride as its ledger has it at its last mark, for the way left: what was used on it and what is spent in all, jointly.
 *
 * @param distance ridden on the test, with its error, m; @param wide factor of the sds
 */
export function soFar(solved: Solved, distance: Uncertain, wide: number): RideSoFar {
  const used = usedOnRide(solved, 0).form;
  const last = solved.columns.firstMark[0]! + solved.input.rides[0]!.legs.length;
  const spent = new Map([[last, 1]]);
  const both = new Map([...used, [last, (used.get(last) ?? 0) + 1]]);
  const variance = (form: ReadonlyMap<number, number>) =>
    varianceOf(solved.posterior, linearFigure(solved, form));
  const square = wide * wide;
  const usedShare = uncertain(solved, linearFigure(solved, used));
  const spentShare = uncertain(solved, linearFigure(solved, spent));
  const capacity = solved.posterior.mean[Object.values(solved.columns.capacity)[0]!]!;
  const whPerMi = (capacity * usedShare.mean) / (distance.mean / METRES_PER_MILE);
  const scatterWh = ASSUMED.scatterShare * ASSUMED.rateWhPerMi * Math.sqrt(solved.scatterSquared);
  return {
    distance,
    used: { mean: usedShare.mean, sd: usedShare.sd * wide },
    spent: { mean: spentShare.mean, sd: spentShare.sd * wide },
    covariance: (square * (variance(both) - variance(used) - variance(spent))) / 2,
    scatter: whPerMi > 0 ? scatterWh / whPerMi : ASSUMED.scatterShare,
  };
}
