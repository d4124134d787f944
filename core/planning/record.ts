import { type Course, buildRoute } from "#core/route";
import { forecastRide, withLaps, type Forecast } from "#core/forecast";
import { errs, ok, type Problem, type Result } from "#core/base";
import type { PackRecord } from "#core/records";
import type { Pack } from "#core/battery";
import { conditionsOfPlan, type Riding } from "#core/bike";
import type { Known } from "./known.ts";
import type { Plan } from "./schema.ts";

/** A plan with all it needs to be reckoned. */
export interface PlanRecord extends Riding {
  readonly plan: Plan;
  readonly pack: PackRecord;
  readonly course: Course;
  readonly known: Known;
}

/** A plan's ride: the forecast over its whole way, and where it means to end. */
export interface PlannedRoute {
  readonly forecast: Forecast;
  readonly endM: number;
  /** Runs of a comparison, in order: "a" or "b" each. */
  readonly runs: readonly ("a" | "b")[];
}

/** Laps of a way that is ridden until something is used: to there and the lap that holds it. */
const MOST_LAPS = 300;

/** The order of a comparison's runs: A B B A and so on, so that a steady drift cancels. */
export function runOrder(pairs: number): readonly ("a" | "b")[] {
  return Array.from({ length: 2 * pairs }, (_, i) => (i % 4 === 0 || i % 4 === 3 ? "a" : "b"));
}

/** The pack of a plan at the day's temperature. */
export function packFor({ pack, plan }: Pick<PlanRecord, "pack" | "plan">): Pack {
  const { chemistry, labelWh, ampHours, seriesCells, measuredWh, measuredSdWh, ocv, resistanceOhm } = pack;
  return {
    chemistry,
    labelWh,
    ampHours,
    seriesCells,
    measuredWh,
    measuredSdWh,
    ocv,
    resistanceOhm,
    packTempC: plan.packTempC ?? plan.airTempC,
  };
}

/** What no forecast can be made of. */
function checkRecord({ plan, bike, course }: PlanRecord): readonly Problem[] {
  const { method } = plan;
  const problems: Problem[] = [];
  const problem = (code: string, path: string, sentence: string) => problems.push({ code, path, sentence });
  if (method.drive === "throttle" && !bike.throttle)
    problem(
      "no-throttle",
      "method.drive",
      `${bike.name} has no throttle: choose pedal, or tick the throttle on the bike's page.`,
    );
  if (bike.levels.length === 0)
    problem("no-levels", "level", `${bike.name} has no assist level yet: name at least one on its page.`);
  if (course.shape === "one way" && method.compare)
    problem(
      "one-way-runs",
      "course",
      "Runs are compared on a course that ends where it began: choose a loop or out and back.",
    );
  return problems;
}

/** Lays out a plan's way and forecasts it: to the course's end, the pack's, or a share of its charge. */
export function routeOf(record: PlanRecord): Result<PlannedRoute> {
  const problems = checkRecord(record);
  if (problems.length) return errs(problems);
  const { plan, bike, course, known } = record;
  const { method } = plan;
  const runs = method.compare ? runOrder(method.compare.pairs) : [];
  const ridden = (plan.laps ?? course.laps) * plan.days;
  const rig = conditionsOfPlan(plan, record, course);
  const result = forecastRide({
    way: buildRoute(course, method.compare ? runs.length : ridden),
    rig: {
      ...rig,
      speedMps: {
        ...rig.speedMps,
        ...known.speedMps,
        ...(plan.speedMps !== undefined && { [rig.level]: plan.speedMps }),
      },
    },
    knowledge: known.knowledge,
    pack: packFor(record),
    display: {
      percentStep: bike.percentStep,
      counts: bike.counts,
      bars: bike.bars,
      meterStepV: bike.meterStepV,
    },
    startPercent: plan.startPercent,
    reserve: plan.reserve,
  });
  if (!result.ok) return result;
  const forecast = result.value;
  const { way } = forecast.along;
  if (method.compare || method.until === "the course is ridden")
    return ok({ forecast, endM: way.lengthM, runs });
  const fraction = method.until === "the pack is empty" ? 1 : Math.min(1, forecast.start.mean + method.share);
  const where = forecast.where(fraction)?.mean ?? way.lengthM;
  if (!way.closed) return ok({ forecast, endM: Math.min(where, way.lengthM), runs });
  const laps = Math.min(MOST_LAPS, Math.max(1, Math.ceil(where / way.lapM - 1e-6)));
  return ok({ forecast: withLaps(forecast, laps), endM: Math.min(where, laps * way.lapM), runs });
}
