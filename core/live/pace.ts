import { DEFAULTS, METRES_PER_MILE, type Estimate, bisect } from "#core/base";
import type { Forecast } from "#core/forecast";
import { wayLeft, type RideSoFar } from "#core/analysis/projection";

/**
 * What the ride so far takes against its plan, 1 as planned: the plan's own doubt of it weighed with what was measured, of
 * which a short way tells little.
 */
export function paceOf(forecast: Forecast, { used, distance }: RideSoFar): Estimate {
  const at = forecast.at(distance.mean);
  const planned = at.used.mean - forecast.start.mean;
  if (!(planned > 0) || !(distance.mean > 0)) return { mean: 1, sd: DEFAULTS.roadAheadSd };
  const miles = Math.max(distance.mean / METRES_PER_MILE, 1);
  const prior = 1 / (at.used.sd / planned) ** 2;
  const own = used.mean / planned;
  const measured = 1 / Math.hypot(used.sd / planned, (own * DEFAULTS.scatterShare) / Math.sqrt(miles)) ** 2;
  return { mean: (prior + measured * own) / (prior + measured), sd: 1 / Math.sqrt(prior + measured) };
}

/** Furthest that is looked along a way that closes, m. */
const FARTHEST_M = 500_000;
const HALVINGS = 40;

/** Place of the planned way at which so much more of the pack is used than at another, at a pace; beyond its end at its mean. */
function placeWhere(forecast: Forecast, fromM: number, need: number, pace: number): number {
  const { way } = forecast.along;
  const usedTo = (placeM: number) => {
    const whole = way.closed ? placeM : Math.min(placeM, way.lengthM);
    const used = forecast.at(whole).used.mean - forecast.start.mean;
    return pace * used * (placeM > whole ? placeM / whole : 1);
  };
  const target = usedTo(fromM) + need;
  return bisect(fromM, fromM + FARTHEST_M, HALVINGS, (placeM) => usedTo(placeM) < target)[1];
}

/**
 * Way left on a planned course: by the course ahead at the ride's own pace, weighed with the ride's own mean. The two share
 * the readings; they differ in what they make of the road.
 *
 * @param share of the charge that may be spent, with its doubt
 * @returns null before anything was used
 */
export function wayLeftOnPlan(forecast: Forecast, ride: RideSoFar, share: Estimate): Estimate | null {
  const own = wayLeft(ride, share);
  if (!own) return null;
  const need = Math.max(0, share.mean - ride.spent.mean);
  if (need === 0) return own;
  const pace = paceOf(forecast, ride);
  const aheadM = placeWhere(forecast, ride.distance.mean, need, pace.mean) - ride.distance.mean;
  const byPlan = Math.hypot(pace.sd / pace.mean, DEFAULTS.roadAheadSd);
  const byRest = Math.hypot(ride.spent.sd, share.sd) / need;
  const byOwn = Math.sqrt(Math.max(1e-6, (own.sd / own.mean) ** 2 - byRest ** 2));
  const [plan, mine] = [1 / byPlan ** 2, 1 / byOwn ** 2];
  const mean = (plan * aheadM + mine * own.mean) / (plan + mine);
  const road = 1 / Math.sqrt(plan + mine);
  return { mean, sd: mean * Math.hypot(road, byRest) };
}
