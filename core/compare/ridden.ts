import { ASSUMED } from "#core/assumptions";
import type { Rig } from "#core/forecast";
import { riddenAs } from "#core/plan";
import { bad, good, type Result } from "#core/problems";
import type { Uncertain } from "#core/quantities";
import type { Compared, PartOf } from "./compared.ts";
import { capacityShare, figureOf } from "./figure.ts";
import { climbing, type Ride } from "./modelled.ts";

/** A test as ridden, and as it would be with more or less climb. */
export interface Ridden {
  readonly ride: Ride;
  readonly climbed: (moreMPerMi: number) => Ride;
  readonly measuredClimb: boolean;
  readonly whPerM: Uncertain;
  /** What one sd of the pack's capacity does to it, Wh per metre. */
  readonly capacityEffect: number;
}

/**
 * Climb of a ride that nobody measured, and its doubt, m per mile each way, as if all of it lay at the course slope: gentle
 * rises give back going down what they took going up.
 */
export const UNMEASURED_CLIMB = { mean: 2, sd: 3 };
/** Doubt of stops that were counted, as a share: some were only a slowing down. */
const COUNTED_STOPS_SD = 0.1;

/** A test as the road load takes it: its climb and speed as surely as they are known, its bike as a fit has it. */
export function rideOf({ ridden: test, fitted }: Compared, part?: PartOf): Result<Ridden> {
  const ridden = riddenAs(test);
  if (!ridden) return bad("no-parts", "test", "The test has no parts with a distance.");
  const figure = figureOf(test, part);
  if (!figure.ok) return figure;
  const { meanSpeedMps, noted } = test.results;
  const climbM = test.results.climbM ?? noted.climbM;
  const legs = part
    ? ridden.course.legs.filter(({ level, ground }) => part(level ?? "", ground))
    : ridden.course.legs;
  if (legs.length === 0) return bad("no-parts", "test", "That part is too short to say anything.");
  const way = { ...ridden.course, legs };
  const withClimb = (more: number) =>
    climbM === null ? climbing(way, Math.max(0, UNMEASURED_CLIMB.mean + more)) : way;
  const counted = test.test.stops !== undefined || noted.stops !== null;
  const rig: Rig = {
    ...ridden.rig,
    speedSdShare:
      meanSpeedMps !== null
        ? ASSUMED.speedHeldSdShare
        : noted.clockSpeedMps !== null
          ? counted
            ? ASSUMED.speedHeldSdShare
            : ASSUMED.speedClockSdShare
          : ridden.rig.speedSdShare,
    stopsSdShare: counted ? COUNTED_STOPS_SD : undefined,
    ...(fitted && { crrBy: fitted.crrBy }),
  };
  const { slopes } = test.results;
  const restShare = noted.unassistedShare ?? 0;
  const capacity = capacityShare(test) * figure.value.mean;
  return good({
    ride: { course: withClimb(0), rig, slopes, restShare },
    climbed: (more: number): Ride => ({ course: withClimb(more), rig, slopes, restShare }),
    measuredClimb: climbM !== null,
    whPerM: figure.value,
    capacityEffect: Math.min(figure.value.sd, capacity),
  });
}
