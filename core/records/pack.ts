import { z } from "zod";
import { chemistrySchema, ocvTableSchema } from "#core/battery";
import { day, named, number, pencil, words } from "./fields.ts";

const measured = number(20, 10_000, "A measured capacity is 20 to 10,000 Wh.");
const measuredSd = number(0, 1000, "The doubt of the measurement is in Wh, for example 9.");

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
    measuredWh: measured.optional(),
    measuredSdWh: measuredSd.optional(),
    measuredOn: day().optional(),
    /** What was measured earlier, by day: a test counts with what was known of the pack nearest before it. */
    measuredBefore: z
      .array(z.object({ on: day(), wh: measured, sdWh: measuredSd.optional() }))
      .max(60, "A pack keeps 60 measurements.")
      .default([]),
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
