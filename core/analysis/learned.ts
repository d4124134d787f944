import { columnFigure, estimateOf, linearFigure, pointForm, priorOf, type Solved } from "#core/estimation";
import { nth, scale, widen } from "#core/base";
import type { TestRecord } from "#core/records";
import { ONLY } from "./input.ts";
import { addedBy, ledgerKnown, warmthOf, weighedMean } from "./known.ts";
import type { PackLearned, TestResults } from "./types.ts";

/** Least narrowing of the sd that counts as a measurement of the pack. */
const LEARNED_BELOW = 0.8;

/** What the ride says of the pack: usable energy at 25 C before and after it. */
export function packLearned(record: TestRecord, solved: Solved): PackLearned {
  const before = nth(Object.values(solved.columns.usable), 0);
  const after = estimateOf(solved, columnFigure(solved, nth(Object.values(solved.columns.capacity), 0)));
  const warmth = warmthOf(record);
  const others = ledgerKnown(record, ONLY).filter(({ of }) => of === "pack");
  const own = addedBy(weighedMean([before, ...others]) ?? before, after);
  const alone = own && weighedMean([before, own]);
  return {
    before: scale({ mean: before.mean, sd: before.sd }, 1 / warmth),
    after: scale(after, 1 / warmth),
    own: own && scale(own, 1 / warmth),
    learned: alone !== null && alone.sd < LEARNED_BELOW * before.sd,
  };
}

/** A gauge's point in words. */
function pointName(point: string): string {
  if (point === "last bar") return "the last bar blinks";
  return point === "low power" ? "low-power mode begins" : `${point} goes`;
}

/** Points of a gauge that some row leans on. */
function pointsOf({ columns: { unknowns } }: Solved): readonly string[] {
  return unknowns.list.flatMap(({ key }) => /\/(bar \d+|last bar|low power)$/.exec(key)?.[1] ?? []);
}

/** The gauge's points as this ride has them, beside what was assumed and what other tests showed. */
export function thresholds(record: TestRecord, solved: Solved, wide: number): TestResults["thresholds"] {
  return pointsOf(solved).flatMap((point) => {
    const form = pointForm(solved.columns, ONLY, point);
    if (!form) return [];
    const used = estimateOf(solved, linearFigure(solved, form));
    const prior = priorOf(solved.columns, form);
    const known = record.known?.points.find((each) => each.point === point);
    const before = weighedMean([prior, ...(known ? [known] : [])]) ?? prior;
    const own = addedBy(before, used);
    return [
      {
        ...{ point, prior, name: pointName(point), used: widen(used, wide) },
        own: own && widen(own, wide),
        tests: known?.tests ?? 0,
      },
    ];
  });
}
