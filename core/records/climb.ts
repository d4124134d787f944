import { text } from "#core/base";
import { z } from "zod";
import { groundSchema, recordField, shapeOf } from "#core/fields";
import { EFFORTS } from "./effort.ts";
import { day, named, number, pencil, words } from "./fields.ts";
import { DRIVES } from "./drive.ts";

const ENERGY = "Energy";
const HOW = "How it was ridden";

/** A climb's fields in the order a form asks for them. SI units. */
export const CLIMB_FIELDS = {
  hill: recordField({
    schema: named("hill"),
    label: "Hill",
    hint: "Runs of the same name rank together.",
    typed: { as: "name" },
  }),
  day: recordField({ schema: day("2026-10-18"), label: "Day", typed: { as: "day" } }),
  lengthM: recordField({
    schema: number(20, 60_000, "Type the hill's length, for example 0.6 mi or 1 km."),
    label: "Length",
    hint: "Such as 0.62 mi or 1 km.",
    typed: { as: "quantity", dimension: "distance", digits: 2 },
  }),
  gainM: recordField({
    schema: number(1, 4000, "Type how far the hill rises, for example 47 m or 154 ft."),
    label: "Rise",
    hint: "Such as 47 m or 154 ft.",
    typed: { as: "quantity", dimension: "climb", digits: 2 },
  }),
  timeS: recordField({
    schema: number(3, 40_000, "Type the time it took, for example 3 min or 184 s."),
    label: "Time",
    hint: "As the stopwatch shows it, 3:24, or 184 s.",
    typed: { as: "stopwatch" },
  }),
  entrySpeedMps: recordField({
    schema: number(0, 30, "The speed at the foot, for example 12 mph; 0 from standing.").optional(),
    label: "Speed at the foot",
    hint: "0 from standing.",
    typed: { as: "quantity", dimension: "speed", digits: 2 },
  }),
  ground: recordField({
    schema: groundSchema.default("asphalt"),
    label: "Ground",
    typed: { as: "choice" },
  }),
  airTempC: recordField({
    schema: number(-40, 55, "Air temperature is -40 to 55 C (-40 to 131 F).").optional(),
    label: "Air temperature",
    typed: { as: "quantity", dimension: "temperature", digits: 2 },
  }),
  energyWh: recordField({
    schema: number(0.1, 20_000, "Type the energy of the climb, for example 31 Wh.").optional(),
    label: "Energy by a counter",
    hint: "Such as 31 Wh; empty with no percent either: ranked by time.",
    typed: { as: "quantity", dimension: "energy", digits: 2 },
    under: ENERGY,
    wide: true,
  }),
  startPercent: recordField({
    schema: number(0, 100, "Percent runs from 0 to 100.").optional(),
    label: "or percent at the foot",
    typed: { as: "number" },
    under: ENERGY,
  }),
  endPercent: recordField({
    schema: number(0, 100, "Percent runs from 0 to 100.").optional(),
    label: "and at the top",
    typed: { as: "number" },
    under: ENERGY,
  }),
  drive: recordField({
    schema: z.enum(DRIVES, { error: "Choose pedal or throttle." }).default("pedal"),
    label: "Driven by",
    typed: { as: "choice" },
    under: HOW,
  }),
  level: recordField({
    schema: text().trim().max(40).default(""),
    label: "Level",
    typed: { as: "words" },
    under: HOW,
  }),
  effort: recordField({
    schema: z.enum(EFFORTS, { error: `Effort is ${EFFORTS.join(", ")}.` }).default("easy"),
    label: "Rider's effort",
    typed: { as: "choice" },
    under: HOW,
  }),
  note: recordField({ schema: words, label: "Remarks", typed: { as: "words" }, under: HOW }),
};

/** One run up a hill; the energy by a counter, by the percent at its foot and top, or not at all. */
export const climbSchema = z
  .object({ ...shapeOf(CLIMB_FIELDS), pencil })
  .superRefine(({ energyWh, startPercent, endPercent, lengthM, gainM }, context) => {
    const say = (path: string, message: string) =>
      context.addIssue({ code: "custom", path: [path], message });
    const both = startPercent !== undefined && endPercent !== undefined;
    if (energyWh === undefined && !both && (startPercent ?? endPercent) !== undefined)
      say(
        startPercent === undefined ? "startPercent" : "endPercent",
        "Type the percent at the foot and at the top, or neither: then the climb is ranked by its time.",
      );
    if (both && endPercent >= startPercent)
      say(
        "endPercent",
        "At the top the percent is below that at the foot: on so short a hill use a counter.",
      );
    if (gainM >= lengthM) say("gainM", "A hill rises less than it is long: check both, and their units.");
  });
export type ClimbRecord = z.infer<typeof climbSchema>;
