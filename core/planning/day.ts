import { clockText, dayAt, DEFAULTS, momentOf } from "#core/base";
import { chargeMinutes } from "./charging.ts";
import { daylightAt, latestStart } from "./daylight.ts";
import type { PlanRecord } from "./record.ts";
import type { ChargePlan, DaylightPlan } from "./results.ts";

/** The sun at the course's start on the plan's day; null where the course does not say where it lies. */
export function daylightOf({ plan, course }: PlanRecord, longestS: number): DaylightPlan | null {
  if (course.latitude === undefined || course.longitude === undefined) return null;
  const light = daylightAt(plan.day, plan.zone, course.latitude, course.longitude);
  const at = (ms: number | null) => (ms === null ? null : clockText(ms, plan.zone));
  return {
    sunrise: at(light.sunriseMs),
    sunset: at(light.sunsetMs),
    latestStart: at(latestStart(light, longestS)),
  };
}

/** The charge of the evening before; null when the ride does not start from full. */
export function chargeOf({ plan, pack }: PlanRecord): ChargePlan | null {
  if (plan.startPercent < 100) return null;
  const minutes = chargeMinutes(pack, plan.chargeFromPercent, plan.chargerA ?? DEFAULTS.chargerA);
  if (minutes === null) return null;
  const endMs = momentOf(plan.day, plan.chargedBy, plan.zone) - 86_400_000;
  const startMs = endMs - minutes * 60_000;
  return {
    minutes,
    startMs,
    endMs,
    startsAt: clockText(startMs, plan.zone),
    startsOn: dayAt(startMs, plan.zone),
  };
}
