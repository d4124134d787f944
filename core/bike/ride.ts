import { DEFAULTS, METRES_PER_MILE } from "#core/base";
import { courseParts, type CoursePart, type RouteSegment } from "#core/route";
import type { Ground } from "#core/fields";
import { routeCost, type RideConditions } from "./conditions.ts";

/** A part of a ride at one level on one ground. */
export interface RideLeg {
  readonly level: string;
  readonly ground: Ground;
  readonly distanceM: number;
}

/** A ride as the road load takes it: how it was ridden, over which ground, and how that rises and falls. */
export interface Ride {
  readonly conditions: RideConditions;
  readonly legs: readonly RideLeg[];
  /** How much of each leg lies at which slope. */
  readonly slopes: readonly CoursePart[];
  /** Share of the way on which the motor rested, being outrun. */
  readonly restShare: number;
  /** What of it nobody noted or measured. */
  readonly assumed?: readonly Assumable[];
}

/** What may be assumed of how a ride was ridden. */
export type Assumable = "mass" | "wind" | "air" | "speed" | "rider" | "stops" | "climb";

const WH_PER_WS = 1 / 3600;

/** Slopes of a way of which only the climb is known, m up and down for each mile. */
export const slopesOfClimb = (gainMPerMi: number, lossMPerMi = gainMPerMi): readonly CoursePart[] =>
  courseParts(gainMPerMi / METRES_PER_MILE, lossMPerMi / METRES_PER_MILE);

interface Laid {
  readonly segments: readonly RouteSegment[];
  readonly metres: number;
}

/** Ways already laid out, by their legs and slopes: a figure's slopes are found by reckoning the same way dozens of times. */
const LAID = new WeakMap<readonly RideLeg[], WeakMap<readonly CoursePart[], Laid>>();

function layOut(legs: readonly RideLeg[], slopes: readonly CoursePart[]): Laid {
  const segments = legs.flatMap(({ distanceM, ground, level }, leg) =>
    slopes.map(({ share, slope }) => ({ lengthM: distanceM * share, slope, ground, level, headingDeg: null, leg })),
  ); // prettier-ignore
  return { segments, metres: legs.reduce((sum, { distanceM }) => sum + distanceM, 0) };
}

function laidOut(legs: readonly RideLeg[], slopes: readonly CoursePart[]): Laid {
  let bySlopes = LAID.get(legs);
  if (!bySlopes) LAID.set(legs, (bySlopes = new WeakMap()));
  let laid = bySlopes.get(slopes);
  if (!laid) bySlopes.set(slopes, (laid = layOut(legs, slopes)));
  return laid;
}

/**
 * Battery energy of a ride by the road load, Wh per metre. Where the motor was outrun it drew nothing but what display and
 * lights take: such miles are modelled as they were, so that they do not count as frugal. Source: docs/method.md.
 */
export function rideEnergy({ conditions, legs, slopes, restShare }: Ride): number {
  const { segments, metres } = laidOut(legs, slopes);
  const assisted = routeCost(segments, conditions).wh / metres;
  if (restShare === 0) return assisted;
  const idleW = DEFAULTS.idleW + (conditions.lightsOn ? DEFAULTS.lightsW : 0);
  return (1 - restShare) * assisted + (restShare * idleW * WH_PER_WS) / conditions.assistToMps;
}

/** Metres climbed a mile of a ride. */
export const climbOfRide = ({ slopes }: Pick<Ride, "slopes">): number =>
  METRES_PER_MILE * slopes.reduce((sum, { share, slope }) => sum + share * Math.max(0, slope), 0);

/** Mean speed over a ride's legs, m/s. */
export function speedOfRide({ legs, conditions }: Pick<Ride, "legs" | "conditions">): number {
  const metres = legs.reduce((sum, { distanceM }) => sum + distanceM, 0);
  const speedAt = (level: string) => conditions.speedMps[level] ?? conditions.speedMps[conditions.level] ?? 1;
  return metres / legs.reduce((sum, { distanceM, level }) => sum + distanceM / speedAt(level), 0);
}
