import { z } from "zod";
import { day, number, words } from "./fields.ts";

/** A bench discharge of a pack: hours long, from full to cut-off. */
export const benchSchema = z
  .object({
    on: day(),
    /** A bench test only starts from full. */
    fromFull: z.literal(true, {
      error: "A capacity test only starts from full: charge until the charger is green, then tick this.",
    }),
    startVolts: number(5, 200, "Rest volts at the start, for example 54.4 V.").optional(),
    hours: number(0.2, 72, "A discharge takes 0.2 to 72 h, for example 5.5 h."),
    wh: number(20, 10_000, "The result is 20 to 10,000 Wh."),
    /** Of the result, 1 sd. */
    sdWh: number(0, 1000, "The doubt of the result is in Wh, for example 6 Wh.").optional(),
    startTempC: number(0, 45, "A pack is not tested under 0 C nor over 45 C: let it come to the room."),
    highestTempC: number(0, 90, "The highest temperature seen, for example 34 C.").optional(),
    instrument: words,
    by: words,
    note: words,
  })
  .refine(({ startTempC, highestTempC }) => highestTempC === undefined || highestTempC >= startTempC, {
    path: ["highestTempC"],
    message: "The highest temperature cannot lie below the one at the start.",
  });
export type Bench = z.infer<typeof benchSchema>;
