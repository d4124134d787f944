import { text } from "#core/base";
import { z } from "zod";
import type { Field } from "./field.ts";
import { groundSchema, SIDES } from "./vocabulary.ts";

const FARTHEST_M = 1_000_000;
const MOST_RIDING_S = 4 * 86_400;
const PERCENT = "Percent runs from 0 to 100.";
const HEART = "A heart beats 30 to 230 times a minute.";

const distance = z
  .number({ error: "Distance must be a number." })
  .min(0, "Distance cannot be negative: type the miles since the start.")
  .max(
    FARTHEST_M,
    "That is over 600 miles: type how far this ride is so far, not the bike's whole mileage, and check the unit.",
  );
const speed = z
  .number({ error: "Speed must be a number." })
  .min(0, "Speed cannot be negative.")
  .max(40, "That is over 90 mph: check the unit.");
const heart = z.number().min(30, HEART).max(230, HEART);

const field = <S extends z.ZodType>(each: Field<S>): Field<S> => each;

/** What a person can see at a moment, in the order in which it is asked for; nothing is required. SI units. */
export const SIGHTING = {
  /** By recorder, since the ride's start, m. */
  distanceM: field({
    schema: distance,
    label: "distance, recorder",
    example: { imperial: "12.4 mi", metric: "20 km" },
    kind: "quantity",
    dimension: "distance",
    group: "main",
    column: {
      name: "distance",
      headings: ["distance", "dist", "gps", "recorder", "track", "miles", "mile", "mi", "km", "mark", "at"],
    },
    line: { says: "at", units: "mi mile miles km kms kilometre kilometres kilometer kilometers" },
  }),
  /** By the display's trip meter, since the ride's start, m. */
  displayM: field({
    schema: distance,
    label: "trip meter, display",
    kind: "quantity",
    dimension: "distance",
    group: "place",
    column: {
      name: "display",
      headings: ["display", "trip", "odo", "odometer", "trip meter", "display distance", "bike distance"],
    },
    line: { says: "display at", leads: "trip display" },
  }),
  percent: field({
    schema: z.number().min(0, PERCENT).max(100, PERCENT),
    label: "percent",
    kind: "quantity",
    dimension: "percent",
    group: "main",
    column: {
      name: "percent",
      headings: [
        "percent",
        "pct",
        "battery",
        "batt",
        "soc",
        "charge",
        "state of charge",
        "battery percent",
        "",
      ],
    },
    span: "percentSpan",
    line: { says: "percent", units: "% percent pct percents", leads: "battery batt charge soc", bare: true },
  }),
  bars: field({
    schema: z.number().int("Bars are whole: type 3, not 3.5.").min(0, "Bars run from 0.").max(40),
    label: "bars",
    kind: "quantity",
    dimension: "count",
    group: "main",
    column: { name: "bars", headings: ["bars", "bar", "battery bars", "bars left", "lights"] },
    span: "barsSpan",
    line: { says: "bars", units: "bar bars", unit: "bars", leads: "bars", bare: true },
  }),
  packVolts: field({
    schema: z.number().positive("Volts must be more than zero.").max(1000),
    label: "volts",
    kind: "quantity",
    dimension: "volts",
    group: "main",
    column: {
      name: "volts",
      headings: ["volts", "volt", "v", "voltage", "rest volts", "pack volts", "v rest", "volts rest"],
    },
    line: { says: "volts", units: "v volt volts" },
  }),
  /** True when the motor was pulling as the volts were read. */
  underLoad: field({
    schema: z.boolean(),
    label: "volts read under load",
    kind: "tick",
    dimension: null,
    group: "motor",
    column: { name: "load", headings: ["load", "under load", "loaded"] },
    line: { says: "under load" },
  }),
  /** Minutes the load had been off. */
  restMin: field({
    schema: z.number().min(0, "Rest cannot be negative.").max(10_000),
    label: "minutes of rest",
    kind: "quantity",
    dimension: "duration",
    siPerStored: 60,
    example: "10 min",
    group: "main",
    column: {
      name: "rest",
      headings: ["rest", "rest minutes", "rest min", "rested", "minutes rest", "min rest"],
    },
    line: { says: "at rest" },
  }),
  /** Negative when energy comes back. */
  amps: field({
    schema: z.number().min(-200, "Amps under -200 cannot be.").max(500, "Amps over 500 cannot be."),
    label: "amps",
    kind: "quantity",
    dimension: "current",
    group: "motor",
    column: { name: "amps", headings: ["amps", "amp", "a", "current"] },
    span: "ampsSpan",
    line: { says: "amps", units: "a amp amps" },
  }),
  /** Power the display shows. */
  watts: field({
    schema: z.number().min(-5000).max(20_000, "That is over 20 kW: check the unit."),
    label: "watts on the display",
    kind: "quantity",
    dimension: "count",
    group: "motor",
    column: { name: "watts", headings: ["watts", "watt", "w", "power", "motor power", "display watts"] },
    line: { says: "power", units: "w watt watts", unit: "W" },
  }),
  /** A running energy counter as it stands. */
  counterWh: field({
    schema: z.number().min(-100_000).max(1_000_000, "That is over a megawatt-hour: check the unit."),
    label: "energy counter",
    kind: "quantity",
    dimension: "energy",
    example: "164 Wh",
    group: "motor",
    column: {
      name: "counterWh",
      headings: [
        "wh",
        "counter",
        "wh counter",
        "energy",
        "energy counter",
        "counter wh",
        "wh used",
        "used wh",
      ],
    },
    line: { says: "counter", units: "wh kwh" },
  }),
  /** A running charge counter as it stands. */
  counterAh: field({
    schema: z.number().min(-10_000).max(100_000, "That is over 100,000 Ah: check the unit."),
    label: "charge counter",
    kind: "quantity",
    dimension: "charge",
    example: "4.31 Ah",
    group: "motor",
    column: {
      name: "counterAh",
      headings: ["ah", "ah counter", "charge counter", "counter ah", "ah used", "used ah"],
    },
    line: { says: "counter", units: "ah" },
  }),
  /** Which meter counts; its gain is shared wherever it is used. */
  meter: field({
    schema: text().trim().min(1).max(40),
    label: "which meter",
    kind: "words",
    dimension: null,
    group: "motor",
    column: { name: "meter", headings: ["meter", "which meter", "meter name"] },
    line: { says: "meter" },
  }),
  speedMps: field({
    schema: speed,
    label: "speed",
    kind: "quantity",
    dimension: "speed",
    group: "rider",
    column: { name: "speed", headings: ["speed", "mph", "pace"] },
    span: "speedSpanMps",
    line: { says: "speed", units: "mph km/h kmh kph", leads: "speed" },
  }),
  /** The display's own guess, m. */
  rangeGuessM: field({
    schema: distance,
    label: "way left, by the display",
    kind: "quantity",
    dimension: "distance",
    group: "place",
    column: {
      name: "guess",
      headings: ["guess", "range", "miles left", "left", "range left", "range guess", "remaining"],
    },
    line: { says: "display's guess", leads: "range guess estimate est" },
  }),
  airTempC: field({
    schema: z.number().min(-60, "Air is -60 to 60 C.").max(60, "Air is -60 to 60 C: check the unit."),
    label: "air temperature",
    kind: "quantity",
    dimension: "temperature",
    group: "rider",
    column: { name: "air", headings: ["air", "temp", "temperature", "air temp", "air temperature"] },
    line: { says: "air", units: "c f °c °f", leads: "temp air" },
  }),
  /** Wind as felt or as a station says, from wherever. */
  windMps: field({
    schema: z
      .number()
      .min(0, "Wind cannot be negative.")
      .max(40, "That is over 90 mph of wind: check the unit."),
    label: "wind",
    kind: "quantity",
    dimension: "speed",
    group: "rider",
    column: { name: "wind", headings: ["wind", "wind speed"] },
    line: { says: "wind", leads: "wind" },
  }),
  /** Climbed since the ride's start, as the recorder says. */
  climbM: field({
    schema: z
      .number()
      .min(0, "Climb cannot be negative.")
      .max(20_000, "That is over 20,000 m of climb: check the unit."),
    label: "climb so far",
    example: { imperial: "2100 ft", metric: "640 m" },
    kind: "quantity",
    dimension: "climb",
    group: "rider",
    column: {
      name: "climb",
      headings: ["climb", "climbed", "ascent", "gain", "elevation gain", "total climb", "climb so far"],
    },
    line: { says: "climbed", leads: "climb climbed ascent" },
  }),
  /** Heart rate. */
  bpm: field({
    schema: heart,
    label: "heart rate",
    kind: "quantity",
    dimension: "count",
    example: "128",
    group: "rider",
    column: { name: "bpm", headings: ["bpm", "hr", "heart", "heart rate", "pulse"] },
    line: { says: "heart", units: "bpm", unit: "bpm", leads: "hr heart pulse", bare: true },
  }),
  /** Riding time since the ride's start, without what it stood. */
  movingS: field({
    schema: z
      .number()
      .min(1, "Riding time is more than nothing, such as 2 h 47 min.")
      .max(MOST_RIDING_S, "That is over four days of riding: check hours and minutes."),
    label: "riding time",
    kind: "quantity",
    dimension: "duration",
    example: "2 h 47 min or 2:47",
    group: "whole ride",
    column: {
      name: "riding",
      headings: ["riding", "riding time", "moving", "moving time", "ride time"],
    },
    line: { says: "riding time" },
  }),
  /** Mean over the riding time, fastest, and mean heart rate, as the recorder says them since the ride's start. */
  avgSpeedMps: field({
    schema: speed,
    label: "average speed",
    example: { imperial: "14.1 mph", metric: "22.7 km/h" },
    kind: "quantity",
    dimension: "speed",
    group: "whole ride",
    column: { name: "avgSpeed", headings: ["avg", "avg speed", "average", "average speed", "mean speed"] },
    line: { says: "average speed", overall: ["speedMps", "avg"] },
  }),
  topSpeedMps: field({
    schema: speed,
    label: "top speed",
    example: { imperial: "24 mph", metric: "39 km/h" },
    kind: "quantity",
    dimension: "speed",
    group: "whole ride",
    column: { name: "topSpeed", headings: ["top speed", "max speed", "max", "top"] },
    line: { says: "top speed", overall: ["speedMps", "top"] },
  }),
  avgBpm: field({
    schema: heart,
    label: "heart rate, mean",
    kind: "quantity",
    dimension: "count",
    example: "128",
    group: "whole ride",
    column: {
      name: "avgBpm",
      headings: [
        "avg bpm",
        "avg hr",
        "average heart",
        "average heart rate",
        "mean heart rate",
        "avg heart rate",
      ],
    },
    line: { says: "average heart", unit: "bpm", overall: ["bpm", "avg"] },
  }),
  /** Section of the course that begins here, ridden more than once; empty ends one. */
  section: field({
    schema: text().trim().max(40, "A section's name holds 40 characters."),
    label: "section",
    kind: "words",
    dimension: null,
    group: "place",
    column: { name: "section", headings: ["section", "stretch"] },
    line: { says: "section" },
  }),
  /** Which of two put against each other is ridden from here. */
  side: field({
    schema: z.enum(SIDES, { error: "A run is A or B." }),
    label: "A or B",
    kind: "choice",
    dimension: null,
    group: "place",
    column: { name: "side", headings: ["side", "run", "a or b"] },
    line: { says: "run" },
  }),
  level: field({
    schema: text().trim().min(1).max(40),
    label: "level",
    kind: "choice",
    dimension: null,
    group: "main",
    column: { name: "level", headings: ["level", "assist", "mode", "pas", "assist level"] },
    line: { says: "level" },
  }),
  ground: field({
    schema: groundSchema,
    label: "ground",
    kind: "choice",
    dimension: null,
    group: "place",
    column: { name: "ground", headings: ["ground", "surface", "terrain"] },
    line: { says: "ground" },
  }),
  note: field({
    schema: text().trim().max(2000, "A note holds 2000 characters."),
    label: "note",
    kind: "words",
    dimension: null,
    group: "place",
    column: { name: "note", headings: ["note", "notes", "remark", "remarks", "comment", "comments"] },
    line: { says: "note" },
  }),
  /** How far the gauge wandered, from the least to the most; `percent` is its middle. */
  percentSpan: field({
    schema: z.number().min(0, "A span cannot be negative.").max(100),
    label: "how far the percent wandered",
    kind: "quantity",
    dimension: "percent",
    group: "main",
    column: null,
    line: null,
  }),
  /** How many bars fewer were seen in turn with `bars`: "2-3 bars" is 3 with 1. */
  barsSpan: field({
    schema: z.number().int("Bars are whole: type 2-3.").min(0, "A span cannot be negative.").max(40),
    label: "how far the bars flickered",
    kind: "quantity",
    dimension: "count",
    group: "main",
    column: null,
    line: null,
  }),
  /** How far the speed wandered, from the least to the most; `speedMps` is its middle. */
  speedSpanMps: field({
    schema: z.number().min(0, "A span cannot be negative.").max(40),
    label: "how far the speed wandered",
    kind: "quantity",
    dimension: "speed",
    group: "rider",
    column: null,
    line: null,
  }),
  /** How far the amps flickered, from the least to the most; `amps` is their middle. */
  ampsSpan: field({
    schema: z.number().min(0, "A span cannot be negative.").max(500),
    label: "how far the amps flickered",
    kind: "quantity",
    dimension: "current",
    group: "motor",
    column: null,
    line: null,
  }),
} as const satisfies Readonly<Record<string, Field>>;

export type SightingField = keyof typeof SIGHTING;
/** Fields of a sighting in the order in which they are asked for. */
export const SIGHTING_FIELDS = Object.keys(SIGHTING) as readonly SightingField[];

type Shape = { [K in SightingField]: z.ZodOptional<(typeof SIGHTING)[K]["schema"]> };

/** The schema of what was seen at a moment: every field, none required. */
export const sightingSchema = z.object(
  Object.fromEntries(SIGHTING_FIELDS.map((name) => [name, SIGHTING[name].schema.optional()])) as Shape,
);
export type Sighting = z.infer<typeof sightingSchema>;
