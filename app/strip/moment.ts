import { clockText, momentOf as msOf } from "#core/base";

/** A moment of the ride's day: "10:41" by the ride's clock, ISO 8601; null when no time was typed. */
export function momentOf(day: string, time: string, zone: string): string | null {
  const at = time === "" ? NaN : msOf(day, time, zone);
  return Number.isNaN(at) ? null : new Date(at).toISOString();
}

/** "10:41" by the ride's clock, for the time field. */
export const clockOf = (timeS: number | null, zone: string): string =>
  timeS === null ? "" : clockText(timeS * 1000, zone);
