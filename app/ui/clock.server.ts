import { dayAt } from "#core/planning";

/** This machine's clock against UTC, "+01:00": the likely one of the desk, since it runs where it is used. */
export function clockOffset(nowMs: number): string {
  const minutes = -new Date(nowMs).getTimezoneOffset();
  const two = (value: number) => String(Math.abs(Math.trunc(value))).padStart(2, "0");
  return `${minutes < 0 ? "-" : "+"}${two(minutes / 60)}:${two(minutes % 60)}`;
}

/** The day it is at the desk, by its own clock: a test of the late evening is of that day, whatever the day in Greenwich. */
export const deskDay = (nowMs = Date.now()): string => dayAt(nowMs, clockOffset(nowMs));

/** The desk's clock on another day: in summer it may be an hour ahead of what it is in winter. */
export const clockOn = (day: string): string => {
  const noonMs = Date.parse(`${day}T12:00:00Z`);
  return clockOffset(Number.isNaN(noonMs) ? Date.now() : noonMs);
};
