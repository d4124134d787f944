import { FASTEST_MPS, type EntryBody, type LiveEntry } from "#core/ride/log";
import { dayAt } from "#core/base";

/** What rounding and a recorder's wander may add, m. */
const SLACK_M = 300;

const distanceIn = (body: EntryBody) =>
  ("distanceM" in body ? body.distanceM : undefined) ?? ("displayM" in body ? body.displayM : undefined);

/**
 * Whether an entry kept now would say that the bike flew: its distance lies further from the last timed one than anybody
 * rides in that time. It was typed from notes, and its moment is not now.
 *
 * @param offsetS what this clock is behind the server's, s
 */
export function isTypedLate(
  body: EntryBody,
  entries: readonly LiveEntry[],
  offsetS = 0,
  clockMs = Date.now(),
): boolean {
  const nowMs = clockMs + offsetS * 1000;
  const here = distanceIn(body);
  if (here === undefined) return false;
  const timed = entries.flatMap(({ struck, timeS, body: other }) => {
    const metres = other.kind === "start" ? (distanceIn(other) ?? 0) : distanceIn(other);
    return struck || timeS === null || metres === undefined ? [] : [{ timeS, metres }];
  });
  const last = timed.sort((a, b) => a.timeS - b.timeS).at(-1);
  return (
    last !== undefined && here - last.metres > SLACK_M + FASTEST_MPS * Math.max(0, nowMs / 1000 - last.timeS)
  );
}

/**
 * The day where the ride is.
 *
 * @param offsetS what this clock is behind the server's, s: near midnight it may show another day
 */
export const today = (zone: string, offsetS: number, clockMs = Date.now()): string =>
  dayAt(clockMs + 1000 * offsetS, zone);
