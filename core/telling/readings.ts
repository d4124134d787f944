import type { TestResults } from "#core/analysis";
import { fromSi, halfWidth95, unitOf, type System } from "#core/base";

/** One row of a table: what stands under each heading. */
export type ReadingCells = Readonly<Record<string, string | number>>;

const SAME_PLACE_M = 1;

/**
 * Every reading of a test with what the answer has there, as the strip's table shows it, to be taken away. Numbers are
 * numbers, in the units of the headings.
 *
 * @returns rows in the order of the way
 */
export function readingRows(
  { readings, curve, flags }: Pick<TestResults, "readings" | "curve" | "flags">,
  system: System,
): readonly ReadingCells[] {
  const [distance, rate] = [unitOf("distance", system), unitOf("energyPerDistance", system)];
  const round = (value: number, digits: number) => Number(value.toFixed(digits));
  const asked = new Set(flags.map(({ rootId, field }) => `${rootId}/${field}`));
  return [...readings]
    .sort((a, b) => a.distanceM - b.distanceM)
    .map(({ rootId, field, kind, text, distanceM, struck, standing, row }) => {
      const left = curve.find((point) => Math.abs(point.distanceM - distanceM) < SAME_PLACE_M)?.left;
      return {
        [`distance, ${distance}`]: round(fromSi(distanceM, "distance", distance), 2),
        reading: text,
        kind,
        "left, %": left ? round(100 * left.mean, 1) : "",
        "left ±, %": left ? round(100 * halfWidth95(left), 1) : "",
        "off by, times its error": standing === null ? "" : round(Math.abs(standing), 1),
        "how much it counts, %": row ? round(100 * row.share, 1) : "",
        [`best without it, ${rate}`]: row
          ? round(fromSi(row.without.mean, "energyPerDistance", rate), 2)
          : "",
        state: struck ? "set aside" : asked.has(`${rootId}/${field}`) ? "in question" : "counts",
      };
    });
}
