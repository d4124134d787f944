import { nth } from "#core/base";
import type { ForecastInput } from "#core/forecast";
import { drawRide } from "./drawn.ts";
import type { Sample } from "./ride.ts";

/** What a planned ride truly was, at each place asked for. */
export interface PlannedTruth {
  readonly atM: number;
  readonly timeS: number;
  readonly energyWh: number;
  readonly used: number;
  /** What the gauge showed, before rounding. */
  readonly percent: number;
}

export interface PlannedRide {
  readonly truths: readonly PlannedTruth[];
  /** Where low-power mode began, and where the pack cut off; null when it did not. */
  readonly lowPowerM: number | null;
  readonly cutOffM: number | null;
}

/**
 * Rides a plan on the stand-in: a bike, rider, day and pack drawn from what the forecast does not know, second by second.
 *
 * @param places along the way at which the truth is wanted, rising; @param toM where the ride ends at the latest
 */
export function ridePlan(
  seed: number,
  input: ForecastInput,
  places: readonly number[],
  toM = input.way.lengthM,
): PlannedRide {
  const { model, gaugeError: error, samples } = drawRide(seed, input, toM);
  const truths: PlannedTruth[] = [];
  let lowPowerM: number | null = null;
  let cutOffM: number | null = null;
  const truthAt = (atM: number, { timeS, pack: now, fractionUsed }: Sample): PlannedTruth => ({
    atM,
    timeS,
    energyWh: now.usedWh,
    used: fractionUsed,
    percent: 100 * model.curve.chargeAtFraction(fractionUsed + error(fractionUsed)),
  });
  let last: Sample | null = null;
  for (const sample of samples()) {
    while (truths.length < places.length && sample.distanceM >= nth(places, truths.length))
      truths.push(truthAt(nth(places, truths.length), sample));
    if (sample.lowPower && lowPowerM === null) lowPowerM = sample.distanceM;
    if (sample.cutOff) cutOffM = sample.distanceM;
    last = sample;
  }
  if (last && cutOffM === null)
    while (truths.length < places.length) truths.push(truthAt(nth(places, truths.length), last));
  return { truths, lowPowerM, cutOffM };
}
