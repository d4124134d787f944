import { z } from "zod";
import type { Problem } from "#core/base";
import { bars, barLost, lastBarBlinking } from "./bars.ts";
import { chargeCounter } from "./chargeCounter.ts";
import { cutOff } from "./cutOff.ts";
import { crawl, gaugeZero } from "./ends.ts";
import { energyCounter } from "./energyCounter.ts";
import { fullStart } from "./fullStart.ts";
import type { Evidence, ReadingKind } from "./kind.ts";
import { lowPower } from "./lowPower.ts";
import { percent } from "./percent.ts";
import { wallCharge, wallRefill } from "./wall.ts";
import type { Row, Setting } from "./row.ts";
import { telemetry } from "./telemetry.ts";
import { loadedVolts, restVolts } from "./volts.ts";

/** Every kind of reading, by name. A new kind is its own file and one line here. */
const KINDS = {
  fullStart,
  percent,
  restVolts,
  loadedVolts,
  bars,
  barLost,
  lastBarBlinking,
  lowPower,
  crawl,
  gaugeZero,
  cutOff,
  energyCounter,
  chargeCounter,
  telemetry,
  wallRefill,
  wallCharge,
};

export type ReadingKindName = keyof typeof KINDS;
type Kind = (typeof KINDS)[ReadingKindName];
type KindSchema = Kind["schema"];

export const readingSchema = z.discriminatedUnion(
  "kind",
  Object.values(KINDS).map(({ schema }) => schema) as unknown as [KindSchema, ...KindSchema[]],
  { error: `A reading's kind is one of ${Object.keys(KINDS).join(", ")}.` },
);

export type Reading = z.infer<typeof readingSchema>;

/** The registry's entry for a reading: its own kind, so the reading's type fits. */
function kindOf(reading: Reading): ReadingKind<z.ZodType<Reading>> {
  return KINDS[reading.kind] as unknown as ReadingKind<z.ZodType<Reading>>;
}

/**
 * What a person calls the reading's kind.
 *
 * @example readingName("restVolts") === "rest volts"
 */
export function readingName(kind: ReadingKindName): string {
  return KINDS[kind].name;
}

/**
 * One reading in a few words: "62 %", "bar 4 lost".
 *
 * @example readingText({ kind: "percent", mark: 2, percent: 62 }) === "62 %"
 */
export function readingText(reading: Reading): string {
  return kindOf(reading).text(reading);
}

/** The evidence a kind is part of when each stands alone; null for a full start. */
export function evidenceOf(kind: ReadingKindName): Evidence | null {
  return KINDS[kind].evidence;
}

/**
 * The likeliest slip when a reading stands off from the rest.
 *
 * @example likelySlip("percent") === "a typing slip?"
 */
export function likelySlip(kind: ReadingKindName): string {
  return KINDS[kind].ifOff;
}

/**
 * So many of a kind, in words: `countedText("percent", 4) === "4 percent readings"`.
 *
 * @example countedText("percent", 6) === "6 percent readings"
 */
export function countedText(kind: ReadingKindName, count: number): string {
  const [one, many] = KINDS[kind].counted;
  return count === 1 ? one : `${count} ${many}`;
}

/** What is impossible about a reading on this bike; empty when it can be. */
export function checkReading(reading: Reading, setting: Setting): readonly Problem[] {
  return kindOf(reading).check(reading, setting);
}

/** What a reading says, as a row of the ledger. Check it first. */
export function rowOf(reading: Reading, setting: Setting): Row {
  return kindOf(reading).says(reading, setting);
}

/**
 * The mark a reading stands at: the last one, for those that span two.
 *
 * @example markOf({ kind: "energyCounter", fromMark: 0, toMark: 4, wh: 260 }) === 4
 */
export function markOf(reading: Reading): number {
  return "toMark" in reading ? reading.toMark : reading.mark;
}
