import { recordField, shapeOf } from "#core/fields";
import { z } from "zod";
import { text } from "#core/base";
import { day, number, words } from "./fields.ts";

const SHOWN = "What the tester showed";
const IDENTITY = "The pack, as it names itself";

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
  /** What the tester's own screen said in the end. */
  shownWh: recordField({
    schema: number(20, 10_000, "The tester shows 20 to 10,000 Wh.").optional(),
    label: "Energy it showed",
    hint: "Empty when it is the result above.",
    typed: { as: "quantity", dimension: "energy" },
    under: SHOWN,
  }),
  shownPercent: recordField({
    schema: number(1, 200, "The tester shows 1 to 200 % of the label, for example 84 %.").optional(),
    label: "Percent it showed",
    hint: "Of the label, as the tester reckons it: such as 84.",
    typed: { as: "number" },
    under: SHOWN,
  }),
  endVolts: recordField({
    schema: number(5, 200, "Volts at the cut-off, for example 38.6 V.").optional(),
    label: "Volts at the end",
    typed: { as: "quantity", dimension: "volts" },
    under: SHOWN,
  }),
  startCharge: recordField({
    schema: number(0, 110, "Charge is 0 to 110 %, for example 100.").optional(),
    label: "Charge at the start, %",
    typed: { as: "number" },
    under: SHOWN,
  }),
  endCharge: recordField({
    schema: number(0, 110, "Charge is 0 to 110 %, for example 2.").optional(),
    label: "Charge at the end, %",
    typed: { as: "number" },
    under: SHOWN,
  }),
  customer: recordField({
    schema: words,
    label: "Customer",
    hint: "Whose pack it is; a name is enough.",
    typed: { as: "words" },
    under: IDENTITY,
  }),
  serial: recordField({ schema: words, label: "Serial number", typed: { as: "words" }, under: IDENTITY }),
  software: recordField({
    schema: words,
    label: "Software of the pack",
    typed: { as: "words" },
    under: IDENTITY,
  }),
  madeOn: recordField({
    schema: words,
    label: "Made on",
    hint: "As it is printed: a day, a month or a week.",
    typed: { as: "words" },
    under: IDENTITY,
  }),
  cyclesShown: recordField({
    schema: number(0, 10_000, "Cycles are 0 to 10,000, for example 211.4.").optional(),
    label: "Cycles, as the pack counts them",
    hint: "With its decimals: such as 211.4.",
    typed: { as: "number" },
    under: IDENTITY,
  }),
  errors: recordField({
    schema: text().trim().max(4000, "An error list has at most 4,000 characters.").default(""),
    label: "Error list",
    hint: "A line each, as the tester reads them. Empty when none was read.",
    typed: { as: "own", lines: 4 },
    under: IDENTITY,
    wide: true,
  }),
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
