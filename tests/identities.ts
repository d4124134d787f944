import { digestOf, type TestResults } from "#core/analysis";
import { spanOf } from "#core/base";
import { liveView } from "#core/live";
import { headlineFigures } from "#core/telling";

/** Rounding of sums over a ride, as a share of the whole. */
const SUMS = 1e-6;
/** Stretches are between marks whose places were rounded; a quarter ends where the curve was read. */
const READ_OFF = { stretches: 1e-3, quarters: 1e-2 };

const isNear = (a: number, b: number, share: number) =>
  Math.abs(a - b) <= share * Math.max(Math.abs(b), 1e-9);

/** Sums over the ride against the whole. */
function brokenSums({ best, energy, distance, parts, stretches, quarters, rangeTotal, course }: TestResults) {
  const wh = energy.value.mean;
  const broken: string[] = [];
  if (!isNear(best.value.mean * distance.value.mean, wh, SUMS)) broken.push("headline x miles = energy");
  const byStretch = stretches.reduce((sum, { fromM, toM, whPerM }) => sum + whPerM.mean * (toM - fromM), 0);
  if (!isNear(byStretch, wh, READ_OFF.stretches)) broken.push("stretches sum to the energy");
  // Climb belongs to no level: parts of a hilly ride leave it out.
  const isFlat = !course.legs.some(({ gainM, lossM }) => gainM + lossM > 0);
  const known = parts.flatMap(({ whPerM, distanceM }) => (whPerM ? [whPerM.mean * distanceM] : []));
  if (isFlat && known.length === parts.length) {
    const byPart = known.reduce((sum, each) => sum + each, 0);
    if (!isNear(byPart, wh, SUMS)) broken.push("levels by miles sum to the energy");
  }
  if (quarters && rangeTotal && !rangeTotal.pencil && quarters.quarters.length === 4) {
    const way = quarters.quarters.reduce((metres, { distanceM }) => metres + distanceM, 0);
    if (!isNear(way, distance.value.mean, READ_OFF.quarters)) broken.push("quarters sum to the way");
  }
  return broken;
}

/** A range against what was ridden and what is left. */
function brokenRange(results: TestResults) {
  const { distance, rangeTotal, curve, course } = results;
  if (!rangeTotal) return [];
  const ridden = distance.value.mean;
  if (!rangeTotal.pencil) return rangeTotal.value.mean === ridden ? [] : ["a range ridden is the way"];
  const left = liveView(results)?.toEnd;
  const isFull = curve[0]!.used.mean < 0.03 && !course.legs.some(({ charged }) => charged);
  if (!left || !isFull) return [];
  const broken: string[] = [];
  if (!isNear(rangeTotal.value.mean, ridden + left.mean, SUMS)) broken.push("range = ridden + left");
  if (spanOf(rangeTotal.value).low < ridden) broken.push("no range below what was ridden");
  return broken;
}

/** What lists, boards and sheets read is the same as the test's page. */
function brokenCopies(results: TestResults) {
  const { best, rangeTotal, energy } = results;
  const digest = digestOf(results);
  const sheet = new Map(headlineFigures(results).map(({ key, value }) => [key, value]));
  return [
    ...(digest.best === best && digest.rangeTotal === rangeTotal && digest.energy === energy
      ? []
      : ["lists read the page's figures"]),
    ...(sheet.get("use") === best.value ? [] : ["a sheet's use is the page's"]),
    ...(rangeTotal && sheet.get("range") !== rangeTotal.value ? ["a sheet's range is the page's"] : []),
  ];
}

/** What a test's figures say that another of its figures does not; empty where one quantity has one answer. */
export const brokenIdentities = (results: TestResults): readonly string[] => [
  ...brokenSums(results),
  ...brokenRange(results),
  ...brokenCopies(results),
];
