import { certaintyOf, err, fixed, oddsText, ok, there, unitToken, type Result } from "#core/base";
import { metersOff, solveLedger, type SolvedLedger } from "#core/estimation";
import { foldLog } from "#core/ride/log";
import type { TestRecord } from "#core/records";
import { clashes } from "./clashes.ts";
import { figuresOf } from "./figures.ts";
import { prepareTest } from "./prepare.ts";
import type { TestResults } from "./types.ts";

/**
 * Everything known of one test: the log folded into marks and stretches, the ledger solved, plain beside it, and each
 * figure with its reason.
 *
 * @returns problems when there is nothing to reckon: no distance, no label, no marks
 */
export function analyseTest(record: TestRecord): Result<TestResults> {
  const laid = prepareTest(record);
  if (!laid.ok) return laid;
  const { tracks, course, readings, problems, input } = laid.value;
  // A full start alone says where the charge began, and nothing of what was used.
  if (input.rides.every((ride) => ride.readings.every(({ kind }) => kind === "fullStart")))
    return err(
      "no-reading",
      "rides",
      "Nothing tells the charge yet: note a percent, bars, volts, a counter or how it ended, and the figure comes.",
    );
  const [ride] = input.rides;
  const solved = solveLedger({
    ...input,
    rides: [{ ...there(ride), readings: readings.map(({ reading }) => reading) }],
  });
  if (!solved.ok) return solved;
  const counted = readings.flatMap(({ struck }, i) => (struck ? [] : [i]));
  const whole = counted.length < readings.length ? solved.value.keeping(counted) : solved.value;
  if (!whole) return err("singular", "readings", "Without what is set aside nothing can be weighed.");
  const figures = figuresOf({ record, course, tracks, readings, input, everything: solved.value, whole });
  return ok({
    ...figures,
    notices: [
      ...pastAnyBike(Math.max(figures.best.value.mean, figures.plain?.whPerM ?? 0)),
      ...doubtedMeters(whole),
      ...clashes(
        tracks,
        course,
        record.rides.map(({ entries }) => foldLog(entries)),
      ),
      ...problems,
      ...course.notices,
    ],
    course,
  });
}

/** From this chance on a meter that may be far off is named. */
const NAMED_FROM = 0.2;

/** Meters that the pack and the other readings speak against, each in a sentence. */
function doubtedMeters(solved: SolvedLedger): readonly string[] {
  return metersOff(solved).flatMap(({ device, chance, shows }) => {
    if (chance < NAMED_FROM) return [];
    // What nobody named is "meter meter".
    const words = device.split(" ");
    const name = words.at(-1) === words.at(-2) ? words.slice(0, -1).join(" ") : device;
    const side = `${fixed(Math.abs(100 * (shows - 1)), 0)} % too ${shows > 1 ? "much" : "little"}`;
    const sure = certaintyOf(chance) === "open" ? "may show" : "probably shows";
    return [
      `The ${name} ${sure} ${side} (${oddsText(chance)}): the pack's energy and the other readings do not agree with it. Check it against another meter. The figure takes both into account.`,
    ];
  });
}

/** More than any bike takes on any way, Wh per metre: 400 Wh/mi, twice a laden one's on a steep climb. */
const MOST_WH_PER_M = 0.25;

/**
 * A figure that no bike has is one of a unit that was mistaken; whatever door it came in by, it is asked about.
 *
 * @param whPerM the larger of best and plain: where every reading looks like a slip, best is no figure any more
 */
function pastAnyBike(whPerM: number): readonly string[] {
  if (whPerM < MOST_WH_PER_M) return [];
  const figure = unitToken(whPerM, "energyPerDistance", 0);
  return [`${figure} is more than any bike takes. Check the unit of the distances, and the pack's energy.`];
}
