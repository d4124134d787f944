import { err, ok, there, type Result } from "#core/base";
import { solveLedger } from "#core/estimation";
import type { TestRecord } from "#core/records";
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
  return ok({
    ...figuresOf({ record, course, tracks, readings, input, everything: solved.value, whole }),
    notices: [...problems, ...course.notices],
    course,
  });
}
