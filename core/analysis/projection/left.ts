import { DEFAULTS, METRES_PER_MILE, type Estimate } from "#core/base";

/** A ride as far as it has come: what the way left rests on. Fractions of the usable energy, metres. */
export interface RideSoFar {
  /** Ridden on this charge. */
  readonly distance: Estimate;
  /** Used over that distance. */
  readonly used: Estimate;
  /** Used in all at the last look: more than `used` where the start was not full. */
  readonly spent: Estimate;
  /** Of the two: they lean on the same readings. */
  readonly covariance: number;
  /** Scatter of one mile of this road about its mean, as a share of the mean. */
  readonly scatter: number;
}

/** Shares of the charge that may be spent, each with the doubt of where it is. */
export const SPENT = {
  toEnd: { mean: 1, sd: DEFAULTS.cutOffSd },
  toFullPower: { mean: DEFAULTS.lowPowerAt, sd: DEFAULTS.lowPowerSd },
  toReserve: { mean: 1 - DEFAULTS.reserve, sd: 0 },
} as const satisfies Record<string, Estimate>;

/**
 * How the mean of the road ahead may differ from that of the road ridden, as a share: as a whole, and mile by mile, of which
 * either is a sample.
 *
 * @example roadAheadShare(16093.44, 16093.44, 0.25).toFixed(3) === "0.127"
 */
export function roadAheadShare(aheadM: number, riddenM: number, scatter: number): number {
  const perMile = (metres: number) => 1 / Math.max(metres / METRES_PER_MILE, 1);
  return Math.hypot(DEFAULTS.roadAheadSd, scatter * Math.sqrt(perMile(aheadM) + perMile(riddenM)));
}

/** Of what was used: readings that say less of it say nothing of the way left. */
const MOST_UNSURE = 0.5;

/**
 * Way left at the rate of the ride so far, d (share - spent) / used: capacity cancels, so a full pack's unknown size does
 * not count; the last look counts in both. The road ahead is taken to be like the road ridden within `roadAheadShare`, and the charge
 * in low-power mode to go as far as any, within `lastStretchSd`.
 *
 * @param share of the charge that may be spent, with the doubt of where that is
 * @returns null when the readings show no use; nothing left is 0 with its doubt
 * @example 20 mi on 0.40 ± 0.01 of the pack, from full: 30 mi to the end
 */
export function wayLeft(
  { distance, used, spent, covariance, scatter }: RideSoFar,
  share: Estimate,
): Estimate | null {
  if (!(used.mean > 0) || !(distance.mean > 0) || used.sd > MOST_UNSURE * used.mean) return null;
  const perFraction = distance.mean / used.mean;
  const rest = Math.max(0, share.mean - spent.mean);
  const slow = Math.min(rest, Math.max(0, share.mean - DEFAULTS.lowPowerAt));
  const mean = perFraction * rest;
  // Rest and rate fall together where the last look was too low.
  const restVariance = spent.sd ** 2 + share.sd ** 2 + (2 * rest * Math.max(0, covariance)) / used.mean;
  const byRest = perFraction * Math.hypot(Math.sqrt(restVariance), slow * DEFAULTS.lastStretchSd);
  const rate = Math.hypot(
    used.sd / used.mean,
    distance.sd / distance.mean,
    roadAheadShare(mean, distance.mean, scatter),
  );
  return { mean, sd: Math.hypot(byRest, mean * rate) };
}

/**
 * Way on the whole of a charge, or a share of it: what was ridden and what is left, never less than what was ridden. Of a ride that
 * did not begin full, what it would have been; a share that is spent already lies behind.
 *
 * @param fromFull the ride began with a full charge and had no other
 */
export function wayInAll(ride: RideSoFar, share: Estimate, fromFull: boolean): Estimate | null {
  const { distance, used } = ride;
  const whole = fromFull ? ride : { ...ride, spent: used, covariance: used.sd ** 2 };
  if (share.mean <= whole.spent.mean) {
    const mean = (distance.mean * share.mean) / used.mean;
    const relative = [used.sd / used.mean, share.sd / share.mean, distance.sd / distance.mean] as const;
    return { mean, sd: mean * Math.hypot(...relative) };
  }
  const left = wayLeft(whole, share);
  return (
    left && {
      mean: distance.mean + left.mean,
      sd: Math.hypot(left.sd, distance.sd),
      floor: distance.mean,
    }
  );
}
