import { text } from "#core/base";
import { z } from "zod";
import { day } from "./fields.ts";

/** What one test by itself showed of its bike's display: where a point of the gauge lies, or what its distance is off by. */
const shownSchema = z.object({
  testId: text().max(60),
  /** "bar 3", "last bar" and "low power" as fractions used, or "display": the recorder's distance over its own. */
  point: text().max(40),
  mean: z.number(),
  sd: z.number().positive(),
});
export type ShownOfDisplay = z.infer<typeof shownSchema>;

/** Of the bike, what its tests showed when somebody last took it over: each test by itself, so that none counts for itself. */
export const displayLearned = z.array(shownSchema).max(4000).default([]);

const heldSchema = z.object({
  testId: text().max(60),
  on: day(),
  /** On a ride at 25 C, of this test alone. */
  wh: z.number().positive(),
  sdWh: z.number().positive(),
});
export type HeldByPack = z.infer<typeof heldSchema>;

/** The same of a pack: what its rides measured. */
export const packLearned = z.array(heldSchema).max(1000).default([]);

/** What other tests showed, as the ledger of one test takes it. */
export const knownSchema = z.object({
  /** Points of the gauge, fractions used. */
  points: z
    .array(
      z.object({ point: text().max(40), mean: z.number(), sd: z.number().positive(), tests: z.number() }),
    )
    .default([]),
  /** What the pack gives on a ride at 25 C, Wh. */
  capacity: z
    .object({ mean: z.number().positive(), sd: z.number().positive(), tests: z.number() })
    .nullable()
    .default(null),
});
export type Known = z.infer<typeof knownSchema>;
