import type { DimensionName } from "#core/quantities";
import { GROUNDS, type Ground, type Sighting } from "../entry.ts";

/** What a figure is by its unit alone: the field it fills, and how a person hears it back. */
export interface UnitMeaning {
  readonly field: keyof Sighting;
  readonly dimension: DimensionName;
  readonly says: string;
}

const meaning = (field: keyof Sighting, dimension: DimensionName, says: string): UnitMeaning => ({
  field,
  dimension,
  says,
});

const DISTANCE = meaning("distanceM", "distance", "at");
const SPEED = meaning("speedMps", "speed", "speed");
const AIR = meaning("airTempC", "temperature", "air");

/** Units as people write them, without regard to case except where it tells Ah from ah-words. */
export const UNITS: ReadonlyMap<string, UnitMeaning> = new Map(
  Object.entries({
    mi: DISTANCE,
    mile: DISTANCE,
    miles: DISTANCE,
    km: DISTANCE,
    mph: SPEED,
    "km/h": SPEED,
    kmh: SPEED,
    kph: SPEED,
    "%": meaning("percent", "percent", "percent"),
    v: meaning("packVolts", "volts", "volts"),
    volts: meaning("packVolts", "volts", "volts"),
    a: meaning("amps", "current", "amps"),
    amps: meaning("amps", "current", "amps"),
    w: meaning("watts", "count", "power"),
    watts: meaning("watts", "count", "power"),
    wh: meaning("counterWh", "energy", "counter"),
    kwh: meaning("counterWh", "energy", "counter"),
    ah: meaning("counterAh", "charge", "counter"),
    bar: meaning("bars", "count", "bars"),
    bars: meaning("bars", "count", "bars"),
    c: AIR,
    f: AIR,
    "°c": AIR,
    "°f": AIR,
    bpm: meaning("bpm", "count", "heart"),
  }),
);

/** Words before a figure that change what it is. */
export const LEADS: ReadonlyMap<string, UnitMeaning> = new Map(
  Object.entries({
    trip: meaning("displayM", "distance", "display at"),
    display: meaning("displayM", "distance", "display at"),
    climb: meaning("climbM", "climb", "climbed"),
    wind: meaning("windMps", "speed", "wind"),
    hr: meaning("bpm", "count", "heart"),
  }),
);

/** Words that say what kind of entry this is. */
export const KINDS = new Map(
  Object.entries({
    start: "start",
    full: "start",
    lost: "barLost",
    blink: "lastBar",
    lowpower: "lowPower",
    stop: "stop",
    go: "go",
  } as const),
);

/** Grounds by the words people use; each of its own name's words that no other ground has. */
export const GROUND_WORDS: ReadonlyMap<string, Ground> = new Map(
  Object.entries<Ground>({
    ...Object.fromEntries(GROUNDS.map((ground) => [ground.replace(" ", "-"), ground])),
    tar: "asphalt",
    road: "asphalt",
    gravel: "fine gravel",
    fine: "fine gravel",
    loose: "loose gravel",
  }),
);
