import { ASSUMED } from "#core/assumptions";
import type { Ground } from "#core/log";
import type { RoadFit } from "#core/roadload";
import { GROUND_FACTOR } from "#core/roadload";
import type { FittedBike } from "./compared.ts";

/**
 * What a fit says of a bike, as comparisons and forecasts take it: rolling on asphalt, drag and motor in sds of their
 * assumptions, and rolling on each ground that was ridden.
 *
 * @param crr assumed of the set-up's tyre on asphalt
 */
export function fittedBike({ z, covariance, grounds }: RoadFit, crr: number): FittedBike {
  const n = grounds.length;
  const kept = [grounds.indexOf("asphalt"), n, n + 1];
  const asphalt = z[kept[0]!]!;
  // The mean moves every ground alike; what is left here is how far each stands from asphalt.
  const crrBy = Object.fromEntries(
    grounds.map((ground, g): [Ground, number] => [
      ground,
      crr * GROUND_FACTOR[ground] * Math.exp(ASSUMED.rollingSdShare * (z[g]! - asphalt)),
    ]),
  );
  return {
    knowledge: {
      mean: kept.map((k) => z[k]!),
      covariance: kept.map((i) => kept.map((j) => covariance[i]![j]!)),
      results: 1,
    },
    crrBy,
  };
}
