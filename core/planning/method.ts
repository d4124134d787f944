import { text } from "#core/base";
import { z } from "zod";
import { END_NAMES, ENDS, recordField, shapeOf } from "#core/fields";
import { DRIVES, number, SCHOOLS, words } from "#core/records";

/** Readings a method takes. */
export const PLANNED_READINGS = ["percent", "bars", "rest volts", "energy counter", "wall meter"] as const;
export type PlannedReading = (typeof PLANNED_READINGS)[number];

/** How long a method rides. */
export const UNTILS = ["the course is ridden", "the pack is empty", "a share of the charge is used"] as const;

/** One line of a plan's lists. */
export const listLine = text().trim().min(1).max(160, "A line holds 160 characters.");
const lines = z.array(listLine).max(30, "A list holds at most 30 lines.").default([]);

const side = (which: string, example: string) =>
  text(`Name the ${which}, for example: ${example}.`)
    .trim()
    .min(1, `Name the ${which}, for example: ${example}.`)
    .max(60);

/** What a comparison puts against each other. */
export const COMPARE_FIELDS = {
  a: recordField({
    schema: side("first", "slick tyres"),
    label: "Compare",
    hint: "Such as: slick tyres. Empty: one ride.",
    typed: { as: "name" },
  }),
  b: recordField({ schema: side("second", "winter tyres"), label: "with", typed: { as: "name" } }),
  pairs: recordField({
    schema: z
      .number({ error: "How many runs of each, for example 2." })
      .int("Runs are whole.")
      .min(1, "At least one run of each.")
      .max(20, "At most 20 runs of each."),
    label: "Runs of each",
    typed: { as: "number", whole: true },
  }),
  /** The difference worth finding, Wh per metre. */
  wantedWhPerM: recordField({
    schema: number(1e-6, 0.1, "The difference wanted, for example 1 Wh/mi or 0.6 Wh/km."),
    label: "Difference worth finding",
    hint: "Such as 1 Wh/mi.",
    typed: { as: "quantity", dimension: "energyPerDistance", digits: 2 },
  }),
};

/** Two set-ups, riders, pressures or levels put against each other on the same section. */
const compareSchema = z.object(shapeOf(COMPARE_FIELDS));
export type Compare = z.infer<typeof compareSchema>;

/** A method's fields in the order a form asks for them. */
export const METHOD_FIELDS = {
  name: recordField({
    schema: text("Type the method's name.").trim().min(1, "Type the method's name.").max(120),
    label: "Method",
    typed: { as: "name" },
  }),
  school: recordField({
    schema: z.enum([...SCHOOLS, "bench"], { error: "Choose the kind of test." }),
    label: "School of method",
    typed: { as: "choice" },
  }),
  drive: recordField({
    schema: z.enum(DRIVES, { error: "Choose pedal or throttle." }).default("pedal"),
    label: "Driven by",
    typed: { as: "choice" },
  }),
  until: recordField({
    schema: z
      .enum(UNTILS, { error: `It is ridden until ${UNTILS.join(", or ")}.` })
      .default("the course is ridden"),
    label: "Ridden until",
    typed: { as: "choice" },
  }),
  /** Share of the charge, where it is ridden until that is used. */
  share: recordField({
    schema: number(0.05, 0.95, "A share of the charge is 5 to 95 %.").default(0.5),
    label: "Share of the charge",
    hint: "Where it is ridden to one.",
    typed: { as: "percent" },
  }),
  everyM: recordField({
    schema: number(100, 200_000, "Check in every 0.1 to 120 miles, for example 5 mi.").default(8046.72),
    label: "Check in every",
    typed: { as: "quantity", dimension: "distance", digits: 2 },
  }),
  atQuarters: recordField({
    schema: z.boolean().default(true),
    label: "and at quarters of the charge",
    typed: { as: "tick" },
  }),
  taken: recordField({
    schema: z
      .array(z.enum(PLANNED_READINGS))
      .min(1, "A method takes at least one reading.")
      .default(["percent"]),
    label: "Readings taken",
    typed: { as: "ticks" },
    wide: true,
  }),
  /** Which of the ends counts. */
  ends: recordField({
    schema: z.array(z.enum(ENDS)).min(1, "Say which end counts.").default(["byChoice"]),
    label: "Ends that count",
    typed: { as: "ticks", says: END_NAMES },
    wide: true,
  }),
  compare: recordField({
    schema: compareSchema.nullable().default(null),
    label: "Compare",
    typed: { as: "record", of: COMPARE_FIELDS },
  }),
  hold: recordField({ schema: lines, label: "Held constant, one a line", typed: { as: "list" }, wide: true }),
  ready: recordField({ schema: lines, label: "Made ready", typed: { as: "list" }, wide: true }),
  bring: recordField({ schema: lines, label: "Brought along", typed: { as: "list" }, wide: true }),
  note: recordField({ schema: words, label: "Remark", typed: { as: "lines" }, wide: true }),
};

/** A school of method made ready to ride: what is read when, what is held, when it ends. */
export const methodSchema = z.object(shapeOf(METHOD_FIELDS));
export type Method = z.infer<typeof methodSchema>;
