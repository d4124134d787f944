import { capacityShareOf } from "#core/desk";
import { err, ok, type Result, type Estimate } from "#core/base";
import type { Compared, PartOf, RiddenTest } from "./compared.ts";

/** Energy per metre of some parts together; the sds add, since parts of one test lean on one another. */
function partsFigure(test: RiddenTest, part: PartOf): Estimate | null {
  const parts = test.results.parts.filter(({ level, ground }) => part(level, ground));
  const metres = parts.reduce((sum, { distanceM }) => sum + distanceM, 0);
  let [mean, sd] = [0, 0];
  for (const { distanceM, whPerM } of parts) {
    if (whPerM === null) return null;
    mean += (whPerM.mean * distanceM) / metres;
    sd += (whPerM.sd * distanceM) / metres;
  }
  return metres > 0 ? { mean, sd } : null;
}

/** A test's figure, of the whole or of a part. */
export function figureOf(test: RiddenTest, part?: PartOf): Result<Estimate> {
  if (!part) return ok(test.results.best.value);
  if (!test.results.parts.some(({ level, ground }) => part(level, ground)))
    return err("not-ridden", "part", "It was not ridden so.");
  const figure = partsFigure(test, part);
  return figure
    ? ok(figure)
    : err("not-told-apart", "part", "Its readings do not tell this part from the others.");
}

/** A test's figure with its errors told apart, under its own conditions. */
export function asRidden({ id, packId, ridden }: Compared, part?: PartOf) {
  const figure = figureOf(ridden, part);
  if (!figure.ok) return figure;
  const { mean, sd } = figure.value;
  const capacity = Math.min(sd, capacityShareOf(ridden.results) * mean);
  return ok({
    mean,
    effects: {
      [`measured:${id}`]: Math.sqrt(Math.max(0, sd * sd - capacity * capacity)),
      [`capacity:${packId}`]: capacity,
    },
  });
}
