import { nth, DEFAULTS, METRES_PER_MILE } from "#core/base";
import type { CoursePart } from "#core/route";
import type { Ground } from "#core/fields";
import type { Test } from "#core/records";
import { massOf, usualSpeeds, type Riding } from "./assumed.ts";
import { conditionsOf, type Speeds } from "./day.ts";
import { slopesOfClimb, type Assumable, type Ride, type RideLeg } from "./ride.ts";

/** What the log of a test says of how it was ridden. SI units. */
export interface RiddenHow {
  readonly parts: readonly { readonly level: string; readonly ground: string; readonly distanceM: number }[];
  /** Distance over riding time, by a track, a logger or as the display said; null where neither is known. */
  readonly meanSpeedMps: number | null;
  readonly climbM: number | null;
  /** How much of the way lies at which slope; null without heights. */
  readonly slopes: readonly CoursePart[] | null;
  readonly noted: {
    readonly stops: number | null;
    readonly bpm: number | null;
    /** Measured at the cranks, W. */
    readonly riderW: number | null;
    readonly windMps: number | null;
    readonly unassistedShare: number | null;
    /** Speed by the check-ins' times less the stops; null without times. */
    readonly clockSpeedMps: number | null;
    /** Whether the times hold rests that nobody noted. */
    readonly clockHoldsRests?: boolean;
    readonly levelSpeedMps: Readonly<Record<string, number>>;
    readonly climbM: number | null;
  };
}

/** A test as ridden: who rode what, and what its log says of how. */
export interface RiddenDay extends Riding {
  readonly test: Test;
  readonly results: RiddenHow;
}

/** How a climb is known: by a track's heights, by a total that was typed, or not at all. */
export type ClimbKnown = "track" | "typed" | "assumed";

/** A ridden test as the road load takes it. */
export interface RiddenRide extends Ride {
  readonly climbBy: ClimbKnown;
  /** Mean climb each way, m per mile. */
  readonly gainMPerMi: number;
  readonly stopsCounted: boolean;
}

/** Shorter parts of a ride say little of its figure, m. */
const SHORTEST_M = 20;
const MOST_STOPS_PER_MI = 40;
/** No road climbs more than this all the way. */
const STEEPEST_MEAN = 0.15;
const BPM = { least: 40, most: 220 } as const;

/** Speeds at the levels ridden: as noted or usual by level, all of them scaled to the mean that was ridden. */
function speedsOf({ bike, results: { meanSpeedMps, noted } }: RiddenDay, legs: readonly RideLeg[]): Speeds {
  const usual = { ...usualSpeeds(bike), ...noted.levelSpeedMps };
  const level = nth(legs, 0).level;
  const middle = Object.values(usual)[0] ?? DEFAULTS.calmMph;
  const speedOf = (name: string) => usual[name] ?? usual[level] ?? middle;
  const metres = legs.reduce((sum, { distanceM }) => sum + distanceM, 0);
  const mean = metres / legs.reduce((sum, leg) => sum + leg.distanceM / speedOf(leg.level), 0);
  const ridden = meanSpeedMps ?? noted.clockSpeedMps;
  const faster = ridden === null ? 1 : ridden / mean;
  return {
    level,
    speedMps: Object.fromEntries(legs.map((leg) => [leg.level, speedOf(leg.level) * faster])),
    sdShare:
      meanSpeedMps !== null
        ? DEFAULTS.speedHeldSdShare
        : ridden === null
          ? DEFAULTS.speedGuessSdShare
          : noted.clockHoldsRests
            ? DEFAULTS.speedRestsSdShare
            : DEFAULTS.speedClockSdShare,
  };
}

/**
 * The ride of a test that was ridden: its legs, climb, speed and day as far as they are known, and by what.
 *
 * @param part of it, where not the whole
 * @returns null where no part of any length is known
 */
export function conditionsOfTest(
  ridden: RiddenDay,
  part?: (level: string, ground: string) => boolean,
): RiddenRide | null {
  const { test, results } = ridden;
  const { noted, parts } = results;
  const whole = parts.filter(({ distanceM }) => distanceM >= SHORTEST_M);
  const metres = whole.reduce((sum, { distanceM }) => sum + distanceM, 0);
  const legs = whole
    .filter(({ level, ground }) => !part || part(level, ground))
    .map(({ level, ground, distanceM }): RideLeg => ({ level, ground: ground as Ground, distanceM }));
  if (legs.length === 0) return null;
  const stops = test.stops ?? noted.stops;
  const climbM = results.climbM ?? noted.climbM;
  const gainMPerMi =
    climbM === null
      ? DEFAULTS.climbGuessMPerMi
      : Math.min(STEEPEST_MEAN * METRES_PER_MILE, (climbM / metres) * METRES_PER_MILE);
  const windMps = test.windMps ?? noted.windMps ?? undefined;
  const bpm = noted.bpm === null ? undefined : Math.min(BPM.most, Math.max(BPM.least, noted.bpm));
  const conditions = {
    ...conditionsOf(
      ridden,
      {
        ...test,
        windMps,
        bpm: test.bpm ?? bpm,
        riderW: test.riderW ?? noted.riderW ?? undefined,
        stopsPerMi:
          stops === null ? undefined : Math.min(MOST_STOPS_PER_MI, (stops * METRES_PER_MILE) / metres),
      },
      speedsOf(ridden, legs),
    ),
    stopsSdShare: stops === null ? DEFAULTS.stopsSdShare : DEFAULTS.stopsCountedSdShare,
  };
  const isAssumed: Readonly<Record<Assumable, boolean>> = {
    mass: !massOf(ridden).weighed,
    wind: windMps === undefined,
    air: test.airTempC === undefined,
    speed: results.meanSpeedMps === null && noted.clockSpeedMps === null,
    rider: conditions.riderBy === "nothing",
    stops: stops === null,
    climb: climbM === null && results.slopes === null,
  };
  return {
    conditions,
    assumed: (Object.keys(isAssumed) as readonly Assumable[]).filter((each) => isAssumed[each]),
    legs,
    slopes: results.slopes ?? slopesOfClimb(gainMPerMi),
    restShare: noted.unassistedShare ?? 0,
    climbBy: results.slopes ? "track" : climbM === null ? "assumed" : "typed",
    gainMPerMi,
    stopsCounted: stops !== null,
  };
}
