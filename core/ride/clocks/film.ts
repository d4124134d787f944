import { lastOf, nth, meanOf } from "#core/base";
import { trackAt, type TrackProfile } from "#core/ride/distance";
import type { LiveEntry } from "#core/ride/log";
import { offsetByPlaces } from "./byPlaces.ts";
import { momentsBy } from "./noted.ts";
import { anyOffset } from "./offset.ts";

/** A film by what was taken from it: where in it, and when it began by the log's clock. */
export interface FilmClock {
  /** s since the epoch; null while none of its lines has a time. */
  readonly beganS: number | null;
  /** How far its lines scatter about that, s. */
  readonly spreadS: number;
  /** Lines with a time, and those without one. */
  readonly moments: number;
  readonly untimed: number;
  /** Where in the film each was said, s. */
  readonly saidS: readonly number[];
}

const fromFilm = (log: readonly LiveEntry[]) =>
  log.flatMap((entry) =>
    entry.source === undefined || entry.source.filmS === null || entry.struck
      ? []
      : [{ entry, filmS: entry.source.filmS }],
  );

/** The film's clock, by the entries that were taken from what was said in it; null without any. */
export function filmClock(log: readonly LiveEntry[]): FilmClock | null {
  const said = fromFilm(log);
  if (said.length === 0) return null;
  const began = said
    .flatMap(({ entry, filmS }) => (entry.timeS === null ? [] : [entry.timeS - filmS]))
    .sort((a, b) => a - b);
  const beganS = began.length ? nth(began, Math.floor(began.length / 2)) : null;
  return {
    beganS,
    spreadS: beganS === null ? 0 : Math.sqrt(meanOf(began.map((each) => (each - beganS) ** 2))),
    moments: began.length,
    untimed: said.length - began.length,
    saidS: said.map(({ filmS }) => filmS).sort((a, b) => a - b),
  };
}

/** A line's time may differ so much from its film's before it is put right, s. */
const SAME_S = 0.5;

/**
 * Lines of a film whose time is not where the film says, with the time they get when it began at a moment.
 *
 * @param beganS s since the epoch
 */
export const timedByFilm = (
  log: readonly LiveEntry[],
  beganS: number,
): readonly { readonly entry: LiveEntry; readonly timeS: number }[] =>
  fromFilm(log).flatMap(({ entry, filmS }) => {
    const timeS = beganS + filmS;
    return entry.timeS !== null && Math.abs(entry.timeS - timeS) < SAME_S ? [] : [{ entry, timeS }];
  });

/** A place that was said agrees with the recorder's when it is this near: as it is read and typed, m, and by its own scale, as a share. */
const [AGREES_M, AGREES] = [160, 0.03];
/** Where fewer than this share agree the film was cut. */
const MOST_AGREE = 0.7;

/** When a film began by a recorder, whose clock is right. */
export interface FilmTie {
  /** s since the epoch */
  readonly beganS: number;
  /** s, 1 sd */
  readonly sdS: number;
  /** Probability that it is this one, 0 to 1. */
  readonly sure: number;
}

/**
 * When a film began, by the places that were said in it and where a recorder was when: for a film that runs on.
 *
 * @returns null without three places said, or where many of them do not agree: of a film that was cut
 */
export function filmByTrack(
  track: Pick<TrackProfile, "timeS" | "distanceM">,
  log: readonly LiveEntry[],
): FilmTie | null {
  if (track.timeS.length < 2) return null;
  // Any moment will do to begin with: the offset tells how far it is off.
  const guessS = (nth(track.timeS, 0) + lastOf(track.timeS)) / 2;
  const said = momentsBy(log, ({ source }) =>
    source === undefined || source.filmS === null ? null : guessS + source.filmS,
  );
  const found = offsetByPlaces(track, said, anyOffset);
  const placed = said.flatMap(({ timeS, distanceM }) => (distanceM === null ? [] : [{ timeS, distanceM }]));
  if (!found) return null;
  const agree = placed.filter(({ timeS, distanceM }) => {
    const along = trackAt(track, "distanceM", timeS - found.offsetS);
    return along !== undefined && Math.abs(along - distanceM) < AGREES_M + AGREES * distanceM;
  }).length;
  return agree < MOST_AGREE * placed.length
    ? null
    : { beganS: guessS - found.offsetS, sdS: found.sdS, sure: found.sure };
}
