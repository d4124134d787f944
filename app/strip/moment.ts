import { clockText, momentAfter } from "#core/base";
import type { LiveEntry } from "#core/ride/log";

/** The last moment that was noted before an entry, or of all, ms since the epoch; null where none was. */
export function lastMoment(log: readonly LiveEntry[], before: string | null = null): number | null {
  const end = before === null ? undefined : log.find(({ rootId }) => rootId === before)?.seq;
  const timed = log.filter(({ timeS, seq }) => timeS !== null && (end === undefined || seq < end));
  const last = timed.reduce<LiveEntry | null>(
    (found, each) => (found && found.seq > each.seq ? found : each),
    null,
  );
  return last === null || last.timeS === null ? null : last.timeS * 1000;
}

/** "10:41" by the ride's clock as a moment, ISO 8601: of its day, or of the next where the log has gone past midnight; null when no time was typed. */
export function momentOf(day: string, time: string, zone: string, lastMs: number | null): string | null {
  const at = time === "" ? NaN : momentAfter(day, time, zone, lastMs);
  return Number.isNaN(at) ? null : new Date(at).toISOString();
}

/** "10:41" by the ride's clock, for the time field. */
export const clockOf = (timeS: number | null, zone: string): string =>
  timeS === null ? "" : clockText(timeS * 1000, zone);
