import { getTimes } from "suncalc";
import { DEFAULTS, momentOf } from "#core/base";

/** Sunrise and sunset of a day at a place, ms since the epoch; null where the sun does not rise or set. */
export interface Daylight {
  readonly sunriseMs: number | null;
  readonly sunsetMs: number | null;
  readonly alwaysDark: boolean;
}

/** Daylight at a place on a day of its own clock, reckoned offline from the sun's course. */
export function daylightAt(day: string, zone: string, latitude: number, longitude: number): Daylight {
  const times = getTimes(new Date(momentOf(day, "12:00", zone)), latitude, longitude);
  return {
    sunriseMs: times.sunrise?.getTime() ?? null,
    sunsetMs: times.sunset?.getTime() ?? null,
    alwaysDark: times.alwaysDown === true,
  };
}

/**
 * Latest start that is home before dark at 95 % of the days, ms; null where the sun does not set.
 *
 * @example latestStart({ sunriseMs: 0, sunsetMs: 36_000_000 }, 3600) === 30600000
 */
export function latestStart({ sunsetMs }: Daylight, longestS: number): number | null {
  return sunsetMs === null ? null : sunsetMs - DEFAULTS.darkMarginMinutes * 60_000 - longestS * 1000;
}
