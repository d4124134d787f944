import { hasKey, METRES_PER_MILE, schemaBy } from "#core/base";
import { z } from "zod";
import { packSchema } from "#core/battery";
import { readingSchema } from "#core/battery/readings";

const legShape = {
  gainM: z.number().min(0, "Metres climbed cannot be negative.").optional(),
  lossM: z.number().min(0, "Metres descended cannot be negative: give them as a positive number.").optional(),
  /** Name of a section ridden more than once, for paired runs. */
  section: z.string().optional(),
  /** The pack was charged here instead of ridden: the fraction used starts anew. */
  charged: z.boolean().optional(),
};

/** Distance ridden in each cell (level or throttle x ground) between this mark and the next, m. */
const legSchema = z.object({ ...legShape, metres: z.record(z.string(), z.number().min(0)) });

const rideShape = { legs: z.array(legSchema), readings: z.array(readingSchema) };

export const gaugeSchema = z.object({
  percentStep: z.number().positive().max(50).default(1),
  counts: z.enum(["charge", "energy", "volts"]).default("charge"),
  bars: z.number().int().min(0).max(40).default(0),
});
export type Gauge = z.infer<typeof gaugeSchema>;
const PLAIN_GAUGE: Gauge = { percentStep: 1, counts: "charge", bars: 0 };

/** What other ledgers found of a gauge's point (a fraction used) or of a pack (Wh, as on this test). */
const knownShape = z.object({
  of: z.enum(["gauge", "pack"]),
  name: z.string(),
  /** "bar 3", "last bar", "low power"; of a pack nothing. */
  point: z.string().default(""),
  mean: z.number(),
  sd: z.number().positive(),
});

const common = {
  known: z.array(knownShape).optional(),
  /** Bike, rider and load, kg; matters only where climb is given. */
  massKg: z.number().positive("Mass must be more than zero.").optional(),
  cells: z.array(z.string()).min(1, "Name at least one cell."),
};

/** The names under which a single pack and gauge stand. */
const ONLY = "only";

const named = z
  .object({
    ...common,
    packs: z.record(z.string(), packSchema),
    gauges: z.record(z.string(), gaugeSchema),
    rides: z
      .array(
        z.object({
          ...rideShape,
          pack: z.string().default(ONLY),
          gauge: z.string().default(ONLY),
          massKg: common.massKg,
        }),
      )
      .min(1, "Give at least one ride."),
  })
  .superRefine(({ packs, gauges, rides }, context) => {
    rides.forEach((ride, r) => {
      for (const [key, known] of [
        ["pack", packs],
        ["gauge", gauges],
      ] as const)
        // prettier-ignore
        if (!Object.hasOwn(known, ride[key]))
          context.addIssue({
            code: "custom",
            path: ["rides", r, key],
            message: `There is no ${key} “${ride[key]}”: it is one of ${Object.keys(known).join(", ")}.`,
          });
    });
  });
export type LedgerInput = z.infer<typeof named>;
export type LedgerRide = LedgerInput["rides"][number];

/** A leg as it is written: miles by cell. */
const writtenLeg = z
  .object({
    ...legShape,
    miles: z
      .record(
        z.string(),
        z
          .number({ error: "Miles must be a number." })
          .min(0, "Miles cannot be negative: give the distance ridden."),
      )
      .default({}),
  })
  .refine(({ miles, charged }) => charged === true || Object.keys(miles).length > 0, {
    path: ["miles"],
    message: "A leg names at least one cell with its miles.",
  })
  .transform(({ miles, ...leg }) => ({
    ...leg,
    metres: Object.fromEntries(Object.entries(miles).map(([cell, mi]) => [cell, mi * METRES_PER_MILE])),
  }));

/** A reading as it is written: the doubt of its place in miles. */
const writtenReading = z.preprocess(
  (value) =>
    typeof value === "object" && value !== null && "placeSdMi" in value && typeof value.placeSdMi === "number"
      ? { ...value, placeSdM: value.placeSdMi * METRES_PER_MILE }
      : value,
  readingSchema,
);

const writtenRide = {
  legs: z
    .array(writtenLeg)
    .min(1, "A ride needs at least one leg between two marks.")
    .max(20_000, "A ride holds at most 20,000 legs."),
  readings: z.array(writtenReading),
};

const shared = { ...common, pack: packSchema.optional(), gauge: gaugeSchema.optional() };
const packsShape = {
  packs: z.record(z.string(), packSchema).optional(),
  gauges: z.record(z.string(), gaugeSchema).optional(),
};
const ridesInput = z.object({
  ...shared,
  ...packsShape,
  rides: z
    .array(
      z.object({
        ...writtenRide,
        pack: z.string().optional(),
        gauge: z.string().optional(),
        massKg: common.massKg,
      }),
    )
    .min(1, "Give at least one ride."),
});
const oneRideInput = z.object({ ...shared, ...writtenRide });

/** What a person may write, brought to packs, gauges and rides by name. */
function gathered({
  pack,
  gauge,
  packs,
  gauges,
  ...rest
}: z.infer<typeof ridesInput>): z.input<typeof named> {
  return {
    ...rest,
    packs: { ...packs, ...(pack && { [ONLY]: pack }) },
    gauges: { ...gauges, [ONLY]: gauge ?? PLAIN_GAUGE },
  };
}

const needsPack = (value: { readonly pack?: unknown; readonly packs?: unknown }) =>
  value.pack !== undefined || value.packs !== undefined;
const NO_PACK = { path: ["pack"], message: "Give the pack: its chemistry and its label." };

const several = ridesInput.refine(needsPack, NO_PACK).transform(gathered).pipe(named);
const one = oneRideInput
  .refine(needsPack, NO_PACK)
  .transform(({ legs, readings, ...rest }) => gathered({ ...rest, rides: [{ legs, readings }] }))
  .pipe(named);

/**
 * A ledger as it is written, in miles; what it becomes is in metres. Marks are numbered from 0; leg i joins mark i to i + 1. One ride, or several that share a pack, a gauge or a meter;
 * `packs` and `gauges` by name where rides differ in them.
 */
export const ledgerInputSchema = schemaBy<LedgerInput>((value) => (hasKey(value, "rides") ? several : one));
