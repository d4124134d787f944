import { isZone, text } from "#core/base";
import { z } from "zod";
import { groundSchema, recordField, shapeOf } from "#core/fields";
import { entrySchema } from "#core/ride/log";
import { bikeSchema } from "./bike.ts";
import { DRIVES } from "./drive.ts";
import { EFFORTS } from "./effort.ts";
import { day, named, number, pencil, words } from "./fields.ts";
import { knownSchema } from "./learned.ts";
import { instrumentSchema } from "./instrument.ts";
import { packRecordSchema } from "./pack.ts";
import { telemetrySchema, trackSchema } from "./recording.ts";
import { riderSchema } from "./rider.ts";
import { setUpSchema } from "./setUp.ts";

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

const CONDITIONS = "Conditions";
const ELSEWHERE = "For bringing it to other conditions";

/** A test's fields in the order a form asks for them. */
export const TEST_FIELDS = {
  title: recordField({
    schema: named("test"),
    label: "Title",
    hint: "Such as: Part charge, levee loop.",
    typed: { as: "name" },
    wide: true,
  }),
  day: recordField({ schema: day("2026-10-18"), label: "Day", typed: { as: "day" } }),
  school: recordField({
    schema: z.enum(SCHOOLS, { error: "Choose the kind of test." }).default("part charge"),
    label: "Kind of test",
    typed: { as: "choice" },
  }),
  drive: recordField({
    schema: z.enum(DRIVES, { error: "Choose pedal or throttle." }).default("pedal"),
    label: "Driven by",
    typed: { as: "choice" },
  }),
  airTempC: recordField({
    schema: number(-40, 55, "Air temperature is -40 to 55 C (-40 to 131 F).").optional(),
    label: "Air temperature",
    hint: "Such as 12 C or 54 F. Cold packs yield less.",
    typed: { as: "quantity", dimension: "temperature" },
    under: CONDITIONS,
  }),
  packTempC: recordField({
    schema: number(-40, 80, "Pack temperature is -40 to 80 C.").optional(),
    label: "Pack temperature",
    hint: "Empty when it was as the air.",
    typed: { as: "quantity", dimension: "temperature" },
    under: CONDITIONS,
  }),
  wind: recordField({
    schema: words,
    label: "Wind",
    hint: "Such as: light, from the west.",
    typed: { as: "words" },
    under: CONDITIONS,
  }),
  course: recordField({
    schema: words,
    label: "Course",
    hint: "Such as: levee loop, three laps.",
    typed: { as: "words" },
    under: CONDITIONS,
  }),
  firstLevel: recordField({
    schema: text().trim().max(40).default(""),
    label: "Level at the start",
    typed: { as: "words" },
    under: CONDITIONS,
  }),
  firstGround: recordField({
    schema: groundSchema.default("asphalt"),
    label: "Ground at the start",
    typed: { as: "choice" },
    under: CONDITIONS,
  }),
  /** What the rider put in: words, else watts or a heart rate held. */
  effort: recordField({
    schema: z.enum(EFFORTS, { error: `Effort is ${EFFORTS.join(", ")}.` }).optional(),
    label: "What the rider put in",
    typed: { as: "choice", none: "not noted: easy is assumed" },
    under: ELSEWHERE,
  }),
  riderW: recordField({
    schema: number(0, 600, "A rider gives 0 to 600 W, for example 80 W.").optional(),
    label: "or in watts",
    hint: "Such as 80.",
    typed: { as: "number" },
    under: ELSEWHERE,
  }),
  bpm: recordField({
    schema: number(40, 220, "A heart beats 40 to 220 times a minute.").optional(),
    label: "or as a heart rate held",
    hint: "Read by the rider's own line of beats and watts.",
    typed: { as: "number" },
    under: ELSEWHERE,
  }),
  /** Stops in all. */
  stops: recordField({
    schema: number(0, 2000, "Stops are a whole number, for example 12.").optional(),
    label: "Stops in all",
    hint: "Such as 12.",
    typed: { as: "number", whole: true },
    under: ELSEWHERE,
  }),
  /** Mean wind over the ride, as felt or as a station says. */
  windMps: recordField({
    schema: number(0, 35, "Wind is 0 to 78 mph, for example 8 mph or 3.5 m/s.").optional(),
    label: "How strong the wind was",
    hint: "Such as 8 mph; 0 for none.",
    typed: { as: "quantity", dimension: "speed" },
    under: ELSEWHERE,
  }),
  /** Where it came from, degrees clockwise from north. */
  windFromDeg: recordField({
    schema: number(0, 360, "Wind comes from 0 to 360 degrees, or N, NE, E, SE, S, SW, W, NW.").optional(),
    label: "Where it came from",
    hint: "N, NE and so on, or degrees.",
    typed: { as: "compass" },
    under: ELSEWHERE,
  }),
  altitudeM: recordField({
    schema: number(-430, 6000, "Height above the sea is -430 to 6000 m, for example 320 m.").optional(),
    label: "Height above the sea",
    hint: "Thin air is easier to ride in.",
    typed: { as: "quantity", dimension: "climb" },
    under: ELSEWHERE,
  }),
};

/** A test's own fields. */
export const testFields = z.object({ ...shapeOf(TEST_FIELDS), pencil });

/** Calm has no direction: one of the two is a slip. */
export function windSense(
  {
    windMps,
    windFromDeg,
  }: { readonly windMps?: number | undefined; readonly windFromDeg?: number | undefined },
  context: z.RefinementCtx,
): void {
  if (windMps === 0 && windFromDeg !== undefined)
    context.addIssue({
      code: "custom",
      path: ["windMps"],
      message: "No wind comes from nowhere: type how strong it was, or clear where it came from.",
    });
}

export const testSchema = testFields.superRefine(windSense);
export type Test = z.infer<typeof testSchema>;

/** A clock's zone: its name in the time zone database, or its distance from UTC, "+01:00", "-05:30". */
export const zoneSchema = text()
  .trim()
  .max(60)
  .refine(
    isZone,
    "Type the clock's time zone by its name, or how far it is from UTC, such as +01:00 or -05:00.",
  );

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
  /** The desk's meters and chargers, found by their names in the log. */
  instruments: z.array(instrumentSchema).default([]),
  rides: z.array(rideRecordSchema).min(1, "A test has at least one ride."),
  /** Odometer factor learned on this bike's other rides. */
  knownFactor: z
    .object({ k: z.number().positive(), sd: z.number().min(0), tests: z.number().optional() })
    .nullable()
    .default(null),
  /** What other tests showed of gauge and pack. */
  known: knownSchema.nullable().default(null),
});
export type TestRecord = z.infer<typeof testRecordSchema>;
