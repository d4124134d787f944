import { dayAt, isZone } from "#core/base";

/** This machine's time zone by its name: the likely one of the desk, since it runs where it is used. */
export function deskZone(): string {
  const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
  return isZone(timeZone) ? timeZone : "+00:00";
}

/** The day it is at the desk, by its own clock: a test of the late evening is of that day, whatever the day in Greenwich. */
export const deskDay = (nowMs = Date.now()): string => dayAt(nowMs, deskZone());
