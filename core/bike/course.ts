import { DEFAULTS, METRES_PER_MILE } from "#core/base";
import { courseParts } from "#core/route";
import type { Ground } from "#core/fields";
import { roadPower, type RoadState } from "./power.ts";

/** What a course asks of a bike, besides the bike's own road load. */
export interface CourseConditions {
  readonly massKg: number;
  readonly speedMps: number;
  readonly ground?: Ground | undefined;
  readonly headwindMps?: number | undefined;
  readonly gainMPerMi?: number | undefined;
  /** As much as the gain where not given. */
  readonly lossMPerMi?: number | undefined;
  readonly stopsPerMi?: number | undefined;
  readonly tempC?: number | undefined;
  readonly altitudeM?: number | undefined;
  readonly lightsOn?: boolean | undefined;
  readonly riderW?: number | undefined;
}

/** A bike's own road load; what is left out is the default of the assumptions table. */
export interface RoadBike {
  readonly cdA?: number | undefined;
  readonly crr?: number | undefined;
  readonly crrBy?: RoadState["crrBy"];
  readonly etaD?: number | undefined;
  readonly etaM?: number | undefined;
  readonly assistToMps?: number | undefined;
}

/**
 * Battery energy that one stop adds, Wh: the way back up to speed, as far as the motor helps.
 *
 * @example stopWh(100, 5, { etaD: 1, etaM: 1 }).toFixed(3) === "0.347"
 */
export function stopWh(massKg: number, speedMps: number, bike: RoadBike): number {
  const {
    etaD = DEFAULTS.drivetrainEfficiency,
    etaM = DEFAULTS.motorEfficiency,
    assistToMps = Infinity,
  } = bike;
  const helpedMps = Math.min(speedMps, assistToMps);
  return (0.5 * massKg * helpedMps * helpedMps) / (etaD * etaM) / 3600;
}

/**
 * Battery energy a course takes, Wh per mile: the road power over its climbing, falling and flat parts at one speed, and
 * what its stops add.
 *
 * @example a 26 kg bike with a 100 kg rider and load, 15 mph, 10 m up and down and one stop a mile, rider 60 W: 13.29
 */
export function courseEnergy(conditions: CourseConditions, bike: RoadBike = {}): number {
  const { gainMPerMi = 0, lossMPerMi = gainMPerMi, stopsPerMi = 0, speedMps, massKg, ...rest } = conditions;
  const state = dropUndefined({ massKg, speedMps, ...rest, ...bike }) as unknown as RoadState;
  const hours = METRES_PER_MILE / speedMps / 3600;
  const road = courseParts(gainMPerMi / METRES_PER_MILE, lossMPerMi / METRES_PER_MILE).reduce(
    (sum, { share, slope }) => sum + share * hours * roadPower({ ...state, slope }).batteryW,
    0,
  );
  return road + stopsPerMi * stopWh(massKg, speedMps, bike);
}

function dropUndefined<T extends object>(value: T): Partial<T> {
  return Object.fromEntries(Object.entries(value).filter(([, each]) => each !== undefined)) as Partial<T>;
}
