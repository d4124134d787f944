export { QUESTION_IDS, questionOf, QUESTIONS, type Question, type QuestionId } from "./questions.ts";
export {
  methodSchema,
  planSchema,
  PLANNED_READINGS,
  UNTILS,
  type Compare,
  type Method,
  type Plan,
  type PlannedReading,
} from "./schema.ts";
export { templateNamed, TEMPLATES } from "./templates.ts";
export { knownFrom, NOTHING_KNOWN, type Known, type KnownFor, type Untold } from "./known.ts";
export type { Learning } from "./learning.ts";
export { chargeMinutes } from "./charging.ts";
export { daylightAt, latestStart, type Daylight } from "./daylight.ts";
export { routeOf, runOrder, type PlannedRoute, type PlanRecord } from "./record.ts";
export { type BarForecast, type CheckIn } from "./checkIns.ts";
export { reckonPlan } from "./reckon.ts";
export { type ChargePlan, type DaylightPlan, type PlanResults, type Warning } from "./results.ts";
export { yieldOf } from "./yield.ts";
export { type Addition, type ComparisonYield, type PlanYield } from "./yieldTypes.ts";
export { PLAIN_COURSE, proposalsFor, type Proposal } from "./proposals.ts";
