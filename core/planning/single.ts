import { DEFAULTS, withRelative } from "#core/base";
import { rankMeasurements, worthDoing } from "#core/estimation";
import { MINUTES, possibleReadings, WHAT } from "./additions.ts";
import { expectedSolved, type ExpectedRide } from "./ledger.ts";
import type { PlannedRoute, PlanRecord } from "./record.ts";
import type { PlannedReading } from "./method.ts";
import { rideSd } from "./solved.ts";

function checkIns(route: PlannedRoute, everyM: number): readonly number[] {
  return Array.from({ length: Math.floor((route.endM - 1) / everyM) }, (_, i) => (i + 1) * everyM);
}

/** The ride as one, with what it takes. */
function wholeRide(record: PlanRecord, route: PlannedRoute, taken: readonly PlannedReading[]): ExpectedRide {
  const { method } = record.plan;
  return {
    fromM: 0,
    toM: route.endM,
    checkInsM: checkIns(route, Math.max(method.everyM, route.endM / 60)),
    taken,
    fromFull: record.plan.startPercent >= 100,
    untilEmpty: method.until === "the pack is empty",
  };
}

/** What one ride will leave, and what would narrow it. */
export function singleYield(record: PlanRecord, route: PlannedRoute) {
  const { bike, plan } = record;
  const { forecast } = route;
  const { taken } = plan.method;
  const solved = expectedSolved(forecast, bike, [wholeRide(record, route, taken)]);
  if (!solved) return null;
  const mean = forecast.at(route.endM).energyWh.mean / route.endM;
  const distance = (sd: number) => withRelative({ mean, sd }, DEFAULTS.gpsScaleSd).sd;
  const now = distance(rideSd(solved));
  const next = rankMeasurements(solved);
  const nextSd = (measure: string) => next.find((step) => step.measure === measure)?.sdLeft ?? null;
  const fromNext = (measure: string, what: string, minutes: number) => {
    const sd = nextSd(measure);
    return { what, minutes, sdLeft: sd === null ? null : distance(sd) };
  };
  const surer = worthDoing(now, [
    ...possibleReadings(record).map((more) => {
      const again = expectedSolved(forecast, bike, [wholeRide(record, route, [...taken, more])]);
      return { what: WHAT[more], minutes: MINUTES[more], sdLeft: again && distance(rideSd(again)) };
    }),
    fromNext("bench", "measure the pack on a bench first", DEFAULTS.benchMinutes),
    fromNext("tenMiles", "ride ten more miles", 600 / DEFAULTS.rideMph),
  ]);
  return { whPerM: { mean, sd: now }, surer };
}
