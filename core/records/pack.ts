import { z } from "zod";
import { recordField, shapeOf } from "#core/fields";
import { chemistrySchema, ocvTableSchema } from "#core/battery";
import { day, named, number, pencil, words } from "./fields.ts";
import { packLearned } from "./learned.ts";

const measured = number(20, 10_000, "A measured capacity is 20 to 10,000 Wh.");
const measuredSd = number(0, 1000, "The doubt of the measurement is in Wh, for example 9.");

const MEASURED = "Measured, at 25 C";
const AGE = "Age and keeping";

/** A pack's fields in the order a form asks for them. */
export const PACK_FIELDS = {
  name: recordField({ schema: named("pack"), label: "Name", typed: { as: "name" } }),
  chemistry: recordField({
    schema: chemistrySchema.default("NMC"),
    label: "Chemistry",
    typed: { as: "choice", says: { NMC: "NMC (most packs)", LFP: "LFP (iron phosphate)" } },
  }),
  labelWh: recordField({
    schema: number(20, 10_000, "A pack's label says 20 to 10,000 Wh.").optional(),
    label: "Printed energy",
    hint: "Such as 612 Wh. Or give Ah and cells below.",
    typed: { as: "quantity", dimension: "energy" },
  }),
  ampHours: recordField({
    schema: number(0.5, 300, "A pack holds 0.5 to 300 Ah.").optional(),
    label: "Printed charge",
    hint: "Such as 17 Ah.",
    typed: { as: "quantity", dimension: "charge" },
  }),
  seriesCells: recordField({
    schema: z
      .number()
      .int("Series cells are whole: a 36 V pack has 10, 48 V has 13.")
      .min(1)
      .max(60, "A pack has at most 60 cells in series.")
      .optional(),
    label: "Cells in series, or printed volts",
    hint: "13, or 48 V. Volts on the ride say nothing without it.",
    typed: { as: "own" },
  }),
  measuredWh: recordField({
    schema: measured.optional(),
    label: "Bench capacity",
    hint: "Empty when nobody measured it.",
    typed: { as: "quantity", dimension: "energy" },
    under: MEASURED,
  }),
  measuredSdWh: recordField({
    schema: measuredSd.optional(),
    label: "± (95 of 100)",
    typed: { as: "quantity", dimension: "energy", margin: true },
    under: MEASURED,
  }),
  measuredOn: recordField({
    schema: day().optional(),
    label: "Measured on",
    typed: { as: "day" },
    under: MEASURED,
  }),
  resistanceOhm: recordField({
    schema: number(0.001, 5, "A pack's resistance is 0.001 to 5 ohm, for example 0.11.").optional(),
    label: "Resistance, ohm",
    hint: "Such as 0.11. Empty: read off the ride, or assumed.",
    typed: { as: "number" },
    under: MEASURED,
  }),
  /** Own measured rest-volts curve, per cell. */
  ocv: recordField({
    schema: ocvTableSchema.optional(),
    label: "Own rest-volts curve",
    hint: "Percent and volts of one cell: “0 3.0, 50 3.70, 100 4.18”. Empty: the usual one of its chemistry.",
    typed: { as: "own" },
    under: MEASURED,
    wide: true,
  }),
  firstUsedOn: recordField({
    schema: day().optional(),
    label: "First used on",
    typed: { as: "day" },
    under: AGE,
  }),
  cycles: recordField({
    schema: z
      .number()
      .min(0, "Cycles cannot be negative.")
      .max(10_000, "That is over 10,000 cycles: check the figure.")
      .optional(),
    label: "Full cycles so far",
    hint: "Two half charges make one: 61.5 is fine.",
    typed: { as: "number" },
    under: AGE,
  }),
  /** How it is kept: place, charge, cold or warm. */
  storage: recordField({
    schema: words,
    label: "Storage",
    hint: "Where, how full, how warm.",
    typed: { as: "words" },
    under: AGE,
  }),
  lastFullOn: recordField({
    schema: day().optional(),
    label: "Last full on",
    typed: { as: "day" },
    under: AGE,
  }),
  highestTempC: recordField({
    schema: number(-40, 120, "A temperature, for example 41 C or 106 F.").optional(),
    label: "Highest temperature seen",
    typed: { as: "quantity", dimension: "temperature" },
    under: AGE,
  }),
  massKg: recordField({
    schema: number(
      0.2,
      30,
      "A pack weighs 0.2 to 30 kg: check the unit, for example 3.2 kg or 7 lb.",
    ).optional(),
    label: "Weight of the pack",
    typed: { as: "quantity", dimension: "mass" },
    under: AGE,
  }),
  /** What it costs by itself, in minor units of the bike's currency. */
  priceMinor: recordField({
    schema: number(0, 1e9, "A price is a sum of money, for example 749 EUR.").optional(),
    label: "Price by itself",
    hint: "Such as 749. Tells what a mile more costs on a larger pack.",
    typed: { as: "own" },
    under: AGE,
  }),
  /** What it costs more than the pack the bike comes with, where only that is known; minor units of the bike's currency. */
  priceMoreMinor: recordField({
    schema: number(-1e9, 1e9, "A difference in price is a sum of money, for example 160 EUR.").optional(),
    label: "Or costs more than the bike's own pack by",
    hint: "Such as 160; less than nothing where it is cheaper.",
    typed: { as: "own" },
    under: AGE,
  }),
};

