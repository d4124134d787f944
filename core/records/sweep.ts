import { text } from "#core/base";
import { z } from "zod";
import { groundSchema } from "#core/fields";
import { EFFORTS } from "./effort.ts";
import { day, named, number, pencil, words } from "./fields.ts";

export const DIRECTIONS = ["there", "back", "one way"] as const;

/** One steady reading: what was held, on what, which way, and what the display said. SI units. */
export const sweepRowSchema = z
  .object({
    /** Assist level by the bike's own name, or "throttle". */
    level: text().trim().min(1, "Choose the level, or throttle.").max(40),
    ground: groundSchema,
    direction: z.enum(DIRECTIONS, { error: "The way is there, back or one way." }),
    speedMps: number(0.5, 30, "Type the speed held, for example 15 mph or 24 km/h."),
    ampsLow: number(0, 200, "Type the amps as they flickered, for example 6-7."),
    ampsHigh: number(0, 200, "Type the amps as they flickered, for example 6-7."),
    /** Under load; left out where nobody read them. */
    packVolts: number(5, 200, "Volts under load are 5 to 200, for example 48.6.").optional(),
  })
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
