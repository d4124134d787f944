import type { Forecast } from "#core/forecast";
import { rideFigure, sumFigures, varianceOf, worthDoing } from "#core/estimation";
import { MINUTES, possibleReadings, WHAT } from "./additions.ts";
import { expectedSolved, type ExpectedRide } from "./ledger.ts";
import { runOrder, type PlannedRoute, type PlanRecord } from "./record.ts";
import type { Compare, PlannedReading } from "./method.ts";
import type { ComparisonYield } from "./yieldTypes.ts";

/** Most of the charge that planned runs may use. */
export const DEEPEST = 0.97;
const MOST_PAIRS = 12;
const SECTION_FACTORS = [1.5, 2, 3, 4, 6, 8, 12, 16, 24];

/** Sd of the difference that runs in the A B B A order leave; null when one charge does not hold them. */
function differenceSd(
  record: PlanRecord,
  forecast: Forecast,
  compare: Compare,
  pairs: number,
  sectionM: number,
  taken: readonly PlannedReading[],
): number | null {
  const runs = runOrder(pairs);
  if (forecast.at(runs.length * sectionM).used.mean > DEEPEST) return null;
  const rides = runs.map((run, i): ExpectedRide => ({
    fromM: i * sectionM,
    toM: (i + 1) * sectionM,
    checkInsM: [],
    taken,
    fromFull: i === 0 && record.plan.startPercent >= 100,
    untilEmpty: false,
    variant: run === "a" ? compare.a : compare.b,
    section: "section",
  }));
  const solved = expectedSolved(forecast, record.bike, rides);
  if (!solved) return null;
  const each = runs.map((run, i) => [rideFigure(solved, i), (run === "a" ? 1 : -1) / pairs] as const);
  return Math.sqrt(varianceOf(solved.posterior, sumFigures(each)));
}

/** What runs of two will tell apart, and what it would take; null when one charge does not hold them. */
export function comparisonYield(record: PlanRecord, { forecast }: PlannedRoute, compare: Compare) {
  const { taken } = record.plan.method;
  const lapM = forecast.along.way.lapM;
  const sdWith = (pairs: number, sectionM: number, by: readonly PlannedReading[] = taken) =>
    differenceSd(record, forecast, compare, pairs, sectionM, by);
  const sd = sdWith(compare.pairs, lapM);
  if (sd === null) return null;
  const wanted = compare.wantedWhPerM;
  const enough = (found: number | null) => found !== null && 2 * found <= wanted;
  const morePairs = Array.from({ length: MOST_PAIRS }, (_, i) => i + 1);
  const runMinutes = forecast.along.secondsTo(lapM).mean / 60;
  const surer = worthDoing(sd, [
    ...possibleReadings(record)
      .filter((more) => more !== "wall meter")
      .map((more) => ({
        what: WHAT[more],
        minutes: MINUTES[more] * (more === "rest volts" ? compare.pairs : 1),
        sdLeft: sdWith(compare.pairs, lapM, [...taken, more]),
      })),
    {
      what: "ride each once more",
      minutes: 2 * runMinutes,
      sdLeft: sdWith(compare.pairs + 1, lapM),
    },
    {
      what: "make the section twice as long",
      minutes: 2 * compare.pairs * runMinutes,
      sdLeft: sdWith(compare.pairs, 2 * lapM),
    },
  ]);
  const comparison: ComparisonYield = {
    order: runOrder(compare.pairs).map((run) => compare[run]),
    sd,
    wanted,
    resolved: enough(sd),
    pairsNeeded: morePairs.find((pairs) => enough(sdWith(pairs, lapM))) ?? null,
    sectionNeededM:
      [1, ...SECTION_FACTORS].map((by) => by * lapM).find((m) => enough(sdWith(compare.pairs, m))) ?? null,
  };
  return { comparison, surer };
}
