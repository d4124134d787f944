import { z } from "zod";
import { packSchema } from "#core/pack";
import { hasKey, schemaBy } from "#core/problems";
import { readingSchema } from "#core/readings";

const milesSchema = z
  .record(
    z.string(),
    z
      .number({ error: "Miles must be a number." })
      .min(0, "Miles cannot be negative: give the distance ridden."),
  )
  .refine((miles) => Object.keys(miles).length > 0, "A leg names at least one cell with its miles.");

const legSchema = z.object({
  /** Miles ridden in each cell (level or throttle x ground) between this mark and the next. */
  miles: milesSchema,
  gainM: z.number().min(0, "Metres climbed cannot be negative.").optional(),
  lossM: z.number().min(0, "Metres descended cannot be negative: give them as a positive number.").optional(),
  /** Name of a section ridden more than once, for paired runs. */
  section: z.string().optional(),
});

const rideSchema = z.object({
  legs: z
    .array(legSchema)
    .min(1, "A ride needs at least one leg between two marks.")
    .max(5000, "A ride holds at most 5000 legs."),
  readings: z.array(readingSchema),
});

export const gaugeSchema = z.object({
  percentStep: z.number().positive().max(50).default(1),
  counts: z.enum(["charge", "energy"]).default("charge"),
  bars: z.number().int().min(0).max(40).default(0),
});

const common = {
  pack: packSchema,
  gauge: gaugeSchema.default({ percentStep: 1, counts: "charge", bars: 0 }),
  /** Bike, rider and load, kg; matters only where climb is given. */
  massKg: z.number().positive("Mass must be more than zero.").optional(),
  cells: z.array(z.string()).min(1, "Name at least one cell."),
};

const severalRides = z.object({ ...common, rides: z.array(rideSchema).min(1, "Give at least one ride.") });
const oneRide = z
  .object({ ...common, ...rideSchema.shape })
  .transform(({ legs, readings, ...rest }) => ({ ...rest, rides: [{ legs, readings }] }));

/** Marks are numbered from 0; leg i joins mark i to i + 1. One ride, or several that share pack and gauge. */
export const ledgerInputSchema = schemaBy<z.infer<typeof severalRides>>((value) =>
  hasKey(value, "rides") ? severalRides : oneRide,
);

export type LedgerInput = z.infer<typeof severalRides>;
export type LedgerRide = LedgerInput["rides"][number];
