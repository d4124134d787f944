import { DEFAULTS, METRES_PER_MILE, Z_95, type Estimate } from "#core/base";

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

/** Way still to go, m, with the edges of its 95 % span: not as far below as above, since it is the inverse of a rate. */
export interface WayLeft extends Estimate {
  readonly low: number;
  readonly high: number;
}

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

/** A rate surer than nothing: the upper edge of its inverse stays in sight. */
const MOST_AWAY = 0.75;

/**
 * Way left at the rate of the ride so far, d (share - spent) / used: capacity cancels, so a full pack's unknown size does
 * not count; the last look counts in both. The road ahead is taken to be like the road ridden within `roadAheadShare`.
 *
 * @param share of the charge that may be spent, with the doubt of where that is: 1 to the end
 * @returns null when the readings show no use; nothing left is 0 with its doubt
 * @example 20 mi on 0.40 ± 0.01 of the pack, from full: 30 mi to the end
 */
export function wayLeft(
  { distance, used, spent, covariance, scatter }: RideSoFar,
  share: Estimate,
): WayLeft | null {
  if (!(used.mean > 0) || !(distance.mean > 0)) return null;
  const perFraction = distance.mean / used.mean;
  const rest = Math.max(0, share.mean - spent.mean);
  // In low-power mode the rider does more of the work, and the last of the charge goes further.
  const slow = Math.min(rest, Math.max(0, share.mean - DEFAULTS.lowPowerAt));
  const further = perFraction * slow * (DEFAULTS.lastStretch - 1);
  const mean = perFraction * rest + further;
  // Rest and rate fall together where the last look was too low.
  const restVariance = spent.sd ** 2 + share.sd ** 2 + (2 * rest * Math.max(0, covariance)) / used.mean;
  const byRest = perFraction * Math.hypot(Math.sqrt(restVariance), slow * DEFAULTS.lastStretchSd);
  const rate = Math.hypot(
    used.sd / used.mean,
    distance.sd / distance.mean,
    roadAheadShare(mean, distance.mean, scatter),
  );
  const away = Z_95 * rate;
  return {
    mean,
    sd: Math.hypot(byRest, mean * rate),
    low: Math.max(0, mean - Math.hypot(Z_95 * byRest, mean * (1 - 1 / (1 + away)))),
    high: mean + Math.hypot(Z_95 * byRest, mean * (1 / (1 - Math.min(away, MOST_AWAY)) - 1)),
  };
}
