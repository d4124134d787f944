import { nth, lastOf, meanIfAny } from "#core/base";
import type { LaidRun, SideRun } from "./runs.ts";

/** What the log noted of some stretches besides the pack: each may explain part of a difference. Null where nobody noted it. */
export interface SideNotes {
  /** Mean speed by the clock of the check-ins, stops within it, m/s. */
  readonly speedMps: number | null;
  /** Mean heart rate, beats a minute. */
  readonly bpm: number | null;
  /** Mean air temperature, °C. */
  readonly airTempC: number | null;
}

/** What was noted on some stretches of the runs: speed over those whose ends have times, the rest by its check-ins. */
export function sideNotes(runs: readonly LaidRun[], stretches: readonly SideRun[]): SideNotes {
  const within = stretches.map(({ ride, fromMark, toMark }) =>
    nth(runs, ride).laid.course.marks.slice(fromMark, toMark + 1),
  );
  const timed = within.flatMap((marks) => {
    const [first, last] = [nth(marks, 0), lastOf(marks)];
    const seconds = first.timeS === null || last.timeS === null ? 0 : last.timeS - first.timeS;
    return seconds > 0 ? [{ seconds, metres: last.distanceM - first.distanceM }] : [];
  });
  const seconds = timed.reduce((sum, each) => sum + each.seconds, 0);
  const noted = (field: "bpm" | "airTempC") =>
    meanIfAny(
      // What the first mark notes belongs to the way before it.
      within.flatMap((marks) =>
        marks.slice(1).flatMap(({ entries }) =>
          entries.flatMap(({ struck, body }) => {
            const value = field in body ? (body as Partial<Record<typeof field, number>>)[field] : undefined;
            return struck || value === undefined ? [] : [value];
          }),
        ),
      ),
    );
  return {
    speedMps: seconds > 0 ? timed.reduce((sum, { metres }) => sum + metres, 0) / seconds : null,
    bpm: noted("bpm"),
    airTempC: noted("airTempC"),
  };
}
