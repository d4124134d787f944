import { z } from "zod";
import type { Problem } from "#core/problems";
import { bars, barLost, lastBarBlinking } from "./bars.ts";
import { cutOff } from "./cutOff.ts";
import { chargeCounter, energyCounter, telemetry, wallRefill } from "./energy.ts";
import { fullStart } from "./fullStart.ts";
import type { ReadingKind } from "./kind.ts";
import { lowPower } from "./lowPower.ts";
import { percent } from "./percent.ts";
import type { Row, Setting } from "./row.ts";
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
  cutOff,
  energyCounter,
  chargeCounter,
  telemetry,
  wallRefill,
};

export type ReadingKindName = keyof typeof KINDS;

export const readingSchema = z.discriminatedUnion(
  "kind",
  [
    fullStart.schema,
    percent.schema,
    restVolts.schema,
    loadedVolts.schema,
    bars.schema,
    barLost.schema,
    lastBarBlinking.schema,
    lowPower.schema,
    cutOff.schema,
    energyCounter.schema,
    chargeCounter.schema,
    telemetry.schema,
    wallRefill.schema,
  ],
  { error: `A reading's kind is one of ${Object.keys(KINDS).join(", ")}.` },
);

export type Reading = z.infer<typeof readingSchema>;

/** The registry's entry for a reading: its own kind, so the reading's type fits. */
function kindOf(reading: Reading): ReadingKind<z.ZodType<Reading>> {
  return KINDS[reading.kind] as unknown as ReadingKind<z.ZodType<Reading>>;
}

/** What a person calls the reading's kind. */
export function readingName(kind: ReadingKindName): string {
  return KINDS[kind].name;
}

/** What is impossible about a reading on this bike; empty when it can be. */
export function checkReading(reading: Reading, setting: Setting): readonly Problem[] {
  return kindOf(reading).check(reading, setting);
}

/** What a reading says, as a row of the ledger. Check it first. */
export function rowOf(reading: Reading, setting: Setting): Row {
  return kindOf(reading).says(reading, setting);
}

/** The mark a reading stands at: the last one, for those that span two. */
export function markOf(reading: Reading): number {
  return "toMark" in reading ? reading.toMark : reading.mark;
}
