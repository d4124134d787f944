import { ASSUMED } from "#core/assumptions";
import { UNKNOWNS, BIKE_UNKNOWNS } from "#core/forecast";
import { bad, good, type Result } from "#core/problems";
import { quantityToken, type Uncertain } from "#core/quantities";
import { roadPower, type Factor, type Reference } from "#core/roadload";
import type { Compared, PartOf } from "./compared.ts";
import { bikeDirections, bikeMean } from "./directions.ts";
import { perMetre, shifted, type Ride } from "./modelled.ts";
import { rideOf, UNMEASURED_CLIMB, type Ridden } from "./ridden.ts";
import { swapsTo } from "./swaps.ts";
import { tracedShares, untraced, type Traced } from "./traced.ts";

/** A test's figure brought to a reference. */
export interface UnderReference {
  /** Wh per metre under the reference. */
  readonly whPerM: Uncertain;
  /** The same with its errors told apart. */
  readonly traced: Traced;
  /** Measured over modelled, of the test. */
  readonly lambda: number;
  /** Factors that change the figure so much that the answer lies outside what was ridden: it is drawn hollow. */
  readonly beyond: readonly Factor[];
  /** Share of the variance by source, the largest first. */
  readonly sources: readonly { readonly name: string; readonly share: number }[];
}

/** One factor may change the figure by this share before the answer is drawn hollow. */
const FAR_SHARE = 0.25;
/** How far an unknown is moved to see what it does, in sds. */
const NUDGE = 0.5;
const HALVINGS = 40;

/** A test and its reference, ready to be reckoned between. */
export interface Prepared extends Ridden {
  /** The ride with the bike's unknowns where they are best known. */
  readonly ride: Ride;
  /** Modelled of the test, Wh per metre. */
  readonly modelled: number;
  readonly lambda: number;
  readonly target: Ride;
  readonly swapped: (changed: Iterable<Factor>, from?: Ride) => Ride;
  readonly beyond: readonly Factor[];
}

/** The fastest a motor holds on the reference's level ground, m/s, where it falls short of the reference's speed. */
function motorHolds(
  { rig }: Ride,
  speedMps: number,
  mostW: number,
  ground: Reference["conditions"]["ground"],
) {
  const needs = (mps: number) =>
    roadPower({ ...rig, ground: ground ?? "asphalt", speedMps: mps, assistToMps: Infinity }).motorW;
  if (needs(speedMps) <= mostW) return null;
  let [low, high] = [0, speedMps];
  for (let i = 0; i < HALVINGS; i += 1) {
    const middle = (low + high) / 2;
    if (needs(middle) > mostW) high = middle;
    else low = middle;
  }
  return low;
}

/** A test and the reference it is brought to, with what swaps each factor; a problem where that cannot be. */
export function prepare(compared: Compared, reference: Reference, part?: PartOf): Result<Prepared> {
  const found = rideOf(compared, part);
  if (!found.ok) return found;
  const { ridden, bikeKg } = compared;
  const mean = bikeMean(compared);
  const ride = shifted(found.value.ride, mean);
  const { whPerM } = found.value;
  const { speedMps, ground } = reference.conditions;
  const { assistToMps } = ride.rig;
  const cannot = (limitMps: number, why: string) =>
    bad<Prepared>(
      "too-fast",
      "reference",
      `The motor ${why} ${quantityToken(limitMps, "speed", 1)}: it does not hold the reference's ${quantityToken(speedMps, "speed", 1)}.`,
    );
  if (speedMps > assistToMps) return cannot(assistToMps, "rests above");
  const modelled = perMetre(ride);
  if (!(modelled > 0))
    return bad("no-motor", "test", "By the road load the motor gave nothing on this test.");
  const swaps = swapsTo(reference, bikeKg, ridden.test.drive === "throttle");
  const names = Object.keys(swaps) as readonly Factor[];
  const swapped = (changed: Iterable<Factor>, from = ride) =>
    [...changed].reduce((now, name) => swaps[name](now), from);
  const target = swapped(names);
  const holds =
    ridden.bike.motorW === undefined ? null : motorHolds(target, speedMps, ridden.bike.motorW, ground);
  if (holds !== null) return cannot(holds, `of ${ridden.bike.motorW!.toFixed(0)} W reaches`);
  return good({
    ...found.value,
    ride,
    climbed: (more) => shifted(found.value.climbed(more), mean),
    modelled,
    lambda: whPerM.mean / modelled,
    target,
    swapped,
    beyond: names.filter((name) => Math.abs(perMetre(swaps[name](ride)) / modelled - 1) > FAR_SHARE),
  });
}

