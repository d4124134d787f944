import type { Forecast } from "#core/forecast";
import { daylightAt, type PlanRecord } from "#core/planning";
import { clockText, dayAt, there, durationText } from "#core/base";

/** When the planned way is done, and how that lies to the dark. */
export interface Arrival {
  readonly atMs: number;
  /** Minutes of daylight left then; negative after sunset, null where the course has no place or the sun does not set. */
  readonly daylightMin: number | null;
  readonly sentence: string;
}

const MINUTE_MS = 60_000;
/** Nearer than this one is there, m. */
const THERE_M = 200;

/**
 * When the end of the planned way is reached, from where and when the last entry was, by the speeds of the plan; and what is
 * left of the day then.
 *
 * @param atM ridden so far; @param lastMs moment of the last entry with a time
 */
export function arrivalOf(
  { plan, course }: Pick<PlanRecord, "plan" | "course">,
  { along }: Pick<Forecast, "along">,
  atM: number,
  lastMs: number,
): Arrival | null {
  const { way } = along;
  if (atM > way.lengthM - THERE_M) return null;
  const restS = along.secondsTo(way.lengthM).mean - along.secondsTo(atM).mean;
  const atMs = lastMs + restS * 1000;
  const place = course.latitude !== undefined && course.longitude !== undefined;
  const sunsetMs = place
    ? daylightAt(dayAt(lastMs, plan.zone), plan.zone, there(course.latitude), there(course.longitude))
        .sunsetMs
    : null;
  const daylightMin = sunsetMs === null ? null : Math.round((sunsetMs - atMs) / MINUTE_MS);
  const when = `${way.closed ? "Done" : "At the end"} about ${clockText(atMs, plan.zone)}`;
  const light =
    daylightMin === null
      ? "."
      : daylightMin < 0
        ? `, ${durationText(-60 * daylightMin)} after sunset: lights, or turn earlier.`
        : `, ${durationText(60 * daylightMin)} before sunset.`;
  return { atMs, daylightMin, sentence: `${when}${light}` };
}
