import { DEFAULTS, type Estimate } from "#core/base";

/**
 * Range for a ride's own mix of levels and grounds: distance x share of the charge / fraction used. Capacity cancels, so
 * only the fraction's sd counts, with the distance's.
 *
 * @param distanceM ridden; @param fraction of usable energy used over it; @param share of the charge to spend: 1 to the
 *   end, 0.92 to low-power mode, 0.8 with a fifth kept back; @param distanceRelativeSd of the distance
 * @returns metres, or null when the readings show no use
 */
export function rangeOwnMix(
  distanceM: number,
  fraction: Estimate,
  share: number,
  distanceRelativeSd: number,
): Estimate | null {
  if (!(fraction.mean > 0)) return null;
  const mean = (distanceM * share) / fraction.mean;
  return { mean, sd: mean * Math.hypot(fraction.sd / fraction.mean, distanceRelativeSd) };
}

/** Share of the charge spent with the owner's reserve kept back. */
export const shareWithReserve = 1 - DEFAULTS.reserve;

/** Least fraction of the charge that makes a projection more than a sketch. */
export const SKETCH_BELOW = 0.3;
export { auditClaim, type ClaimAudit } from "./claim.ts";
export { fadeOnset, type Fade } from "./fade.ts";
export { auditGuesses, type GuessAt, type GuessAudit } from "./guesses.ts";
export { runningCost } from "./cost.ts";
export { wayLeft, type RideSoFar, type WayLeft } from "./left.ts";
