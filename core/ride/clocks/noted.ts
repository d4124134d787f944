import type { LiveEntry } from "#core/ride/log";
import type { NotedMoment } from "./byPlaces.ts";

/** Entries at which somebody stood to read. */
const STOOD = ["stop", "end", "start"];

/** What one line says of where it was, and whether it stood. */
function placeOf({ struckFields, body }: LiveEntry): Omit<NotedMoment, "timeS"> | null {
  const distanceM = "distanceM" in body && !struckFields.includes("distanceM") ? body.distanceM : undefined;
  const displayM = "displayM" in body ? body.displayM : undefined;
  const stood = STOOD.includes(body.kind);
  const place = distanceM ?? displayM ?? (body.kind === "start" ? 0 : null);
  return place === null && !stood
    ? null
    : { distanceM: place, byDisplay: distanceM === undefined && displayM !== undefined, stood };
}

/** What lines say of when it was where, each by a time of its own; lines that are struck say nothing. */
export const momentsBy = (
  log: readonly LiveEntry[],
  timeOf: (entry: LiveEntry) => number | null,
): readonly NotedMoment[] =>
  log.flatMap((entry) => {
    const [timeS, place] = [timeOf(entry), entry.struck ? null : placeOf(entry)];
    return timeS === null || place === null ? [] : [{ timeS, ...place }];
  });

/** What a log says of when it was where, for the clocks of what was recorded beside it. */
export const notedMoments = (log: readonly LiveEntry[]): readonly NotedMoment[] =>
  momentsBy(log, ({ timeS }) => timeS);
