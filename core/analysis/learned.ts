import { barFigure, columnFigure, estimateOf, type Solved } from "#core/estimation";
import { temperatureFactor } from "#core/battery";
import { there, nth, DEFAULTS, scale, widen } from "#core/base";
import type { TestRecord } from "#core/records";
import type { PackLearned, TestResults } from "./types.ts";

/** Least narrowing of the sd that counts as a measurement of the pack. */
const LEARNED_BELOW = 0.8;

/** What the ride says of the pack: usable energy at 25 C before and after it. */
export function packLearned({ pack, test }: TestRecord, solved: Solved): PackLearned {
  const before = nth(Object.values(solved.columns.usable), 0);
  const after = estimateOf(solved, columnFigure(solved, nth(Object.values(solved.columns.capacity), 0)));
  const cold = temperatureFactor(pack.chemistry, test.packTempC ?? test.airTempC ?? DEFAULTS.packTempC);
  return {
    before: scale({ mean: before.mean, sd: before.sd }, 1 / cold),
    after: scale(after, 1 / cold),
    learned: after.sd < LEARNED_BELOW * before.sd,
  };
}

/** Name of a gauge's point by its key: "bar 3", "last bar blinks", "low-power mode". */
function pointName(key: string): string | null {
  const bar = /\/(bar \d+)$/.exec(key);
  if (bar) return `${bar[1]} goes`;
  if (key.endsWith("/last bar")) return "the last bar blinks";
  return key.endsWith("/low power") ? "low-power mode begins" : null;
}

/** The gauge's points as this ride has them, beside what was assumed. */
export function thresholds(solved: Solved, wide: number): TestResults["thresholds"] {
  const { unknowns } = solved.columns;
  return unknowns.list.flatMap(({ key, mean, sd }) => {
    const name = pointName(key);
    if (name === null) return [];
    const bar = /^(.*)\/bar (\d+)$/.exec(key);
    const figure = bar && barFigure(solved, nth(bar, 1), Number(bar[2]));
    const used = widen(estimateOf(solved, figure ?? columnFigure(solved, there(unknowns.find(key)))), wide);
    return [{ name, used, prior: { mean, sd } }];
  });
}
