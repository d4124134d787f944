import { ASSUMED } from "#core/assumptions";
import { settingOf, type LedgerInput } from "#core/ledger";
import type { Course, LoggedReading } from "#core/log";
import { markOf, rowOf } from "#core/readings";
import type { DrawnReading } from "./types.ts";
import { readingText } from "./words.ts";

/** Every reading as the strip draws it: where it alone would put the curve, with its own error. */
export function drawn(
  course: Course,
  input: LedgerInput,
  readings: readonly LoggedReading[],
  standings: ReadonlyMap<LoggedReading, number>,
): DrawnReading[] {
  const setting = settingOf(input);
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
      (row.smooth ? ASSUMED.smoothSd ** 2 : 0);
    const mark = markOf(reading);
    return {
      rootId,
      field,
      kind: reading.kind,
      mark,
      distanceM: course.marks[mark]!.distanceM,
      says: row.energy ? null : { mean: known, sd: Math.sqrt(variance) },
      struck,
      standing: standings.get(logged) ?? null,
      text: readingText(reading),
    };
  });
}
