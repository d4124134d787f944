import { DEFAULTS, momentOf, ok, type Result, Z_95, type Estimate } from "#core/base";
import { bailOuts, chanceHome, turnRound } from "#core/forecast";
import { barsLost, checkInsOf } from "./checkIns.ts";
import { chargeOf, daylightOf } from "./day.ts";
import type { Known } from "./known.ts";
import { learningOf, spreadParts } from "./learning.ts";
import { routeOf, type PlannedRoute, type PlanRecord } from "./record.ts";
import type { PlanResults } from "./results.ts";
import { takenOf } from "./taken.ts";
import { warningsOf } from "./warnings.ts";
import { turnRule, weatherLines } from "./words.ts";

const CURVE_POINTS = 60;

/** How far home can be where a run-down ends: the furthest of the span's laps. */
function emptyFromHome({ forecast }: PlannedRoute, emptyAt: Estimate | null): number | null {
  const { way } = forecast.along;
  if (emptyAt === null) return null;
  if (!way.closed) return emptyAt.mean;
  const looks = Array.from({ length: 41 }, (_, i) => emptyAt.mean + (i / 20 - 1) * Z_95 * emptyAt.sd);
  return Math.max(
    ...looks.map((atM) => {
      const inLap = Math.max(0, atM) % way.lapM;
      const fromTurn = way.turnM === null ? way.lapM - inLap : inLap > way.turnM ? way.lapM - inLap : inLap;
      return Math.min(inLap, fromTurn);
    }),
  );
}

/** What a forecast rests on, in one sentence. */
function restsOn({ knowledge: { results }, awaited }: Known): string {
  if (results === 0 && awaited > 0)
    return "It rests on assumptions until the tests of the desk are reckoned.";
  if (results === 0) return "It rests on assumptions: no earlier test of this bike has a result.";
  return `It rests on ${results === 1 ? "one earlier test" : `${results} earlier tests`} of this bike.`;
}

/**
 * Reckons a plan: what to expect at each check-in, how far the pack goes, when to turn, when to start and to charge, and
 * what stands against it.
 */
export function reckonPlan(record: PlanRecord): Result<PlanResults> {
  const routed = routeOf(record);
  if (!routed.ok) return routed;
  const route = routed.value;
  const { plan, known } = record;
  const { forecast, endM } = route;
  const { way } = forecast.along;
  const emptied = plan.method.until === "the pack is empty";
  const end = forecast.at(endM);
  const energy = forecast.along.whTo(endM);
  const whPerM = { mean: end.energyWh.mean / endM, sd: end.energyWh.sd / endM };
  const turn = turnRound(forecast);
  const emptyAt = forecast.where(1, DEFAULTS.cutOffSd);
  const home = emptied || !way.closed ? null : chanceHome(forecast, endM, plan.reserve);
  const longestS = end.timeS.mean + Z_95 * end.timeS.sd;
  const aDayS = longestS / plan.days;
  const startMs = momentOf(plan.day, plan.startsAt, plan.zone);
  const daylight = daylightOf(record, aDayS);
  const found = { end, turn, emptyAt, chanceHome: home, daylight, capacity: forecast.capacity };
  return ok({
    lapM: way.lapM,
    laps: way.laps,
    lengthM: way.lengthM,
    endM,
    gainM: way.gainM * (endM / way.lengthM),
    ...found,
    whPerM,
    checkIns: checkInsOf(plan, route),
    barsLost: barsLost(route),
    fullPowerEnds: forecast.where(DEFAULTS.lowPowerAt, DEFAULTS.lowPowerSd),
    turnRule: turnRule(route, turn, emptied),
    bailOuts: bailOuts(forecast).filter(({ atM }) => atM <= endM),
    emptyFromHomeM: emptied ? emptyFromHome(route, emptyAt) : null,
    startMs,
    endMs: { mean: startMs + (1000 * end.timeS.mean) / plan.days, sd: (1000 * end.timeS.sd) / plan.days },
    charge: chargeOf(record),
    weather: weatherLines(record, route, whPerM.mean),
    taken: takenOf(record, forecast.input.rig),
    warnings: warningsOf(record, route, found, aDayS),
    restsOn: restsOn(known),
    unknowns: spreadParts(energy, known),
    learning: learningOf(known, energy, whPerM.sd, endM),
    curve: Array.from({ length: CURVE_POINTS + 1 }, (_, i) => {
      const atM = (i * endM) / CURVE_POINTS;
      return { atM, used: forecast.at(atM).used };
    }),
  });
}
