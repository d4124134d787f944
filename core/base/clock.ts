import { tzOffset } from "@date-fns/tz";
import { dayText } from "./moments.ts";

/**
 * Clocks. A zone is the name of one in the time zone database, which knows when its summer begins, or a fixed distance
 * from UTC, "+01:00". Where it is neither, moments are NaN and texts empty.
 */

const OFFSET = /^[+-](0\d|1[0-4]):[0-5]\d$/;

/**
 * How far a zone's clock runs ahead of UTC at a moment, ms; NaN for no zone. `zoneOffsetMs("+01:30", 0) === 5400000`.
 *
 * @example zoneOffsetMs("+01:30", 0) === 5400000
 */
export function zoneOffsetMs(zone: string, ms: number): number {
  return tzOffset(zone, new Date(ms)) * 60_000;
}

/**
 * Whether a text names a zone or an offset from UTC. `isZone("CET")`, `isZone("-05:30")`, not `isZone("5")`.
 *
 * @example isZone("Middle/Nowhere") === false
 */
export const isZone = (zone: string): boolean =>
  OFFSET.test(zone) || (/^[A-Za-z]/.test(zone) && !Number.isNaN(zoneOffsetMs(zone, 0)));

/**
 * A day and a time of a zone's clock as a moment, ms since the epoch. A time the clock leaves out in spring is taken an
 * hour on; of one it shows twice in autumn, the first.
 *
 * @param clock "9:30", "09:30" or "09:30:15"
 * @example momentOf("1970-01-01", "9:30", "+01:30") === 28_800_000
 */
export function momentOf(day: string, clock: string, zone: string): number {
  const seconds = /:\d\d:\d\d$/.test(clock) ? "" : ":00";
  const shownMs = Date.parse(`${day}T${clock.replace(/^\d:/, "0$&")}${seconds}Z`);
  const [before, after] = [shownMs - 86_400_000, shownMs + 86_400_000].map(
    (ms) => shownMs - zoneOffsetMs(zone, ms),
  ) as [number, number];
  const shows = (ms: number) => ms + zoneOffsetMs(zone, ms) === shownMs;
  return shows(before) ? before : shows(after) ? after : before;
}

const DAY_MS = 86_400_000;
/** A clock that shows so much earlier than the entry before is the next day's; days that are rolled over at most. */
const BACK_MS = DAY_MS / 2;
const MOST_DAYS = 7;

/**
 * A time of a zone's clock that was noted after another moment: of the day, or of a following one where the clock went past midnight
 * since.
 *
 * @param day of the ride, 2026-10-18
 * @param lastMs the entry before, ms since the epoch; null where there is none
 * @returns ms since the epoch; NaN where the clock is none
 * @example momentAfter("1970-01-01", "00:20", "+00:00", 85_200_000) === 87_600_000
 * @example momentAfter("1970-01-01", "09:00", "+00:00", null) === 32_400_000
 */
export function momentAfter(day: string, clock: string, zone: string, lastMs: number | null): number {
  const own = momentOf(day, clock, zone);
  if (lastMs === null || !(own < lastMs - BACK_MS)) return own;
  const days = Math.ceil((lastMs - BACK_MS - own) / DAY_MS);
  return days > MOST_DAYS ? own : momentOf(dayAt(own + days * DAY_MS, zone), clock, zone);
}

/**
 * Whether a zone's clock leaves a time of a day out, as it does on the day it goes forward: 02:30 of 29 March 2026 in Berlin.
 */
function isLeftOut(day: string, clock: string, zone: string): boolean {
  const at = momentOf(day, clock, zone);
  return !Number.isNaN(at) && clockText(at, zone) !== clock.slice(0, 5).padStart(5, "0");
}

/**
 * What to type for a time that the clock of that day does not show; null where it shows it.
 *
 * @example leftOut("2026-03-29", "03:30", "Europe/Berlin") === null
 */
export const leftOut = (day: string, clock: string, zone: string): string | null =>
  isLeftOut(day, clock, zone)
    ? `On ${dayText(day)} the clock goes forward and shows no ${clock.slice(0, 5)}: type ${clockText(momentOf(day, clock, zone), zone)}, or the time before the change.`
    : null;

const TYPED = /^(\d{1,2})(?:[:.h](\d{2}))?(?:[:.](\d{2}))?\s*(?:([ap])\.?m\.?)?$/i;

/**
 * A time of day as a person types it, as a clock shows it; null where it is none. An hour alone is one only with its half of the day.
 *
 * @example typedClock(" 2:05 pm") === "14:05"
 * @example typedClock("10.20.15") === "10:20:15"
 */
export function typedClock(text: string): string | null {
  const [whole, hour, minute, second, half] = TYPED.exec(text.trim()) ?? [];
  if (whole === undefined || (minute === undefined && half === undefined)) return null;
  const h = Number(hour);
  if (half ? h < 1 || h > 12 : h > 23) return null;
  const inDay = half ? (h % 12) + (/p/i.test(half) ? 12 : 0) : h;
  const rest = [minute ?? "00", second].filter((part) => part !== undefined);
  if (rest.some((part) => Number(part) > 59)) return null;
  return [String(inDay).padStart(2, "0"), ...rest].join(":");
}

const shownAt = (ms: number, zone: string): string => {
  const shown = new Date(ms + zoneOffsetMs(zone, ms));
  return Number.isNaN(shown.getTime()) ? "" : shown.toISOString();
};

/**
 * What a zone's clock shows at a moment: "15:42".
 *
 * @example clockText(0, "+01:30") === "01:30"
 */
export const clockText = (ms: number, zone: string): string => shownAt(ms, zone).slice(11, 16);

/**
 * The same to the second: "09:30:12".
 *
 * @example clockToSecond(12_000, "+01:30") === "01:30:12"
 */
export const clockToSecond = (ms: number, zone: string): string => shownAt(ms, zone).slice(11, 19);

/**
 * The day a zone's calendar shows at a moment: "2026-11-25".
 *
 * @example dayAt(0, "-05:00") === "1969-12-31"
 */
export const dayAt = (ms: number, zone: string): string => shownAt(ms, zone).slice(0, 10);