/** A pack; one whose energy nobody knows yet is kept as well, and its tests say what to type. */
export const packRecordSchema = z.object({
  ...shapeOf(PACK_FIELDS),
  /** What was measured earlier, by day: a test counts with what was known of the pack nearest before it. */
  measuredBefore: z
    .array(z.object({ on: day(), wh: measured, sdWh: measuredSd.optional() }))
    .max(60, "A pack keeps 60 measurements.")
    .default([]),
  learned: packLearned,
  pencil,
});
export type PackRecord = z.infer<typeof packRecordSchema>;

/** A capacity as it was measured, at 25 C. */
export interface MeasuredCapacity {
  /** ISO day; null for one that nobody dated. */
  readonly on: string | null;
  readonly wh: number;
  readonly sdWh: number | undefined;
}

type Measured = Pick<PackRecord, "measuredWh" | "measuredSdWh" | "measuredOn" | "measuredBefore">;

/** Everything that was measured of a pack, the oldest first; one without a day stands last, as it is now. */
export function measurementsOf({
  measuredWh,
  measuredSdWh,
  measuredOn,
  measuredBefore,
}: Measured): readonly MeasuredCapacity[] {
  const before = measuredBefore
    .map(({ on, wh, sdWh }) => ({ on, wh, sdWh }))
    .sort((a, b) => a.on.localeCompare(b.on));
  return measuredWh === undefined
    ? before
    : [...before, { on: measuredOn ?? null, wh: measuredWh, sdWh: measuredSdWh }];
}

/**
 * The capacity that counts for a test of a day: what was measured last before it, else first after it; one without a day
 * counts where nothing earlier does. Null where nothing was measured.
 *
 * @param day ISO, of the test
 */
export function capacityOn(pack: Measured, day: string): MeasuredCapacity | null {
  const all = measurementsOf(pack);
  const past = all.filter(({ on }) => on !== null && on <= day).at(-1);
  return past ?? all.find(({ on }) => on === null) ?? all[0] ?? null;
}

/**
 * The earlier measurements of a pack once it is changed: one that gives way to another of another day joins them. A day or a
 * figure that is put right by itself is no other measurement.
 *
 * @param before the pack as it was; @param after as it is to be
 */
export function measuredEarlier(before: Measured, after: Measured): PackRecord["measuredBefore"] {
  const { measuredWh: wh, measuredSdWh: sdWh, measuredOn: on, measuredBefore } = before;
  const another = wh !== undefined && on !== undefined && on !== after.measuredOn && wh !== after.measuredWh;
  const all = [
    ...measuredBefore,
    ...after.measuredBefore,
    ...(another ? [{ on, wh, ...(sdWh !== undefined && { sdWh }) }] : []),
  ];
  const byDay = new Map(all.filter((each) => each.on !== after.measuredOn).map((each) => [each.on, each]));
  return [...byDay.values()].sort((a, b) => a.on.localeCompare(b.on));
}
