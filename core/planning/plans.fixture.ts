/** A bike, a rider, a course and a plan on them, for tests. */
import { courseSchema, type Course } from "#core/route";
import {
  NOTHING_KNOWN,
  planSchema,
  reckonPlan,
  templateNamed,
  type Method,
  type Plan,
  type PlanRecord,
  type PlanResults,
} from "#core/planning";
import { there, nth, METRES_PER_MILE } from "#core/base";
import { bikeSchema, packRecordSchema, riderSchema } from "#core/records";

export const mi = (miles: number) => miles * METRES_PER_MILE;
export const bike = bikeSchema.parse({
  name: "Reed",
  levels: ["low", "mid", "high"],
  throttle: true,
  bars: 5,
  massKg: 26,
});
export const pack = packRecordSchema.parse({ name: "p", labelWh: 500, seriesCells: 13, ampHours: 10.4 });
export const rider = riderSchema.parse({
  name: "Maren",
  massKg: 71,
  lowBpm: 100,
  lowW: 50,
  highBpm: 150,
  highW: 150,
});
const place = { latitude: 53.6, longitude: 0.9 };
export const course = (miles: number, more: object = {}): Course =>
  courseSchema.parse({
    ...place,
    name: "c",
    shape: "out and back",
    legs: [{ distanceM: mi(miles), gainM: 8 * miles, lossM: 8 * miles }],
    ...more,
  });
export const method = (name: string, more: Partial<Method> = {}): Method => ({
  ...there(templateNamed(name)).method,
  ...more,
});
export const plan = (more: Partial<Plan> = {}): Plan => ({
  ...planSchema.parse({ title: "t", question: "claim", method: method("Part charge"), day: "2026-11-26" }),
  ...more,
});
export const record = (more: Partial<PlanRecord> = {}): PlanRecord => ({
  plan: plan(),
  bike,
  pack,
  setUp: null,
  rider,
  course: course(8),
  known: NOTHING_KNOWN,
  ...more,
});
export const reckon = (more: Partial<PlanRecord> = {}): PlanResults => {
  const result = reckonPlan(record(more));
  if (!result.ok) throw new Error(nth(result.problems, 0).sentence);
  return result.value;
};
