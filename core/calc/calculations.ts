import { z } from "zod";
import { climbOf, pairedDifference, spot } from "#core/compare";
import { odometerFactor } from "#core/ride/distance";
import { answerLedger, ledgerInputSchema } from "#core/estimation";
import {
  there,
  nth,
  ASSUMPTION_NAMES,
  assuming,
  type AssumptionName,
  err,
  errs,
  fromIssues,
  ok,
  hasKey,
  schemaBy,
  type Result,
} from "#core/base";
import {
  chemistrySchema,
  curveOf,
  defaultResistance,
  fractionFromVolts,
  packSchema,
  resistanceFromPairs,
  straightLineCharge,
  usableEnergy,
} from "#core/battery";
import { plainFromAmps, plainFromPercent, plainFromVolts } from "#core/analysis/plain";
import { auditClaim, fadeOnset } from "#core/analysis/projection";
import { conditionsFor, courseEnergy, normalise, REFERENCES, type CourseConditions } from "#core/bike";
import { SPOKEN_FORMATS } from "#core/io";
import { readNarration } from "#core/narration";
import { conditionsSchema } from "./conditions.ts";

interface Calculation {
  run(input: unknown): Result<unknown>;
}

/** Defaults set otherwise for one calculation, by their names. */
const assumeSchema = z.object({
  assume: z
    .partialRecord(z.enum(ASSUMPTION_NAMES as [AssumptionName, ...AssumptionName[]]), z.number(), {
      error: (issue) =>
        "keys" in issue
          ? `“${String(issue["keys"])}” is no assumption: give numbers by their names, for example {"labelDerate": 0.9}.`
          : 'Give assumptions as numbers by their names, for example {"labelDerate": 0.9}.',
    })
    .default({}),
});

function calculation<Schema extends z.ZodType>(
  schema: Schema,
  run: (input: z.infer<Schema>) => Result<unknown>,
): Calculation {
  return {
    run: (input) => {
      const told = hasKey(input, "assume") ? assumeSchema.safeParse(input) : null;
      if (told?.error) return errs(fromIssues(told.error.issues));
      return assuming(told?.data.assume ?? {}, () => {
        const parsed = schema.safeParse(input);
        return parsed.success ? run(parsed.data) : errs(fromIssues(parsed.error.issues));
      });
    },
  };
}

const number = z.number();
const percent = number.min(0, "Percent runs from 0 to 100.").max(100, "Percent runs from 0 to 100.");
const positive = number.positive("This must be more than zero.");
const miles = number.min(0, "Miles cannot be negative.");
const places = z.array(miles).min(1, "Give at least one interval.");

const atCharge = z.object({
  chemistry: chemistrySchema,
  q: number.min(0, "q runs from 0 to 1.").max(1, "q runs from 0 to 1."),
});
const atVolts = z.object({
  chemistry: chemistrySchema,
  cellVolts: positive,
  cellVoltsSd: number.min(0, "An sd cannot be negative.").optional(),
});

const byPairs = z.object({
  pairs: z
    .array(z.object({ restVolts: positive, loadVolts: positive, amps: positive }))
    .min(1, "Give at least one pair of readings."),
});
const byDefault = z.object({ seriesCells: z.number().int().min(1), ampHours: positive.optional() });

const fraction = positive.max(1, "An efficiency is above 0 and at most 1.");
const roadBikeSchema = z
  .object({
    cdA: positive,
    crr: positive,
    etaD: fraction,
    etaM: fraction,
    assistToMps: positive,
  })
  .partial();

/** A reference by name, or conditions of one's own; a mass left out is the bike's with what the reference carries. */
const referenceSchema = z.union([
  z.enum(REFERENCES.map(({ name }) => name) as [string, ...string[]]),
  conditionsSchema.partial({ massKg: true }),
]);
const HOUSE = nth(REFERENCES, 0);

function referenceFor(
  reference: z.infer<typeof referenceSchema>,
  bikeMassKg: number | undefined,
  throttle: boolean,
): Result<CourseConditions> {
  const named =
    typeof reference === "string" ? there(REFERENCES.find(({ name }) => name === reference)) : null;
  if (!named && typeof reference === "object" && reference.massKg !== undefined)
    return ok({ ...reference, massKg: reference.massKg });
  if (bikeMassKg === undefined)
    return err("no-mass", "bikeMassKg", "Type the bike's mass in kg, or give the reference its massKg.");
  return ok(
    named
      ? conditionsFor(named, bikeMassKg, throttle)
      : { ...(reference as CourseConditions), massKg: bikeMassKg + HOUSE.carriedKg },
  );
}

const narrationSchema = z.object({
  text: z.string({ error: "Give what was said as text." }),
  format: z.enum(SPOKEN_FORMATS, { error: `The format is one of ${SPOKEN_FORMATS.join(", ")}.` }).optional(),
  unit: z.enum(["mi", "km"], { error: "The unit of the ride is mi or km." }).nullish(),
});

const runSchema = z.object({ startPercent: percent, endPercent: percent, distanceMi: positive });

