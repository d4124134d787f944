import { dayOf, text } from "#core/base";
import { z } from "zod";
import { recordField, shapeOf } from "#core/fields";
import { EFFORTS, number, zoneSchema } from "#core/records";
import { listLine, METHOD_FIELDS, methodSchema } from "./method.ts";
import { QUESTION_IDS, QUESTIONS } from "./questions.ts";

const clock = text().regex(/^([01]\d|2[0-3]):[0-5]\d$/, "Type the time as 09:30.");

/** A plan's fields in the order a form asks for them. */
export const PLAN_FIELDS = {
  title: recordField({
    schema: text("Type the plan's name.").trim().min(1, "Type the plan's name.").max(120),
    label: "Name of the plan",
    typed: { as: "name" },
    wide: true,
  }),
  day: recordField({ schema: dayOf("2026-10-18"), label: "Day", typed: { as: "day" } }),
  startsAt: recordField({ schema: clock.default("09:00"), label: "Starts at", typed: { as: "clock" } }),
  /** Laps instead of the course's own. */
  laps: recordField({
    schema: z.number().int("Laps are whole.").min(1).max(200, "At most 200 laps.").optional(),
    label: "Laps",
    typed: { as: "number", whole: true },
  }),
  /** Assist level or "throttle"; empty for the bike's middle one. */
  level: recordField({ schema: text().trim().max(40).default(""), label: "Level", typed: { as: "name" } }),
  /** Speed held at that level. */
  speedMps: recordField({
    schema: number(1, 25, "A speed of 2 to 55 mph, for example 14 mph or 22 km/h.").optional(),
    label: "Speed held",
    typed: { as: "quantity", dimension: "speed", digits: 2 },
  }),
  effort: recordField({
    schema: z.enum(EFFORTS, { error: `Effort is ${EFFORTS.join(", ")}.` }).default("easy"),
    label: "Rider's effort",
    typed: { as: "choice" },
  }),
  bpm: recordField({
    schema: number(40, 220, "A heart beats 40 to 220 times a minute.").optional(),
    label: "or heart rate",
    hint: "On the rider's effort line.",
    typed: { as: "number", whole: true },
  }),
  riderW: recordField({
    schema: number(0, 600, "A rider gives 0 to 600 W, for example 80 W.").optional(),
    label: "or watts",
    typed: { as: "number", whole: true },
  }),
  stopsPerMi: recordField({
    schema: number(0, 40, "Stops are 0 to 40 a mile.").optional(),
    label: "Stops a mile",
    typed: { as: "number" },
  }),
  airTempC: recordField({
    schema: number(-40, 55, "Air temperature is -40 to 55 C (-40 to 131 F).").optional(),
    label: "Air",
    typed: { as: "quantity", dimension: "temperature", digits: 1 },
  }),
  packTempC: recordField({
    schema: number(-40, 80, "Pack temperature is -40 to 80 C.").optional(),
    label: "Pack",
    hint: "Empty: as the air.",
    typed: { as: "quantity", dimension: "temperature", digits: 1 },
  }),
  windMps: recordField({
    schema: number(0, 35, "Wind is 0 to 78 mph, for example 8 mph or 3.5 m/s.").optional(),
    label: "Wind",
    typed: { as: "quantity", dimension: "speed", digits: 1 },
  }),
  /** Where it comes from, degrees clockwise from north. */
  windFromDeg: recordField({
    schema: number(0, 360, "Wind comes from 0 to 360 degrees, or N, NE, E, SE, S, SW, W, NW.").optional(),
    label: "from",
    hint: "N, SW, or degrees.",
    typed: { as: "compass" },
  }),
  startPercent: recordField({
    schema: number(10, 100, "The start is at 10 to 100 %.").default(100),
    label: "Starts at, %",
    typed: { as: "number", whole: true },
  }),
  reserve: recordField({
    schema: number(0, 0.6, "The reserve is 0 to 60 % of the charge.").default(0.2),
    label: "Kept back",
    hint: "Such as 20 %.",
    typed: { as: "percent" },
  }),
  chargeFromPercent: recordField({
    schema: number(0, 99, "The pack stands at 0 to 99 % before its charge.").default(30),
    label: "Before the charge, %",
    typed: { as: "number", whole: true },
  }),
  chargerA: recordField({
    schema: number(0.2, 50, "A charger gives 0.2 to 50 A, for example 2 A.").optional(),
    label: "Charger gives",
    typed: { as: "quantity", dimension: "current" },
  }),
  /** When the charge of the evening before is to be done. */
  chargedBy: recordField({
    schema: clock.default("21:30"),
    label: "Charged by, the evening before",
    typed: { as: "clock" },
  }),
  /** Days that ride the course on one charge. */
  days: recordField({
    schema: z
      .number()
      .int("Days are whole.")
      .min(1)
      .max(14, "One charge carries over at most 14 days.")
      .default(1),
    label: "Days on one charge",
    typed: { as: "number", whole: true },
  }),
  question: recordField({
    schema: z.enum(QUESTION_IDS, { error: "Choose the question." }),
    label: "Question",
    typed: { as: "choice", says: Object.fromEntries(QUESTIONS.map(({ id, asks }) => [id, asks])) },
    wide: true,
  }),
  method: recordField({
    schema: methodSchema,
    label: "Method",
    typed: { as: "record", of: METHOD_FIELDS },
  }),
  zone: recordField({
    schema: zoneSchema.default("+00:00"),
    label: "Time zone",
    hint: "By its name, or +01:00 an hour ahead of UTC.",
    typed: { as: "name" },
  }),
  dark: recordField({
    schema: z.boolean().default(false),
    label: "Riding in the dark is meant",
    typed: { as: "tick" },
  }),
};

/** A test still to be ridden: the question, the method, the day and what is assumed of it. SI units. */
export const planSchema = z.object({
  ...shapeOf(PLAN_FIELDS),
  /** Lines of the lists that are done. */
  ticked: z.array(listLine).max(120).default([]),
  pencil: z.array(text().max(40)).max(60).default([]),
});
export type Plan = z.infer<typeof planSchema>;
