import { energyFigure, milesOf, notToldApart, variableFigure, withSds, type Solved } from "#core/ledger";
import type { Course } from "#core/log";
import { METRES_PER_MILE, type Uncertain } from "#core/quantities";
import { cellName } from "./input.ts";
import type { PartUse } from "./types.ts";

/** Energy per distance of each level on each ground; null where the readings do not tell it from the others. */
export function parts(
  solved: Solved,
  course: Course,
  perMetre: (value: Uncertain) => Uncertain,
): readonly PartUse[] {
  const cells = solved.input.cells.map((cell) => {
    const { level, ground } = course.legs.find((leg) => cellName(leg.level, leg.ground) === cell)!;
    return { cell, level, ground, miles: milesOf(solved, 0, cell) };
  });
  const rateForms = cells.map(({ cell }) => variableFigure(solved, solved.prior.rate.get(cell)!));
  const rates = withSds(solved, rateForms);
  const ridden = cells.filter(({ miles }) => miles > 0);
  const used = withSds(
    solved,
    ridden.map(({ cell, miles }) => energyFigure(solved, solved.prior.cellUse[0]!.get(cell)!, miles)),
  );
  return ridden.map(({ cell, level, ground, miles }, i) => ({
    level,
    ground,
    distanceM: miles * METRES_PER_MILE,
    whPerM: notToldApart(rates[cells.findIndex((other) => other.cell === cell)]!.sd, solved.usable.mean)
      ? null
      : perMetre(used[i]!),
  }));
}
