import { there, nth, DEFAULTS, type Estimate } from "#core/base";
import {
  conditionsOfTest,
  rideEnergy,
  type Ride,
  slopesOfClimb,
  UNKNOWNS,
  type RiddenDay,
  type RiddenRide,
} from "#core/bike";
import { TYRES_IN_ROLLING, unknownsOfMount, unknownsOfRider, withUnknowns } from "./unknownsOf.ts";
import type { DeskDay, Linearised, SharedUnknown } from "./types.ts";

/** A ridden test as the desk takes it. */
export interface DeskTest {
  readonly id: string;
  readonly bikeId: string;
  /** Null where nobody is named: then a stranger. */
  readonly riderId: string | null;
  readonly packId: string;
  readonly ridden: RiddenDay;
  /** Wh per metre, as the ledger has it. */
  readonly whPerM: Estimate;
  /** What one sd of the pack's capacity does to it, as a share. */
  readonly capacityShare: number;
}

/** What a test's own day does not know, in the order of a desk day's own unknowns. */
export const DAY_UNKNOWNS = ["weight", "rider", "wind", "speed", "stops", "climb", "day"] as const;
export type DayUnknown = (typeof DAY_UNKNOWNS)[number];

/** A ride with more or less climb, in sds of what is known of it. */
function climbed(ride: RiddenRide, z: number): RiddenRide {
  const { climbBy, gainMPerMi, slopes } = ride;
  if (climbBy === "track") {
    const by = 1 + DEFAULTS.climbTrackSdShare * z;
    return { ...ride, slopes: slopes.map(({ share, slope }) => ({ share, slope: slope * by })) };
  }
  const lnSd = climbBy === "typed" ? DEFAULTS.climbTypedSdShare : DEFAULTS.climbGuessLnSd;
  return { ...ride, slopes: slopesOfClimb(Math.min(MOST_CLIMB, gainMPerMi * Math.exp(lnSd * z))) };
}

/** More climb than any road has, m a mile. */
const MOST_CLIMB = 240;
const byName = new Map(UNKNOWNS.map((unknown) => [unknown.name, unknown.apply]));

/** A ride with one of its day's unknowns moved. */
export function onDay(ride: RiddenRide, name: DayUnknown, z: number): RiddenRide {
  if (z === 0) return ride;
  if (name === "climb") return climbed(ride, z);
  if (name === "day") {
    const { energyFactor = 1 } = ride.conditions;
    const factor = energyFactor * Math.exp(DEFAULTS.dayModelSdShare * z);
    return { ...ride, conditions: { ...ride.conditions, energyFactor: factor } };
  }
  return { ...ride, conditions: there(byName.get(name))(ride.conditions, z) };
}

const wholeDay = (ride: RiddenRide, own: readonly number[]) =>
  DAY_UNKNOWNS.reduce((now, name, k) => onDay(now, name, nth(own, k)), ride);

/** How far an unknown is moved to see what it does, sds: what it does is smooth. */
const NUDGE = 0.02;

/** A test's figure by the road load and what is not known: Wh per metre, with its slopes. */
function lineariser(
  ride: RiddenRide,
  unknowns: readonly SharedUnknown[],
  capacityShare: number,
): DeskDay["linearise"] {
  const capacityAt = unknowns.findIndex(({ kind }) => kind === "capacity");
  const { riderSdShare, habitSdShare = 0 } = ride.conditions;
  return (shared, own): Linearised => {
    const asBelieved = Math.exp(-capacityShare * (shared[capacityAt] ?? 0));
    const at = wholeDay(withUnknowns(ride, unknowns, shared) as RiddenRide, own);
    const energy = (each: Ride) => rideEnergy(each) * asBelieved;
    const value = energy(at);
    const slope = (moved: Ride) => (energy(moved) - value) / NUDGE;
    const byRider = slope(onDay(at, "rider", NUDGE));
    let byRolling = 0;
    return {
      value: [value],
      byShared: [
        unknowns.map((unknown) => {
          switch (unknown.kind) {
            case "capacity":
              return -capacityShare * value;
            case "model":
              return DEFAULTS.bikeModelSdShare * value;
            case "tyres":
              return TYRES_IN_ROLLING * byRolling;
            case "habit":
            case "line":
              // The same watts as the day's own, by another share.
              return riderSdShare > 0 ? (byRider * habitSdShare) / riderSdShare : 0;
            default: {
              const by = slope(withUnknowns(at, [unknown], [NUDGE]));
              if (unknown.kind === "rolling") byRolling = by;
              return by;
            }
          }
        }),
      ],
      byOwn: [
        DAY_UNKNOWNS.map((name, k) => {
          if (name === "day") return value * DEFAULTS.dayModelSdShare;
          if (name === "rider") return byRider;
          if (name !== "climb") return slope(onDay(at, name, NUDGE));
          // A climb is counted from what was noted of it.
          return slope({ ...at, slopes: climbed(ride, nth(own, k) + NUDGE).slopes });
        }),
      ],
    };
  };
}

/** Who nobody named rides with a habit of their own. */
const strangerOf = ({ riderId, id }: DeskTest) => riderId ?? `of ${id}`;

/** A test as a day of the desk; null where no part of it is known. */
export function dayOfTest(test: DeskTest): DeskDay | null {
  const ride = conditionsOfTest(test.ridden);
  if (!ride || !(test.whPerM.mean > 0)) return null;
  const { bikeId, packId, ridden, whPerM, capacityShare } = test;
  const grounds = ride.legs.map(({ ground }) => ground);
  const shared: readonly SharedUnknown[] = [
    ...unknownsOfMount({ bikeId, setUp: ridden.setUp }, grounds),
    ...unknownsOfRider(strangerOf(test), ride.conditions),
    { kind: "capacity", key: `capacity:${packId}` },
  ];
  const ownVariance = whPerM.sd ** 2 - (capacityShare * whPerM.mean) ** 2;
  return {
    id: test.id,
    home: bikeId,
    shared,
    own: DAY_UNKNOWNS,
    measured: [{ mean: whPerM.mean, sd: Math.sqrt(Math.max(ownVariance, (1e-3 * whPerM.mean) ** 2)) }],
    linearise: lineariser(ride, shared, capacityShare),
  };
}