/** Every single calculation by name; input and result keys are those of docs/formats/calc.md. */
export const CALCULATIONS: Readonly<Record<string, Calculation>> = {
  openCircuit: calculation(
    schemaBy<z.infer<typeof atCharge> | z.infer<typeof atVolts>>((value) =>
      hasKey(value, "cellVolts") ? atVolts : atCharge,
    ),
    (input) => {
      const curve = curveOf(input);
      if ("q" in input)
        return ok({ ocvV: curve.voltsAt(input.q), phiV: curve.phi(input.q), f: curve.fractionAt(input.q) });
      const { q, f, sd } = fractionFromVolts(curve, input.cellVolts, input.cellVoltsSd ?? 0);
      return ok({ q, f, ...(input.cellVoltsSd === undefined ? {} : { fSd: sd }) });
    },
  ),
  usableEnergy: calculation(packSchema, (pack) => {
    const usable = usableEnergy(pack);
    return usable.ok
      ? ok({ meanWh: usable.value.mean, sdWh: usable.value.sd, labelWh: usable.value.labelWh })
      : usable;
  }),
  plain: calculation(
    z.object({ startPercent: percent, endPercent: percent, labelWh: positive, distanceMi: miles }),
    plainFromPercent,
  ),
  plainFromVolts: calculation(
    z.object({
      chemistry: chemistrySchema,
      seriesCells: z.number().int().min(1),
      startVolts: positive,
      endVolts: positive,
      labelWh: positive,
      distanceMi: miles,
    }),
    plainFromVolts,
  ),
  plainFromAmps: calculation(
    z.object({ ampHours: positive, speedMph: positive, amps: positive, packVolts: positive }),
    plainFromAmps,
  ),
  odometerFactor: calculation(
    z.object({ gpsMi: places, odoMi: places, wheelCircumferenceMm: positive.optional() }),
    ({ gpsMi, odoMi, wheelCircumferenceMm }) => odometerFactor(gpsMi, odoMi, wheelCircumferenceMm),
  ),
  straightLineCharge: calculation(
    z
      .object({ packVolts: positive, cutOffVolts: positive, fullVolts: positive })
      .refine(({ cutOffVolts, fullVolts }) => fullVolts > cutOffVolts, {
        path: ["fullVolts"],
        message: "Full volts must lie above the cut-off.",
      }),
    ({ packVolts, cutOffVolts, fullVolts }) =>
      ok({ q: straightLineCharge(packVolts, cutOffVolts, fullVolts) }),
  ),
  resistance: calculation(
    schemaBy<z.infer<typeof byPairs> | z.infer<typeof byDefault>>((value) =>
      hasKey(value, "pairs") ? byPairs : byDefault,
    ),
    (input) => {
      if ("seriesCells" in input) return ok({ ohm: defaultResistance(input.seriesCells, input.ampHours) });
      const found = resistanceFromPairs(input.pairs);
      return found.ok ? ok({ ohm: found.value }) : found;
    },
  ),
  courseEnergy: calculation(
    z.object({ conditions: conditionsSchema, bike: roadBikeSchema.default({}) }),
    ({ conditions, bike }) => ok({ whPerMi: courseEnergy(conditions, bike) }),
  ),
  normalise: calculation(
    z.object({
      measuredWhPerMi: positive,
      test: conditionsSchema.partial({ massKg: true }),
      reference: referenceSchema,
      bikeMassKg: positive.optional(),
      bike: roadBikeSchema.default({}),
      throttle: z.boolean().default(false),
    }),
    ({ measuredWhPerMi, test, reference, bikeMassKg, bike, throttle }) => {
      const to = referenceFor(reference, bikeMassKg, throttle);
      if (!to.ok) return to;
      const { massKg = to.value.massKg } = test;
      return normalise(measuredWhPerMi, { ...test, massKg }, to.value, bike);
    },
  ),
  claim: calculation(
    z.object({
      labelWh: positive,
      claimMi: positive,
      measuredWhPerMi: positive,
      reference: referenceSchema,
      bikeMassKg: positive.optional(),
      bike: roadBikeSchema.default({}),
      throttle: z.boolean().default(false),
      lambda: positive.default(1),
    }),
    ({ labelWh, claimMi, measuredWhPerMi, reference, bikeMassKg, bike, throttle, lambda }) => {
      const to = referenceFor(reference, bikeMassKg, throttle);
      return to.ok ? auditClaim(labelWh, claimMi, measuredWhPerMi, to.value, bike, lambda) : to;
    },
  ),
  sweep: calculation(
    z.object({
      rows: z.array(
        z.object({
          speedMph: positive,
          ampsLow: number,
          ampsHigh: number,
          packVolts: positive.optional(),
        }),
      ),
      pack: z.object({ ampHours: positive, labelWh: positive, nominalVolts: positive }),
    }),
    ({ rows, pack }) => spot(rows, pack),
  ),
  pairedDifference: calculation(
    z.object({
      labelWh: positive,
      percentStep: positive,
      pairs: z.array(z.object({ A: runSchema, B: runSchema })),
    }),
    ({ labelWh, percentStep, pairs }) => pairedDifference(labelWh, percentStep, pairs),
  ),
  fade: calculation(
    z.object({ distanceMi: z.array(number), heldSpeedMph: z.array(number), displayStepMph: positive }),
    ({ distanceMi, heldSpeedMph, displayStepMph }) => {
      const found = fadeOnset(distanceMi, heldSpeedMph, displayStepMph);
      if (!found.ok) return found;
      const { onset, ...rest } = found.value;
      return ok({ onsetMi: onset, ...rest });
    },
  ),
  climb: calculation(
    z.object({ lengthMi: positive, gainM: positive, timeS: positive, energyWh: number }),
    climbOf,
  ),
  ledger: calculation(ledgerInputSchema, answerLedger),
  narration: calculation(narrationSchema, ({ text, format, unit }) => {
    const read = readNarration(text, { ...(format && { format }), ...(unit && { unit }) });
    if (!read.ok) return read;
    const { spoken: _, ...narration } = read.value;
    return ok(narration);
  }),
};
