import { DEFAULTS, type Estimate } from "#core/base";
import type { Forecast } from "#core/forecast";
import { SPENT, wayLeft } from "#core/analysis/projection";
import type { TestResults } from "#core/analysis";
import { wayLeftOnPlan } from "./pace.ts";

/** Where a ride stands after its last entry. SI units. */
export interface LiveView {
  /** Ridden so far, m. */
  readonly distanceM: number;
  /** Of the usable energy. */
  readonly left: Estimate;
  readonly leftWh: Estimate;
  /** Way left at the rate so far: to the end, to full power's end, and with the reserve kept back; never under nothing. */
  readonly toEnd: Estimate;
  readonly toFullPower: Estimate;
  readonly toReserve: Estimate;
}

/**
 * What is left on a ride, from its ledger so far: what was spent at the last mark, and the rate of the ride's own mix in
 * fractions a metre, in which capacity cancels. Null before anything was ridden.
 *
 * @param reserve share of the charge kept back; @param forecast of the plan that is ridden, for the course ahead
 */
export function liveView(
  { soFar, capacity }: Pick<TestResults, "soFar" | "capacity">,
  reserve: number = DEFAULTS.reserve,
  forecast: Forecast | null = null,
): LiveView | null {
  const to = (share: Estimate) => (forecast ? wayLeftOnPlan(forecast, soFar, share) : wayLeft(soFar, share));
  const toEnd = to(SPENT.toEnd);
  const toFullPower = to(SPENT.toFullPower);
  const toReserve = to({ mean: 1 - reserve, sd: 0 });
  if (!toEnd || !toFullPower || !toReserve) return null;
  const left = { mean: Math.max(0, 1 - soFar.spent.mean), sd: soFar.spent.sd };
  return {
    distanceM: soFar.distance.mean,
    left,
    leftWh: {
      mean: left.mean * capacity.value.mean,
      sd: Math.hypot(left.sd * capacity.value.mean, left.mean * capacity.value.sd),
    },
    toEnd,
    toFullPower,
    toReserve,
  };
}
