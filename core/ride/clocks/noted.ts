import { nth } from "#core/base";
import type { LiveEntry } from "#core/ride/log";
import type { NotedMoment } from "./byPlaces.ts";

/** Entries at which somebody stood to read. */
const STOOD = ["stop", "end", "start"];

/** What a log says of when it was where, for the clocks of what was recorded beside it. */
export const notedMoments = (log: readonly LiveEntry[]): readonly NotedMoment[] =>
  log.flatMap(({ timeS, struck, struckFields, body }) => {
    if (timeS === null || struck) return [];
    const distanceM = "distanceM" in body && !struckFields.includes("distanceM") ? body.distanceM : undefined;
    const displayM = "displayM" in body ? body.displayM : undefined;
    const stood = STOOD.includes(body.kind);
    const place = distanceM ?? displayM ?? (body.kind === "start" ? 0 : null);
    return place === null && !stood
      ? []
      : [{ timeS, distanceM: place, byDisplay: distanceM === undefined && displayM !== undefined, stood }];
  });

/** When a film began by the log's clock, s since the epoch, and how far what was said in it scatters about that. */
export interface FilmClock {
  readonly beganS: number;
  readonly spreadS: number;
  readonly moments: number;
}

/** The film's clock, by the entries that were taken from what was said in it; null without any that has a time. */
export function filmClock(log: readonly LiveEntry[]): FilmClock | null {
  const began = log
    .flatMap(({ timeS, source }) =>
      timeS === null || source === undefined || source.filmS === null ? [] : [timeS - source.filmS],
    )
    .sort((a, b) => a - b);
  if (began.length === 0) return null;
  const beganS = nth(began, Math.floor(began.length / 2));
  return {
    beganS,
    spreadS: Math.sqrt(began.reduce((sum, each) => sum + (each - beganS) ** 2, 0) / began.length),
    moments: began.length,
  };
}
