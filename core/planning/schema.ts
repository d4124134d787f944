import { dayOf, text } from "#core/base";
import { z } from "zod";
import { ENDS } from "#core/fields";
import { DRIVES, EFFORTS, number, SCHOOLS, zoneSchema, words } from "#core/records";
import { QUESTION_IDS } from "./questions.ts";

/** Readings a method takes. */
export const PLANNED_READINGS = ["percent", "bars", "rest volts", "energy counter", "wall meter"] as const;
export type PlannedReading = (typeof PLANNED_READINGS)[number];

/** How long a method rides. */
export const UNTILS = ["the course is ridden", "the pack is empty", "a share of the charge is used"] as const;

const line = text().trim().min(1).max(160, "A line holds 160 characters.");
const lines = z.array(line).max(30, "A list holds at most 30 lines.").default([]);

/** Two set-ups, riders, pressures or levels put against each other on the same section. */
const compareSchema = z.object({
  a: text("Name the first, for example: slick tyres.")
    .trim()
    .min(1, "Name the first, for example: slick tyres.")
    .max(60),
  b: text("Name the second, for example: winter tyres.")
    .trim()
    .min(1, "Name the second, for example: winter tyres.")
    .max(60),
  pairs: z
    .number({ error: "How many runs of each, for example 2." })
    .int("Runs are whole.")
    .min(1, "At least one run of each.")
    .max(20, "At most 20 runs of each."),
  /** The difference worth finding, Wh per metre. */
  wantedWhPerM: number(1e-6, 0.1, "The difference wanted, for example 1 Wh/mi or 0.6 Wh/km."),
});
export type Compare = z.infer<typeof compareSchema>;

/** A school of method made ready to ride: what is read when, what is held, when it ends. */
export const methodSchema = z.object({
  name: text("Type the method's name.").trim().min(1, "Type the method's name.").max(120),
  school: z.enum([...SCHOOLS, "bench"], { error: "Choose the kind of test." }),
  drive: z.enum(DRIVES, { error: "Choose pedal or throttle." }).default("pedal"),
  until: z
    .enum(UNTILS, { error: `It is ridden until ${UNTILS.join(", or ")}.` })
    .default("the course is ridden"),
  /** Share of the charge, where it is ridden until that is used. */
  share: number(0.05, 0.95, "A share of the charge is 5 to 95 %.").default(0.5),
  everyM: number(100, 200_000, "Check in every 0.1 to 120 miles, for example 5 mi.").default(8046.72),
  atQuarters: z.boolean().default(true),
  taken: z
    .array(z.enum(PLANNED_READINGS))
    .min(1, "A method takes at least one reading.")
    .default(["percent"]),
  compare: compareSchema.nullable().default(null),
  /** Which of the ends counts. */
  ends: z.array(z.enum(ENDS)).min(1, "Say which end counts.").default(["byChoice"]),
  hold: lines,
  ready: lines,
  bring: lines,
  note: words,
});
export type Method = z.infer<typeof methodSchema>;

const clock = text().regex(/^([01]\d|2[0-3]):[0-5]\d$/, "Type the time as 09:30.");

/** A test still to be ridden: the question, the method, the day and what is assumed of it. SI units. */
export const planSchema = z.object({
  title: text("Type the plan's name.").trim().min(1, "Type the plan's name.").max(120),
  question: z.enum(QUESTION_IDS, { error: "Choose the question." }),
  method: methodSchema,
  day: dayOf("2026-10-18"),
  startsAt: clock.default("09:00"),
  zone: zoneSchema.default("+00:00"),
  /** Laps instead of the course's own. */
  laps: z.number().int("Laps are whole.").min(1).max(200, "At most 200 laps.").optional(),
  /** Days that ride the course on one charge. */
  days: z
    .number()
    .int("Days are whole.")
    .min(1)
    .max(14, "One charge carries over at most 14 days.")
    .default(1),
  /** Assist level or "throttle"; empty for the bike's middle one. */
  level: text().trim().max(40).default(""),
  /** Speed held at that level. */
  speedMps: number(1, 25, "A speed of 2 to 55 mph, for example 14 mph or 22 km/h.").optional(),
  effort: z.enum(EFFORTS, { error: `Effort is ${EFFORTS.join(", ")}.` }).default("easy"),
  riderW: number(0, 600, "A rider gives 0 to 600 W, for example 80 W.").optional(),
  bpm: number(40, 220, "A heart beats 40 to 220 times a minute.").optional(),
  airTempC: number(-40, 55, "Air temperature is -40 to 55 C (-40 to 131 F).").optional(),
  packTempC: number(-40, 80, "Pack temperature is -40 to 80 C.").optional(),
  windMps: number(0, 35, "Wind is 0 to 78 mph, for example 8 mph or 3.5 m/s.").optional(),
  /** Where it comes from, degrees clockwise from north. */
  windFromDeg: number(0, 360, "Wind comes from 0 to 360 degrees, or N, NE, E, SE, S, SW, W, NW.").optional(),
  stopsPerMi: number(0, 40, "Stops are 0 to 40 a mile.").optional(),
  reserve: number(0, 0.6, "The reserve is 0 to 60 % of the charge.").default(0.2),
  startPercent: number(10, 100, "The start is at 10 to 100 %.").default(100),
  chargeFromPercent: number(0, 99, "The pack stands at 0 to 99 % before its charge.").default(30),
  chargerA: number(0.2, 50, "A charger gives 0.2 to 50 A, for example 2 A.").optional(),
  /** When the charge of the evening before is to be done. */
  chargedBy: clock.default("21:30"),
  /** Riding in the dark is meant. */
  dark: z.boolean().default(false),
  /** Lines of the lists that are done. */
  ticked: z.array(line).max(120).default([]),
  pencil: z.array(text().max(40)).max(60).default([]),
});
export type Plan = z.infer<typeof planSchema>;
