import { ASSUMED } from "#core/assumptions";
import type { Uncertain } from "#core/quantities";
import type { TestResults } from "#core/results";

/** Where a ride stands after its last entry. SI units. */
export interface LiveView {
  /** Ridden so far, m. */
  readonly distanceM: number;
  /** Of the usable energy. */
  readonly left: Uncertain;
  readonly leftWh: Uncertain;
  /** Way left at the rate so far: to the end, to full power's end, and with the reserve kept back; never under nothing. */
  readonly toEnd: Uncertain;
  readonly toFullPower: Uncertain;
  readonly toReserve: Uncertain;
}

/**
 * What is left on a ride, from its ledger so far: the fraction used at the last mark, and the rate of the ride's own mix
 * in fractions a metre, in which capacity cancels. Null before anything was ridden.
 *
 * @param reserve share of the charge kept back
 */
export function liveView(
  results: Pick<TestResults, "best" | "capacity" | "distance" | "end">,
  reserve: number = ASSUMED.reserve,
): LiveView | null {
  const { best, capacity, distance, end } = results;
  const perM = best.value.mean / capacity.value.mean;
  if (!(perM > 0) || !(distance.value.mean > 0)) return null;
  const rateShare = best.value.sd / best.value.mean;
  const left = { mean: Math.max(0, 1 - end.used.mean), sd: end.used.sd };
  const until = (fraction: number, sd = 0): Uncertain => {
    const rest = Math.max(0, fraction - end.used.mean);
    return {
      mean: rest / perM,
      sd: Math.hypot(Math.hypot(end.used.sd, sd), rest * rateShare) / perM,
    };
  };
  return {
    distanceM: distance.value.mean,
    left,
    leftWh: {
      mean: left.mean * capacity.value.mean,
      sd: Math.hypot(left.sd * capacity.value.mean, left.mean * capacity.value.sd),
    },
    toEnd: until(1, ASSUMED.cutOffSd),
    toFullPower: until(ASSUMED.lowPowerAt, ASSUMED.lowPowerSd),
    toReserve: until(1 - reserve),
  };
}
