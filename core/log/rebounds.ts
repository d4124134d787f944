import type { LoggedReading } from "./course.ts";

/**
 * Bars come back at rest: a bar regained without a charge is a rebound, never energy returned, and a bar that goes a second
 * time says nothing new. Such readings are left out.
 *
 * @param readings of one test, in order; @param charged marks at which a charge ended
 */
export function withoutRebounds(
  readings: readonly LoggedReading[],
  charged: ReadonlySet<number>,
): { readonly readings: readonly LoggedReading[]; readonly notices: readonly string[] } {
  const notices: string[] = [];
  let least = Infinity;
  let since = 0;
  const kept = readings.filter(({ reading, struck }) => {
    if (struck || !("mark" in reading)) return true;
    for (const mark of charged) if (mark > since && mark <= reading.mark) least = Infinity;
    since = Math.max(since, reading.mark);
    if (reading.kind === "bars") {
      if (reading.bars > least) {
        notices.push(
          `${reading.bars} bars came back at rest after ${least}: a rebound, not energy returned, so it is left out.`,
        );
        return false;
      }
      least = reading.bars;
    }
    if (reading.kind === "barLost") {
      if (reading.bar - 1 >= least) {
        notices.push(`Bar ${reading.bar} went a second time after a rebound: the first time counts.`);
        return false;
      }
      least = reading.bar - 1;
    }
    return true;
  });
  return { readings: kept, notices: [...new Set(notices)] };
}
