import { nth } from "#core/base";
import { profileOf, type Track, type TrackProfile } from "#core/ride/distance";
import type { LiveEntry } from "#core/ride/log";
import { offsetByPlaces } from "./byPlaces.ts";
import { offsetOfSamples, type Samples } from "./bySpeed.ts";
import { notedMoments } from "./noted.ts";
import type { ClockOffset } from "./offset.ts";

/** A device's clock as it was matched: what to add to it, and what it was held against. */
export interface TiedClock extends ClockOffset {
  readonly against: "log" | "recorder" | "meter";
}

/** What else of a ride has a clock. */
export interface Beside {
  readonly log: readonly LiveEntry[];
  readonly track: Track | null;
  readonly samples: Samples | null;
}

const against = (found: ClockOffset | null, what: TiedClock["against"]): TiedClock | null =>
  found && { ...found, against: what };

const turned = (found: ClockOffset | null): ClockOffset | null =>
  found && { ...found, offsetS: -found.offsetS, rivals: found.rivals.map((rival) => -rival) };

/** The way that a meter's own speed makes, as a track's. */
function wayOf({ timeS, speedMps = [] }: Samples): Pick<TrackProfile, "timeS" | "distanceM"> {
  let along = 0;
  const distanceM = timeS.map((at, i) => {
    if (i > 0) along += nth(speedMps, i) * Math.min(10, at - nth(timeS, i - 1));
    return along;
  });
  return { timeS, distanceM };
}

/**
 * What to add to a recorder's clock to have the log's: by the places that were noted, else by a meter whose clock is right.
 *
 * @returns null where neither tells
 */
export function tieTrack(track: Track, { log, samples }: Omit<Beside, "track">): TiedClock | null {
  const profile = profileOf(track);
  const byLog = against(offsetByPlaces(profile, notedMoments(log)), "log");
  if (byLog || !samples) return byLog;
  return against(turned(offsetOfSamples(profile, samples)), "meter");
}

/**
 * What to add to a meter's clock to have the log's: by a recorder beside it, whose clock is right, else by the places that
 * were noted, where the meter has a speed.
 *
 * @returns null where neither tells
 */
export function tieSamples(samples: Samples, { log, track }: Omit<Beside, "samples">): TiedClock | null {
  const byTrack = track && against(offsetOfSamples(profileOf(track), samples), "recorder");
  if (byTrack || !samples.speedMps) return byTrack;
  return against(offsetByPlaces(wayOf(samples), notedMoments(log)), "log");
}

/** Surer than this, an offset is proposed; and no smaller one than a clock is read by, s. */
const [SURE, LEAST_S] = [0.9, 4];

/**
 * The offset that is proposed to a person, s: none where the clocks agree within their doubt, or where it is not sure.
 *
 * @example proposedOffset(null) === 0
 */
export function proposedOffset(found: ClockOffset | null): number {
  if (!found || found.sure < SURE) return 0;
  return Math.abs(found.offsetS) < Math.max(LEAST_S, 2 * found.sdS) ? 0 : Math.round(found.offsetS * 10) / 10;
}