/** A named error of a brought figure, and the ride and target one nudge either way along it. */
export interface Nudge {
  readonly key: string;
  readonly ride: (z: number) => Ride;
  readonly target: (z: number) => Ride;
}

/** Everything besides the measurement that a brought figure is not sure of: the bike's own goes with it, the day's stays. */
export function nudgesOf(compared: Compared, prepared: Prepared): readonly Nudge[] {
  const { ride, target, climbed, measuredClimb } = prepared;
  const along = (direction: readonly number[], z: number) => direction.map((each) => each * z);
  return [
    ...bikeDirections(compared).map(({ key, z: direction }) => ({
      key,
      ride: (z: number) => shifted(ride, along(direction, z)),
      target: (z: number) => shifted(target, along(direction, z)),
    })),
    ...UNKNOWNS.slice(BIKE_UNKNOWNS).map((unknown) => ({
      key: `${unknown.name}:${compared.id}`,
      ride: (z: number) => ({ ...ride, rig: unknown.apply(ride.rig, z) }),
      target: () => target,
    })),
    ...(measuredClimb
      ? []
      : [
          {
            key: `climb:${compared.id}`,
            ride: (z: number) => climbed(z * UNMEASURED_CLIMB.sd),
            target: () => target,
          },
        ]),
  ];
}

/** Half the change of a function over a step of NUDGE either way, for one sd. */
export const slopeOf = (by: (z: number) => number) => (by(NUDGE) - by(-NUDGE)) / (2 * NUDGE);

/** The measurement's own errors: what the pack's capacity does to it, and the rest. */
export function measuredEffects({ id, packId }: Compared, { whPerM, capacityEffect }: Ridden) {
  return {
    [`measured:${id}`]: Math.sqrt(Math.max(0, whPerM.sd ** 2 - capacityEffect ** 2)),
    [`capacity:${packId}`]: capacityEffect,
  };
}

/** The figure under a reference of what is prepared. */
function answer(compared: Compared, prepared: Prepared): UnderReference {
  const { whPerM, lambda, target, beyond } = prepared;
  const atTarget = perMetre(target);
  const mean = lambda * atTarget;
  const effects: Record<string, number> = {};
  for (const [key, effect] of Object.entries(measuredEffects(compared, prepared)))
    effects[key] = (effect * mean) / whPerM.mean;
  for (const { key, ride, target: to } of nudgesOf(compared, prepared)) {
    const moved = (z: number) => {
      const there = to(z);
      return (whPerM.mean * (there === target ? atTarget : perMetre(there))) / perMetre(ride(z));
    };
    effects[key] = slopeOf(moved);
  }
  const traced = { mean, effects };
  return { whPerM: untraced(traced), traced, lambda, beyond, sources: tracedShares(traced) };
}

/**
 * Brings a test to a reference by the road load: lambda = measured / M(test), answer = lambda M(reference). What is not
 * known of the bike moves both, what is not known of the day the test alone, by finite differences. Source: docs/method.md.
 *
 * @param part of the test, where not the whole; @returns a problem where the motor does not hold the reference's speed, or
 *   gave nothing on the test, or where the part was not ridden or not told apart
 */
export function underReference(
  compared: Compared,
  reference: Reference,
  part?: PartOf,
): Result<UnderReference> {
  const prepared = prepare(compared, reference, part);
  return prepared.ok ? good(answer(compared, prepared.value)) : prepared;
}

/** What weighing bike and rider would make of a figure's doubt; null where both are weighed. */
export function onceWeighed(compared: Compared, reference: Reference): Uncertain | null {
  const prepared = prepare(compared, reference);
  if (!prepared.ok || prepared.value.ride.rig.massSdShare <= ASSUMED.massSdShare) return null;
  const { ride } = prepared.value;
  const weighed = { ...ride, rig: { ...ride.rig, massSdShare: ASSUMED.massSdShare } };
  return answer(compared, { ...prepared.value, ride: weighed }).whPerM;
}
