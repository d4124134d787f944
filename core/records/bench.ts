import { recordField, shapeOf } from "#core/fields";
import { z } from "zod";
import { day, number, words } from "./fields.ts";

/** The fields of a bench discharge in the order a form asks for them. */
export const BENCH_FIELDS = {
  on: recordField({ schema: day(), label: "Day", typed: { as: "day" } }),
  /** A bench test only starts from full. */
  fromFull: recordField({
    schema: z.literal(true, {
      error: "A capacity test only starts from full: charge until the charger is green, then tick this.",
    }),
    label: "It started from full, charger green",
    typed: { as: "tick" },
  }),
  startVolts: recordField({
    schema: number(5, 200, "Rest volts at the start, for example 54.4 V.").optional(),
    label: "Rest volts at the start",
    typed: { as: "quantity", dimension: "volts" },
  }),
  hours: recordField({
    schema: number(0.2, 72, "A discharge takes 0.2 to 72 h, for example 5.5 h."),
    label: "Took",
    hint: "Such as 5.5 h.",
    typed: { as: "own" },
  }),
  wh: recordField({
    schema: number(20, 10_000, "The result is 20 to 10,000 Wh."),
    label: "Result",
    hint: "Such as 583 Wh.",
    typed: { as: "quantity", dimension: "energy" },
  }),
  /** Of the result, 1 sd. */
  sdWh: recordField({
    schema: number(
      0,
      1000,
      "The doubt of the result is in Wh, up to ± 1960 Wh, for example 12 Wh.",
    ).optional(),
    label: "± (95 of 100)",
    hint: "The tester's own; at least ± 3 % is taken.",
    typed: { as: "quantity", dimension: "energy", margin: true },
  }),
  startTempC: recordField({
    schema: number(0, 45, "A pack is not tested under 0 C nor over 45 C: let it come to the room."),
    label: "Pack temperature at the start",
    typed: { as: "quantity", dimension: "temperature" },
  }),
  highestTempC: recordField({
    schema: number(0, 90, "The highest temperature seen, for example 34 C.").optional(),
    label: "Highest seen",
    typed: { as: "quantity", dimension: "temperature" },
  }),
  instrument: recordField({ schema: words, label: "Tester", typed: { as: "words" } }),
  by: recordField({
    schema: words,
    label: "Done by",
    hint: "A first name is enough.",
    typed: { as: "words" },
  }),
  note: recordField({ schema: words, label: "Remarks", typed: { as: "words" }, wide: true }),
};

/** A bench discharge of a pack: hours long, from full to cut-off. */
export const benchSchema = z
  .object(shapeOf(BENCH_FIELDS))
  .refine(({ startTempC, highestTempC }) => highestTempC === undefined || highestTempC >= startTempC, {
    path: ["highestTempC"],
    message: "The highest temperature cannot lie below the one at the start.",
  });
export type Bench = z.infer<typeof benchSchema>;
