import { z } from "zod";

export const chemistrySchema = z.enum(["NMC", "LFP"], { error: "Chemistry is NMC or LFP." });

const positive = (what: string) =>
  z.number({ error: `${what} must be a number.` }).positive(`${what} must be more than zero.`);

export const ocvTableSchema = z
  .object({ q: z.array(z.number().min(0).max(1)).min(2), volts: z.array(z.number().positive()).min(2) })
  .refine(({ q, volts }) => q.length === volts.length, "The curve needs one volts figure for each charge.")
  .refine(
    ({ q, volts }) =>
      [q, volts].every((row) => row.every((value, i) => i === 0 || value > (row[i - 1] ?? 0))),
    "The curve must rise: charges and volts in increasing order.",
  )
  .refine(({ q }) => q[0] === 0 && q.at(-1) === 1, "The curve must run from charge 0 to charge 1.");

const onePack = z.object({
  chemistry: chemistrySchema,
  /** Printed energy; without it nominal volts x Ah. */
  labelWh: positive("Label energy").optional(),
  ampHours: positive("Amp-hours").optional(),
  seriesCells: z.number().int("Series cells must be a whole number.").min(1).max(200).optional(),
  /** Pack temperature on the test. */
  packTempC: z
    .number()
    .min(-40, "A pack colder than -40 C cannot be used.")
    .max(80, "A pack hotter than 80 C must not be used.")
    .optional(),
  /** Bench or in-ride capacity at `measuredTempC` (25 C unless said). */
  measuredWh: positive("Measured energy").optional(),
  measuredSdWh: z.number().min(0).optional(),
  measuredTempC: z.number().optional(),
  /** Own measured curve. */
  ocv: ocvTableSchema.optional(),
  resistanceOhm: positive("Resistance").optional(),
  /** Years since its first use, where that is known; 0 of a new one. */
  ageYears: z
    .number()
    .min(0, "An age in years is zero or more.")
    .max(60, "A pack of over 60 years?")
    .optional(),
  cycles: z.number().min(0, "Cycles cannot be negative.").max(20_000).optional(),
});

/** A pack as its label and its measurements tell it, with the packs that run beside it in parallel. Wh, Ah, degrees C. */
export const packSchema = onePack
  .extend({ beside: z.array(onePack).max(3, "At most three packs run beside the first.").optional() })
  .superRefine(({ chemistry, seriesCells, beside = [] }, context) => {
    beside.forEach((other, i) => {
      if (other.chemistry !== chemistry || (other.seriesCells ?? seriesCells) !== seriesCells)
        context.addIssue({
          code: "custom",
          path: ["beside", i],
          message: "Packs side by side need the same chemistry and the same cells in series.",
        });
    });
  });

export type Pack = z.infer<typeof packSchema>;
/** One pack by itself. */
export type SinglePack = z.infer<typeof onePack>;
