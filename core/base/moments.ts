import { z } from "zod";

/** Every moment that is kept lies between these, seconds since the epoch: the years 2000 to 2100. */
export const EARLIEST_S = Date.UTC(2000, 0, 1) / 1000;
export const LATEST_S = Date.UTC(2100, 0, 1) / 1000;

/** What is said of a moment that lies outside. */
export const NO_SUCH_YEAR =
  "The year lies outside 2000 to 2100: check the date, and the clock it was read from.";

/**
 * Whether a moment, seconds since the epoch, lies in the years that are kept.
 *
 * @example isInReach(1_790_000_000) === true
 * @example isInReach(0) === false
 */
export function isInReach(seconds: number): boolean {
  return seconds >= EARLIEST_S && seconds < LATEST_S;
}

/**
 * An instant as ISO 8601 with its offset, of the years 2000 to 2100.
 *
 * @example "2026-10-18T09:30:00Z"
 */
export const instant = z.iso
  .datetime({ offset: true, error: "Times are ISO 8601, for example 2026-10-18T09:30:00Z." })
  .refine((at) => isInReach(Date.parse(at) / 1000), NO_SUCH_YEAR);

/**
 * A day of the years 2000 to 2100.
 *
 * @param example shown in the sentence about what is none
 */
export const dayOf = (example: string) =>
  z.iso
    .date({ error: `Type the day as ${example}.` })
    .refine((at) => isInReach(Date.parse(at) / 1000), NO_SUCH_YEAR);

const MONTH = new Intl.DateTimeFormat("en-US", { month: "short", timeZone: "UTC" });

/**
 * A day as it is read: `dayText("2026-10-18") === "18 Oct 2026"`.
 *
 * @example dayText("2026-10-18") === "18 Oct 2026"
 */
export function dayText(day: string): string {
  const at = new Date(`${day.slice(0, 10)}T00:00:00Z`);
  return `${at.getUTCDate()} ${MONTH.format(at)} ${at.getUTCFullYear()}`;
}
