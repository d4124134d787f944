import { z } from "zod";
import { entrySchema, groundSchema } from "#core/log";
import { chemistrySchema, ocvTableSchema } from "#core/pack";

/**
 * What is kept of bikes, packs, riders, set-ups and tests, in SI units: the same schemas for forms, database, import and
 * the open bundle. `pencil` names the fields that still hold an assumed default; the others are ink.
 */
const named = (what: string) =>
  z
    .string({ error: `Type the ${what}'s name.` })
    .trim()
    .min(1, `Type the ${what}'s name.`)
    .max(120, "A name holds 120 characters.");
const words = z.string().trim().max(2000, "That is over 2000 characters: keep it shorter.").default("");
const pencil = z.array(z.string()).default([]);
const number = (least: number, most: number, sentence: string) =>
  z.number({ error: sentence }).min(least, sentence).max(most, sentence);

export const bikeSchema = z
  .object({
    name: named("bike"),
    what: words,
    massKg: number(
      5,
      150,
      "A bike weighs 5 to 150 kg: check the unit, for example 26 kg or 57 lb.",
    ).optional(),
    motor: z.enum(["hub", "mid"], { error: "The motor is a hub or a mid motor." }).default("hub"),
    /** Assist levels from least to most, by the bike's own names. */
    levels: z
      .array(z.string().trim().min(1))
      .min(1, "Name at least one assist level, for example: low, high.")
      .max(12),
    throttle: z.boolean().default(false),
    /** Step of the percent display; 0 when it shows none. */
    percentStep: number(
      0,
      50,
      "The percent step is 1, 5 or 10; 0 when the display shows no percent.",
    ).default(1),
    counts: z.enum(["charge", "energy"]).default("charge"),
    bars: z.number().int("Bars are whole.").min(0).max(40, "A display has at most 40 bars.").default(0),
    meterStepV: number(0, 5, "The step of the volts display is 0 to 5 V, usually 0.1.").default(0.1),
    wheelCircumferenceM: number(
      0.5,
      3,
      "A wheel measures 500 to 3000 mm round, for example 2180 mm.",
    ).optional(),
    claimLowM: number(1, 1e6, "A claim is a distance, for example 40 mi.").optional(),
    claimHighM: number(1, 1e6, "A claim is a distance, for example 60 mi.").optional(),
    pencil,
  })
  .refine(
    ({ claimLowM, claimHighM }) =>
      claimLowM === undefined || claimHighM === undefined || claimLowM <= claimHighM,
    {
      path: ["claimHighM"],
      message: "The claim's upper end lies below its lower end: swap them.",
    },
  );
export type Bike = z.infer<typeof bikeSchema>;

export const packRecordSchema = z
  .object({
    name: named("pack"),
    chemistry: chemistrySchema.default("NMC"),
    labelWh: number(20, 10_000, "A pack's label says 20 to 10,000 Wh.").optional(),
    ampHours: number(0.5, 300, "A pack holds 0.5 to 300 Ah.").optional(),
    seriesCells: z
      .number()
      .int("Series cells are whole: a 36 V pack has 10, 48 V has 13.")
      .min(1)
      .max(60, "A pack has at most 60 cells in series.")
      .optional(),
    measuredWh: number(20, 10_000, "A measured capacity is 20 to 10,000 Wh.").optional(),
    measuredSdWh: number(0, 1000, "The doubt of the measurement is in Wh, for example 9.").optional(),
    measuredOn: z.iso.date({ error: "Type the day as 2024-05-18." }).optional(),
    resistanceOhm: number(0.001, 5, "A pack's resistance is 0.001 to 5 ohm, for example 0.11.").optional(),
    /** Own measured rest-volts curve, per cell. */
    ocv: ocvTableSchema.optional(),
    firstUsedOn: z.iso.date({ error: "Type the day as 2024-05-18." }).optional(),
    cycles: z
      .number()
      .int("Cycles are whole.")
      .min(0, "Cycles cannot be negative.")
      .max(10_000, "That is over 10,000 cycles: check the figure.")
      .optional(),
    pencil,
  })
  .refine(
    ({ labelWh, ampHours, seriesCells }) =>
      labelWh !== undefined || (ampHours !== undefined && seriesCells !== undefined),
    {
      path: ["labelWh"],
      message: "Type the pack's printed Wh, or its Ah and series cells.",
    },
  );
