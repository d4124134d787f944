import type { z } from "zod";
import type { Problem } from "#core/base";
import type { Row, Setting } from "./row.ts";

/** Kinds of evidence that could have been all there was, in the order they are shown. */
export const EVIDENCE = ["percent", "volts", "bars", "counter", "telemetry", "refill", "runDown"] as const;
export type Evidence = (typeof EVIDENCE)[number];

/** A kind of reading: its input, what is impossible about it, and what it says. One file each. */
export interface ReadingKind<Schema extends z.ZodType> {
  readonly schema: Schema;
  /** What a person calls it: "percent", "bar lost". */
  readonly name: string;
  /** How evidence is counted in a sentence: "one percent", or 4 "percents". */
  readonly counted: readonly [one: string, many: string];
  /** The evidence it is part of when each kind stands alone; null for a full start, from which others count. */
  readonly evidence: Evidence | null;
  /** The likeliest slip when one stands off from the rest: "a typing slip?" */
  readonly ifOff: string;
  /** One reading in a few words: "62 %", "48.6 V at rest". */
  text(reading: z.infer<Schema>): string;
  /** Sentences for values the bike or pack cannot show. */
  check(reading: z.infer<Schema>, setting: Setting): readonly Problem[];
  says(reading: z.infer<Schema>, setting: Setting): Row;
}

/** Keeps the schema's type while the object is written. */
export function readingKind<Schema extends z.ZodType>(kind: ReadingKind<Schema>): ReadingKind<Schema> {
  return kind;
}

/** One problem as a list, or none. */
export function problemIf(wrong: boolean, code: string, path: string, sentence: string): readonly Problem[] {
  return wrong ? [{ code, path, sentence }] : [];
}
