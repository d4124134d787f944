import { energyFigure, estimateOf, linearFigure, usedBetween } from "#core/estimation";
import { nth, widen } from "#core/base";
import type { Timeline } from "#core/ride/log";
import type { Reckoning } from "./reckoning.ts";

/** Curve and stretches: fraction used at each mark, Wh per metre between neighbours. */
export function alongTheWay({ solved, wide, perMetre }: Reckoning, course: Timeline) {
  const curve = course.marks.map(({ distanceM }, mark) => {
    const used = widen(estimateOf(solved, linearFigure(solved, new Map([[mark, 1]]))), wide);
    return { distanceM, used, left: { mean: 1 - used.mean, sd: used.sd } };
  });
  const stretches = course.legs
    .filter(({ distanceM, charged }) => distanceM > 0 && !charged)
    .map(({ from, to, distanceM, level, ground }) => ({
      fromM: nth(course.marks, from).distanceM,
      toM: nth(course.marks, to).distanceM,
      level,
      ground,
      whPerM: perMetre(
        estimateOf(solved, energyFigure(solved, 0, usedBetween(solved, 0, from, to), distanceM)),
      ),
    }));
  return { curve, stretches };
}
