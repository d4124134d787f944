import type { DimensionName } from "#core/base";
import { GROUNDS, type End, type Ground, type Sighting } from "../entry.ts";

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
const PERCENT = meaning("percent", "percent", "percent");
const VOLTS = meaning("packVolts", "volts", "volts");
const AMPS = meaning("amps", "current", "amps");
const WATTS = meaning("watts", "count", "power");
const BARS = meaning("bars", "count", "bars");
const HEART = meaning("bpm", "count", "heart");
const CLIMB = meaning("climbM", "climb", "climbed");
const GUESS = meaning("rangeGuessM", "distance", "display's guess");

/** Every spelling of a meaning. */
const spelled = (entries: readonly (readonly [string, UnitMeaning])[]): ReadonlyMap<string, UnitMeaning> =>
  new Map(entries.flatMap(([words, what]) => words.split(" ").map((word) => [word, what] as const)));

/** Units as people write them, without regard to case. */
export const UNITS = spelled([
  ["mi mile miles km kms kilometre kilometres kilometer kilometers", DISTANCE],
  ["mph km/h kmh kph", SPEED],
  ["% percent pct percents", PERCENT],
  ["v volt volts", VOLTS],
  ["a amp amps", AMPS],
  ["w watt watts", WATTS],
  ["wh kwh", meaning("counterWh", "energy", "counter")],
  ["ah", meaning("counterAh", "charge", "counter")],
  ["bar bars", BARS],
  ["c f °c °f", AIR],
  ["bpm", HEART],
]);

/** Words before a figure that change what it is, or stand for its unit. */
export const LEADS = spelled([
  ["trip display", meaning("displayM", "distance", "display at")],
  ["climb climbed ascent", CLIMB],
  ["wind", meaning("windMps", "speed", "wind")],
  ["hr heart pulse", HEART],
  ["range guess estimate est", GUESS],
  ["battery batt charge soc", PERCENT],
  ["bars", BARS],
  ["speed", SPEED],
  ["temp air", AIR],
]);

/** Of these a bare number needs no unit. */
export const BARE_LEADS: ReadonlySet<keyof Sighting> = new Set(["bpm", "percent", "bars"]);

/** Words that say a figure is over the whole ride: before it or behind it. */
export const OVERALL: ReadonlyMap<string, "avg" | "top"> = new Map([
  ...["avg", "average", "mean", "av"].map((word) => [word, "avg"] as const),
  ...["max", "maximum", "top", "peak"].map((word) => [word, "top"] as const),
]);

/** What a figure over the whole ride fills. */
export const TOTALS: Readonly<Partial<Record<keyof Sighting, Partial<Record<"avg" | "top", UnitMeaning>>>>> =
  {
    speedMps: {
      avg: meaning("avgSpeedMps", "speed", "average speed"),
      top: meaning("topSpeedMps", "speed", "top speed"),
    },
    bpm: { avg: meaning("avgBpm", "count", "average heart") },
  };

/** Words behind a figure that say what it is after all; null for what is none of the fields. */
export const TAILS: readonly {
  readonly of: keyof Sighting;
  readonly shape: RegExp;
  readonly is: "left" | "used" | "guess" | "none";
}[] = [
  { of: "percent", shape: /\s+(?:used|gone|spent)/iy, is: "used" },
  {
    of: "percent",
    shape: /\s+(?:grade|gradient|slope|incline|hill|humidity|assist|motor|brake)/iy,
    is: "none",
  },
  { of: "percent", shape: /\s+(?:left|remaining|battery|charge)/iy, is: "left" },
  { of: "bars", shape: /\s+(?:left|remaining)/iy, is: "left" },
  { of: "distanceM", shape: /\s+(?:left|to go|remaining|range)/iy, is: "guess" },
];

/** Words right before a figure that add nothing to it. */
export const FILLERS: ReadonlySet<string> = new Set(["at", "now", "about", "still", "and"]);

/** What an entry is by a word or two: its kind, and what else that says. */
export interface Phrase {
  readonly shape: RegExp;
  readonly kind: string;
  readonly fields?: Readonly<Record<string, unknown>>;
  readonly says: string;
  /** Among other words it is no entry: "cut off by a van", "the end of the road". */
  readonly alone: "both sides" | "before";
}

const end = (reason: End, shape: RegExp, says: string): Phrase => ({
  shape,
  kind: "end",
  fields: { reason },
  says,
  alone: "both sides",
});

/** Longer ones before the shorter ones they begin with. */
export const PHRASES: readonly Phrase[] = [
  end("cutOff", /cut[\s-]?(?:off|out)|died|dead/iy, "end: the pack cut off"),
  end("gaugeZero", /gauge (?:at )?zero/iy, "end: gauge at zero"),
  end("cannotHoldSpeed", /(?:cannot|can't|can’t|could not|couldn't) hold (?:the )?speed|crawl(?:ing)?/iy, "end: cannot hold the speed"), // prettier-ignore
  end("byChoice", /stopped by choice|end(?:ed)?(?: by choice)?|finish(?:ed)?/iy, "end: stopped by choice"),
  { shape: /low[\s-]?power(?: mode)?/iy, kind: "lowPower", says: "low power", alone: "both sides" },
  { shape: /last bar blink(?:s|ing)|blink(?:s|ing)?/iy, kind: "lastBar", says: "last bar blinks", alone: "both sides" }, // prettier-ignore
  { shape: /full/iy, kind: "start", fields: { chargerDone: true }, says: "full charge", alone: "both sides" },
  { shape: /start/iy, kind: "start", says: "start", alone: "both sides" },
  { shape: /stop/iy, kind: "stop", says: "stop", alone: "before" },
  { shape: /go/iy, kind: "go", says: "go", alone: "before" },
];

/** Grounds by the words people use; each of its own name's words that no other ground has. */
export const GROUND_WORDS: ReadonlyMap<string, Ground> = new Map(
  Object.entries<Ground>({
    ...Object.fromEntries(GROUNDS.map((ground) => [ground.replace(" ", "-"), ground])),
    tar: "asphalt",
    tarmac: "asphalt",
    road: "asphalt",
    gravel: "fine gravel",
    fine: "fine gravel",
    loose: "loose gravel",
  }),
);
