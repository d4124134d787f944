import { cellFigure, metresOf, isUnidentifiable, estimateOf, type Solved } from "#core/estimation";
import type { Timeline } from "#core/ride/log";
import { there, nth, type Estimate } from "#core/base";
import { cellName } from "./input.ts";
import type { PartUse } from "./types.ts";

/** Energy per distance of each level on each ground; null where the readings do not tell it from the others. */
export function parts(
  solved: Solved,
  course: Timeline,
  perMetre: (value: Estimate) => Estimate,
): readonly PartUse[] {
  return solved.input.cells.flatMap((cell): readonly PartUse[] => {
    const figure = cellFigure(solved, cell);
    if (!figure) return [];
    const { level, ground } = there(course.legs.find((leg) => cellName(leg.level, leg.ground) === cell));
    return [
      {
        level,
        ground,
        distanceM: metresOf(nth(solved.input.rides, 0), cell),
        whPerM: isUnidentifiable(solved, cell) ? null : perMetre(estimateOf(solved, figure)),
      },
    ];
  });
}