export type PackRecord = z.infer<typeof packRecordSchema>;

export const riderSchema = z.object({
  name: named("rider"),
  massKg: number(20, 250, "A dressed rider weighs 20 to 250 kg: check the unit.").optional(),
  pencil,
});
export type Rider = z.infer<typeof riderSchema>;

export const setUpSchema = z.object({
  name: named("set-up"),
  tyre: words,
  pressurePa: number(
    30_000,
    1_000_000,
    "Tyre pressure is 0.3 to 10 bar (4 to 145 psi): check the unit.",
  ).optional(),
  lightsOn: z.boolean().default(false),
  carriedKg: number(0, 300, "The load is 0 to 300 kg.").default(0),
  pencil,
});
export type SetUp = z.infer<typeof setUpSchema>;

export const SCHOOLS = [
  "run-down",
  "part charge",
  "fixed course, volts before and after",
  "steady current",
  "sections A/B",
  "twins",
  "vertical",
  "commute week",
  "hill trial",
] as const;

export const DRIVES = ["pedal", "throttle"] as const;

export const testSchema = z.object({
  title: named("test"),
  school: z.enum(SCHOOLS, { error: "Choose the school of method." }).default("part charge"),
  drive: z.enum(DRIVES, { error: "Choose pedal or throttle." }).default("pedal"),
  day: z.iso.date({ error: "Type the day as 2026-10-18." }),
  airTempC: number(-40, 55, "Air temperature is -40 to 55 C (-40 to 131 F).").optional(),
  packTempC: number(-40, 80, "Pack temperature is -40 to 80 C.").optional(),
  wind: words,
  course: words,
  firstLevel: z.string().trim().max(40).default(""),
  firstGround: groundSchema.default("asphalt"),
  pencil,
});
export type Test = z.infer<typeof testSchema>;

/** A clock's distance from UTC: "+01:00", "-05:30". */
export const utcOffsetSchema = z
  .string()
  .regex(/^[+-](0\d|1[0-4]):[0-5]\d$/, "Type how far the clock was from UTC, such as +01:00 or -05:00.");

const column = z.array(z.number());
export const trackSchema = z
  .object({ name: words, timeS: column, lat: column, lon: column, eleM: z.array(z.number().nullable()) })
  .refine(
    ({ timeS, lat, lon, eleM }) => [lat, lon, eleM].every((other) => other.length === timeS.length),
    "The track's columns differ in length.",
  );
export type TrackRecord = z.infer<typeof trackSchema>;

/** Samples of a logger, as columns; amps negative when energy comes back. */
export const telemetrySchema = z
  .object({
    logger: z.string().trim().min(1).max(40).default("logger"),
    timeS: column,
    volts: column,
    amps: column,
    speedMps: column.optional(),
  })
  .refine(
    ({ timeS, volts, amps, speedMps }) =>
      [volts, amps, speedMps ?? timeS].every((other) => other.length === timeS.length),
    "The telemetry's columns differ in length.",
  )
  .refine(
    ({ timeS }) => timeS.every((time, i) => i === 0 || time >= timeS[i - 1]!),
    "The telemetry's times must not run backward.",
  );
export type TelemetryRecord = z.infer<typeof telemetrySchema>;

export const rideRecordSchema = z.object({
  name: words,
  entries: z.array(entrySchema).max(20_000, "A ride holds at most 20,000 entries."),
  track: trackSchema.nullable().default(null),
  telemetry: telemetrySchema.nullable().default(null),
});

/** One test with all it needs: what the app reckons from, and what a bundle holds. Its rides follow one another on the same pack. */
export const testRecordSchema = z.object({
  test: testSchema,
  bike: bikeSchema,
  pack: packRecordSchema,
  /** A second pack that ran beside the first. */
  secondPack: packRecordSchema.nullable().default(null),
  rider: riderSchema.nullable().default(null),
  setUp: setUpSchema.nullable().default(null),
  rides: z.array(rideRecordSchema).min(1, "A test has at least one ride."),
  /** Odometer factor learned on this bike's other rides. */
  knownFactor: z
    .object({ k: z.number().positive(), sd: z.number().min(0) })
    .nullable()
    .default(null),
});
export type TestRecord = z.infer<typeof testRecordSchema>;
