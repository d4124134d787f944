import { DEFAULTS } from "#core/base";
import type { PlanRecord } from "./record.ts";
import { PLANNED_READINGS, type PlannedReading } from "./schema.ts";
import type { Addition } from "./yieldTypes.ts";

/** Least share of the sd that an addition must take away to be listed. */
const WORTH_SAYING = 0.03;

/** A person's time for each kind of reading on a ride, min. */
export const MINUTES: Readonly<Record<PlannedReading, number>> = {
  percent: 1,
  bars: 1,
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

/** Additions that take something off an sd, by what each minute gains. */
export function worthwhile(
  now: number,
  found: readonly { readonly what: string; readonly minutes: number; readonly sdLeft: number | null }[],
): readonly Addition[] {
  return found
    .flatMap(({ what, minutes, sdLeft }) =>
      sdLeft !== null && sdLeft < now * (1 - WORTH_SAYING)
        ? [{ what, minutes, sdLeft, gainPerMinute: (now - sdLeft) / Math.max(1, minutes) }]
        : [],
    )
    .sort((a, b) => b.gainPerMinute - a.gainPerMinute);
}
