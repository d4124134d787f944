import { DEFAULTS } from "#core/base";
import type { PlanRecord } from "./record.ts";
import { PLANNED_READINGS, type PlannedReading } from "./method.ts";

/** A person's time for each kind of reading on a ride, min. */
export const MINUTES: Readonly<Record<PlannedReading, number>> = {
  percent: DEFAULTS.typeMinutes,
  bars: DEFAULTS.typeMinutes,
  "rest volts": 2 * DEFAULTS.restMinutes,
  "energy counter": DEFAULTS.meterMinutes,
  "wall meter": DEFAULTS.refillMinutes,
};
/** What taking it as well is called. */
export const WHAT: Readonly<Record<PlannedReading, string>> = {
  percent: "read the percent as well",
  bars: "note each bar lost as well",
  "rest volts": "let it stand and read rest volts at the start and the end",
  "energy counter": "put an energy counter on",
  "wall meter": "read a wall meter over the next full charge",
};

/** Readings the bike can give, of those it does not take yet. */
export function possibleReadings({ bike, pack, plan }: PlanRecord): readonly PlannedReading[] {
  return PLANNED_READINGS.filter(
    (taken) =>
      !plan.method.taken.includes(taken) &&
      !(taken === "percent" && bike.percentStep === 0) &&
      !(taken === "bars" && bike.bars === 0) &&
      !(taken === "rest volts" && pack.seriesCells === undefined),
  );
}
