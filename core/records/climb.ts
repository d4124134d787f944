import { text } from "#core/base";
import { z } from "zod";
import { groundSchema } from "#core/fields";
import { EFFORTS } from "./effort.ts";
import { day, named, number, pencil, words } from "./fields.ts";
import { DRIVES } from "./drive.ts";

/** One run up a hill. SI units; the energy by a counter, by the percent at its foot and top, or not at all. */
export const climbSchema = z
  .object({
    hill: named("hill"),
    day: day("2026-10-18"),
    lengthM: number(20, 60_000, "Type the hill's length, for example 0.6 mi or 1 km."),
    gainM: number(1, 4000, "Type how far the hill rises, for example 47 m or 154 ft."),
    timeS: number(3, 40_000, "Type the time it took, for example 3 min or 184 s."),
    drive: z.enum(DRIVES, { error: "Choose pedal or throttle." }).default("pedal"),
    level: text().trim().max(40).default(""),
    ground: groundSchema.default("asphalt"),
    entrySpeedMps: number(0, 30, "The speed at the foot, for example 12 mph; 0 from standing.").optional(),
    energyWh: number(0.1, 20_000, "Type the energy of the climb, for example 31 Wh.").optional(),
    startPercent: number(0, 100, "Percent runs from 0 to 100.").optional(),
    endPercent: number(0, 100, "Percent runs from 0 to 100.").optional(),
    effort: z.enum(EFFORTS, { error: `Effort is ${EFFORTS.join(", ")}.` }).default("easy"),
    airTempC: number(-40, 55, "Air temperature is -40 to 55 C (-40 to 131 F).").optional(),
    note: words,
    pencil,
  })
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
