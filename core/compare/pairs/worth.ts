import { there } from "#core/base";
import {
  conditionsOfTest,
  FACTORS,
  rideEnergy,
  shapleySplit,
  speedOfRide,
  type Factor,
  type Ride,
} from "#core/bike";
import { unknownsOfMount, unknownsOfRider, withUnknowns, type DeskPosterior } from "#core/desk";
import type { Estimate } from "#core/base";
import { remembered } from "../normalise/bridge.ts";
import type { Compared } from "../compared.ts";
import { saysOf, type Swap } from "../normalise/swaps.ts";
import { combine } from "../errorComponents.ts";

/** What one thing that differed between two tests is worth by the road load, Wh per metre: B less A. */
export interface Worth {
  readonly factor: Factor;
  readonly whPerM: Estimate;
  /** "109 kg in all against 121 kg in all". */
  readonly sentence: string;
}

const NAMES = Object.keys(FACTORS) as readonly Factor[];
/** Less than this share of a test's figure is not worth a line. */
const WORTH_SAYING = 0.005;

/** What takes each factor of one ride to another's, alone. */
function swapsBetween(target: Ride): Readonly<Record<Factor, Swap>> {
  const to = target.conditions;
  const changed =
    (change: Partial<Ride["conditions"]>): Swap =>
    (ride) => ({ ...ride, conditions: { ...ride.conditions, ...change } });
  return {
    mass: changed({ massKg: to.massKg }),
    wind: changed({ windMps: to.windMps, windFromDeg: to.windFromDeg }),
    air: changed({ tempC: to.tempC, altitudeM: to.altitudeM }),
    speed: (ride) => {
      const faster = speedOfRide(target) / speedOfRide(ride);
      const speedMps = Object.fromEntries(
        Object.entries(ride.conditions.speedMps).map(([level, mps]) => [level, mps * faster]),
      );
      return { ...ride, conditions: { ...ride.conditions, speedMps }, restShare: target.restShare };
    },
    rider: changed({ riderW: to.riderW }),
    stops: changed({ stopsPerMi: to.stopsPerMi }),
    lights: changed({ lightsOn: to.lightsOn }),
    climb: (ride) => ({ ...ride, slopes: target.slopes }),
    ground: (ride) => {
      const [{ level }] = ride.legs as [Ride["legs"][number], ...Ride["legs"]];
      return { ...ride, legs: target.legs.map((leg) => ({ ...leg, level })) };
    },
  };
}

/**
 * What else differed between two tests, each with what the road load expects it to be worth on the first one's bike, split
 * after Shapley; the largest first. Empty where one of them has no part that is known.
 */
export function worthOf(desk: DeskPosterior, a: Compared, b: Compared): readonly Worth[] {
  const [from, to] = [conditionsOfTest(a.ridden), conditionsOfTest(b.ridden)];
  if (!from || !to) return [];
  const swaps = swapsBetween(to);
  const unknowns = [
    ...unknownsOfMount(
      { bikeId: a.bikeId, setUp: a.ridden.setUp },
      [...from.legs, ...to.legs].map(({ ground }) => ground),
    ),
    ...unknownsOfRider(a.riderId ?? `of ${a.id}`, from.conditions),
  ];
  const base = rideEnergy(from);
  const names = NAMES.filter((name) => {
    const says = saysOf(name);
    // Two that are assumed alike do not differ.
    return says(from) !== says(to) && Math.abs(rideEnergy(swaps[name](from)) / base - 1) > WORTH_SAYING;
  });
  const splitAt = remembered(
    (z) =>
      new Map(
        shapleySplit(names, (changed) =>
          rideEnergy([...changed].reduce((now, name) => swaps[name](now), withUnknowns(from, unknowns, z))),
        ),
      ),
  );
  return names
    .map((factor): Worth => {
      const says = saysOf(factor);
      return {
        factor,
        whPerM: combine(desk.figure(unknowns, (z) => there(splitAt(z).get(factor)))),
        sentence: `${says(from)} against ${says(to)}`,
      };
    })
    .sort((x, y) => Math.abs(y.whPerM.mean) - Math.abs(x.whPerM.mean));
}

/** What is left of a difference, A less B, once what else differed is taken off. */
export function leftOver(difference: Estimate, worths: readonly Worth[]): Estimate {
  return {
    mean: worths.reduce((left, { whPerM }) => left + whPerM.mean, difference.mean),
    sd: Math.hypot(difference.sd, ...worths.map(({ whPerM }) => whPerM.sd)),
  };
}
