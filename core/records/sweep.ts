import { text } from "#core/base";
import { z } from "zod";
import { groundSchema, recordField, shapeOf } from "#core/fields";
import { EFFORTS } from "./effort.ts";
import { day, named, number, pencil, words } from "./fields.ts";

const DIRECTIONS = ["there", "back", "one way"] as const;

const AMPS = "Type the amps as they flickered, for example 6-7.";

/** A sweep row's fields in the order of the grid, one steady reading: what was held, on what, which way, what the display said. */
export const SWEEP_ROW_FIELDS = {
  /** Assist level by the bike's own name, or "throttle". */
  level: recordField({
    schema: text().trim().min(1, "Choose the level, or throttle.").max(40),
    label: "Level",
    typed: { as: "name" },
  }),
  ground: recordField({ schema: groundSchema, label: "Ground", typed: { as: "choice" } }),
  direction: recordField({
    schema: z.enum(DIRECTIONS, { error: "The way is there, back or one way." }),
    label: "Way",
    typed: { as: "choice" },
  }),
  speedMps: recordField({
    schema: number(0.5, 30, "Type the speed held, for example 15 mph or 24 km/h."),
    label: "Speed",
    typed: { as: "quantity", dimension: "speed", digits: 2 },
  }),
  ampsLow: recordField({
    schema: number(0, 200, AMPS),
    label: "Amps",
    hint: "6-7 A",
    typed: { as: "span", dimension: "current", to: "ampsHigh", digits: 2 },
  }),
  ampsHigh: recordField({ schema: number(0, 200, AMPS), label: "Amps", typed: { as: "own" } }),
  /** Under load; left out where nobody read them. */
  packVolts: recordField({
    schema: number(5, 200, "Volts under load are 5 to 200, for example 48.6.").optional(),
    label: "Volts",
    typed: { as: "quantity", dimension: "volts", digits: 2 },
  }),
};

/** Columns of the grid by the names their texts are kept under, each with the field it fills. */
export const SWEEP_COLUMNS = {
  level: "level",
  ground: "ground",
  direction: "direction",
  speed: "speedMps",
  amps: "ampsLow",
  volts: "packVolts",
} as const satisfies Readonly<Record<string, keyof typeof SWEEP_ROW_FIELDS>>;
export type SweepColumn = keyof typeof SWEEP_COLUMNS;

/** A row that can be reckoned with. SI units. */
export const sweepRowSchema = z
  .object(shapeOf(SWEEP_ROW_FIELDS))
  .refine(({ ampsLow, ampsHigh }) => ampsLow <= ampsHigh, {
    path: ["ampsLow"],
    message: "Amps run from the low to the high: type 5.5-6.5.",
  });
export type SweepRow = z.infer<typeof sweepRowSchema>;

const typed = text().trim().max(60).default("");

/** A row of the grid still to be filled, or that cannot be read yet: as typed, at its place in the grid. */
const openRowSchema = z.object({
  at: z.number().int().min(0).max(400),
  level: typed,
  ground: groundSchema,
  direction: z.enum(DIRECTIONS),
  speed: typed,
  amps: typed,
  volts: typed,
});
export type OpenSweepRow = z.infer<typeof openRowSchema>;

/** A sweep: levels or throttle speeds x grounds, at steady speed, both ways where it can be. */
export const sweepSchema = z.object({
  title: named("sweep"),
  day: day("2026-10-18"),
  airTempC: number(-40, 55, "Air temperature is -40 to 55 C (-40 to 131 F).").optional(),
  /** What the rider put in on the rows that are pedalled. */
  effort: z.enum(EFFORTS, { error: `Effort is ${EFFORTS.join(", ")}.` }).default("easy"),
  note: words,
  rows: z.array(sweepRowSchema).max(400, "A sweep holds at most 400 rows.").default([]),
  open: z.array(openRowSchema).max(400).default([]),
  pencil,
});
export type Sweep = z.infer<typeof sweepSchema>;
