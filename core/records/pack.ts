import { z } from "zod";
import { chemistrySchema, ocvTableSchema } from "#core/battery";
import { day, named, number, pencil, words } from "./fields.ts";

export const packRecordSchema = z
  .object({
    name: named("pack"),
    chemistry: chemistrySchema.default("NMC"),
    labelWh: number(20, 10_000, "A pack's label says 20 to 10,000 Wh.").optional(),
    ampHours: number(0.5, 300, "A pack holds 0.5 to 300 Ah.").optional(),
    seriesCells: z
      .number()
      .int("Series cells are whole: a 36 V pack has 10, 48 V has 13.")
      .min(1)
      .max(60, "A pack has at most 60 cells in series.")
      .optional(),
    measuredWh: number(20, 10_000, "A measured capacity is 20 to 10,000 Wh.").optional(),
    measuredSdWh: number(0, 1000, "The doubt of the measurement is in Wh, for example 9.").optional(),
    measuredOn: day().optional(),
    resistanceOhm: number(0.001, 5, "A pack's resistance is 0.001 to 5 ohm, for example 0.11.").optional(),
    /** Own measured rest-volts curve, per cell. */
    ocv: ocvTableSchema.optional(),
    massKg: number(
      0.2,
      30,
      "A pack weighs 0.2 to 30 kg: check the unit, for example 3.2 kg or 7 lb.",
    ).optional(),
    /** How it is kept: place, charge, cold or warm. */
    storage: words,
    lastFullOn: day().optional(),
    highestTempC: number(-40, 120, "A temperature, for example 41 C or 106 F.").optional(),
    /** What it costs by itself, in minor units of the bike's currency. */
    priceMinor: number(0, 1e9, "A price is a sum of money, for example 749 EUR.").optional(),
    firstUsedOn: day().optional(),
    cycles: z
      .number()
      .int("Cycles are whole.")
      .min(0, "Cycles cannot be negative.")
      .max(10_000, "That is over 10,000 cycles: check the figure.")
      .optional(),
    pencil,
  })
  .refine(
    ({ labelWh, ampHours, seriesCells }) =>
      labelWh !== undefined || (ampHours !== undefined && seriesCells !== undefined),
    {
      path: ["labelWh"],
      message: "Type the pack's printed Wh, or its Ah and series cells.",
    },
  );
export type PackRecord = z.infer<typeof packRecordSchema>;
