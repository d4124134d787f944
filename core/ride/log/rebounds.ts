import type { LoggedReading, LogSlip } from "./timeline.ts";

/** What counts of the readings, and what was left out and why. */
export interface SteadyReadings {
  readonly readings: readonly LoggedReading[];
  readonly slips: readonly LogSlip[];
  /** How often bars came back. */
  readonly rebounds: number;
  readonly notices: readonly string[];
}

/** Which charge a mark belongs to: they are counted by the marks at which one ended. */
const chargeOf = (mark: number, charged: readonly number[]) => charged.filter((at) => at <= mark).length;

/**
 * Bars go one after the other: of three in a row, the middle one has a wrong number where the other two leave room for one
 * bar and it is another.
 */
function wrongBars(readings: readonly LoggedReading[], charged: readonly number[]) {
  const lost = readings.flatMap((logged) => {
    const { reading, struck } = logged;
    return reading.kind === "barLost" && !struck
      ? [{ logged, bar: reading.bar, charge: chargeOf(reading.mark, charged) }]
      : [];
  });
  return lost.flatMap(({ logged, bar, charge }, i) => {
    const [before, after] = [lost[i - 1], lost[i + 1]];
    if (before?.charge !== charge || after?.charge !== charge) return [];
    const meant = before.bar - 1;
    return after.bar === meant - 1 && bar !== meant ? [{ logged, bar, meant }] : [];
  });
}

/**
 * Bars come back at rest: a bar regained without a charge is a rebound, never energy returned, and a bar that goes a second
 * time says nothing new. Such readings are left out; so is one with a wrong number, which would make honest ones after it
 * look like that.
 *
 * @param readings of one test, in order; @param charged marks at which a charge ended
 */
export function withoutRebounds(
  readings: readonly LoggedReading[],
  charged: ReadonlySet<number>,
): SteadyReadings {
  const ends = [...charged];
  const wrong = wrongBars(readings, ends);
  const isWrong = new Set(wrong.map(({ logged }) => logged));
  const notices: string[] = [];
  let [least, rebounds] = [Infinity, 0];
  let since = 0;
  const kept = readings.filter((logged) => {
    const { reading, struck } = logged;
    if (isWrong.has(logged)) return false;
    if (struck || !("mark" in reading)) return true;
    if (ends.some((mark) => mark > since && mark <= reading.mark)) least = Infinity;
    since = Math.max(since, reading.mark);
    if (reading.kind === "bars") {
      if (reading.bars > least) {
        rebounds += 1;
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
  return {
    readings: kept,
    slips: wrong.map(({ logged, bar, meant }) => ({
      rootId: logged.rootId,
      field: null,
      sentence: `Bar ${bar} lost between bar ${meant + 1} and bar ${meant - 1}: bar ${meant}? Until then it is not counted.`,
    })),
    rebounds,
    notices: [...new Set(notices)],
  };
}
