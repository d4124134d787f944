import { getTimes } from "suncalc";
import { DEFAULTS } from "#core/base";

/** Sunrise and sunset of a day at a place, ms since the epoch; null where the sun does not rise or set. */
export interface Daylight {
  readonly sunriseMs: number | null;
  readonly sunsetMs: number | null;
  readonly alwaysDark: boolean;
}

/** Offset of a clock from UTC, ms. `offsetMs("+01:30") === 5400000`. */
export function offsetMs(utcOffset: string): number {
  const sign = utcOffset.startsWith("-") ? -1 : 1;
  return sign * (Number(utcOffset.slice(1, 3)) * 60 + Number(utcOffset.slice(4, 6))) * 60_000;
}

/** A day and a clock time at an offset from UTC, ms since the epoch. */
export function momentOf(day: string, clock: string, utcOffset: string): number {
  return Date.parse(`${day}T${clock}:00Z`) - offsetMs(utcOffset);
}

/** What a clock shows at a moment: "15:42". */
export function clockText(ms: number, utcOffset: string): string {
  return new Date(ms + offsetMs(utcOffset)).toISOString().slice(11, 16);
}

/** The day a clock shows at a moment: "2026-11-25". */
export function dayAt(ms: number, utcOffset: string): string {
  return new Date(ms + offsetMs(utcOffset)).toISOString().slice(0, 10);
}

/** Daylight at a place on a day of its own clock, reckoned offline from the sun's course. */
export function daylightAt(day: string, utcOffset: string, latitude: number, longitude: number): Daylight {
  const times = getTimes(new Date(momentOf(day, "12:00", utcOffset)), latitude, longitude);
  return {
    sunriseMs: times.sunrise?.getTime() ?? null,
    sunsetMs: times.sunset?.getTime() ?? null,
    alwaysDark: times.alwaysDown === true,
  };
}

/** Latest start that is home before dark at 95 % of the days, ms; null where the sun does not set. */
export function latestStart({ sunsetMs }: Daylight, longestS: number): number | null {
  return sunsetMs === null ? null : sunsetMs - DEFAULTS.darkMarginMinutes * 60_000 - longestS * 1000;
}
