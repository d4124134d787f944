import { num, nth, DEFAULTS, type Estimate } from "#core/base";
import { settingOf, type Influence, type LedgerInput } from "#core/estimation";
import type { Timeline, LoggedReading } from "#core/ride/log";
import { markOf, readingText, rowOf } from "#core/battery/readings";
import type { DrawnReading } from "./types.ts";

/**
 * Every reading as the strip draws it: where it alone would put the curve, with its own error, and how it bears on the
 * answer.
 *
 * @param used fraction used at each mark in the answer; @param bearing of each counted reading; @param perMetre brings the ledger's Wh per metre to the answer's
 */
export function plottedReadings(
  course: Timeline,
  input: LedgerInput,
  readings: readonly LoggedReading[],
  used: Float64Array,
  bearing: ReadonlyMap<LoggedReading, Influence>,
  perMetre: (whPerM: Estimate) => Estimate,
): DrawnReading[] {
  const setting = settingOf(input, nth(input.rides, 0));
  return readings.map((logged) => {
    const { reading, rootId, field, struck } = logged;
    const row = rowOf(reading, setting);
    const known = row.unknowns.reduce(
      (sum, { unknown, coefficient }) => sum - coefficient * unknown.mean,
      row.value,
    );
    const variance =
      row.errors.reduce((sum, { sd }) => sum + sd * sd, 0) +
      row.unknowns.reduce((sum, { unknown, coefficient }) => sum + (coefficient * unknown.sd) ** 2, 0) +
      (row.smooth ? DEFAULTS.smoothSd ** 2 : 0);
    const mark = markOf(reading);
    const bears = bearing.get(logged);
    return {
      rootId,
      field,
      kind: reading.kind,
      mark,
      distanceM: nth(course.marks, mark).distanceM,
      says: row.energy ? null : { mean: known, sd: Math.sqrt(variance) },
      struck,
      standing: bears?.standing ?? null,
      text: readingText(reading),
      row: bears
        ? {
            inWh: row.energy !== undefined,
            says: row.energy ? bears.says : known,
            sd: bears.sd,
            answer: row.energy ? bears.answer : num(used, mark),
            share: bears.share,
            without: perMetre(bears.without),
          }
        : null,
    };
  });
}
