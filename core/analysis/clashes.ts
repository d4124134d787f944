import { durationText, nth, unitToken } from "#core/base";
import type { TrackProfile } from "#core/ride/distance";
import { totalOf, type LiveEntry, type Timeline } from "#core/ride/log";
import { lengthOfRide } from "./distance.ts";

/** Times and speeds that differ by no more than this share are one, read off differently. */
const SAME_TIME = 0.08;
/** The same of climbs, which instruments smooth differently; and so many metres besides. */
const SAME_CLIMB = 0.3;
const SAME_CLIMB_M = 30;
/** Entries that lie closer in time were typed up afterwards: their times are not the ride's. */
const FASTEST_MPS = 16;

interface RideNoted {
  readonly log: readonly LiveEntry[];
  readonly track: TrackProfile | null;
  readonly distanceM: number;
  /** Between its first and last timed entry, s; null where they bear no times. */
  readonly lastedS: number | null;
}

const differ = (a: number, b: number, share: number) => Math.abs(a - b) > share * Math.max(a, b);
const speed = (metres: number, seconds: number) => unitToken(metres / seconds, "speed", 1);

/** Riding time and mean speed as they were typed, against one another, the track and the clock. */
function timeClashes({ log, track, distanceM, lastedS }: RideNoted): readonly string[] {
  const movingS = totalOf(log, "movingS");
  const meanMps = totalOf(log, "avgSpeedMps");
  const way = unitToken(distanceM, "distance", 1);
  const found: string[] = [];
  if (movingS !== null && track && track.movingS > 0 && differ(movingS, track.movingS, SAME_TIME))
    found.push(
      `A riding time of ${durationText(movingS)} was typed; the track has ${durationText(track.movingS)} in motion. The track's is used.`,
    );
  else if (
    movingS !== null &&
    movingS > 0 &&
    meanMps !== null &&
    differ(distanceM / movingS, meanMps, SAME_TIME)
  )
    found.push(
      `An average of ${unitToken(meanMps, "speed", 1)} was typed; ${way} in a riding time of ${durationText(movingS)} is ${speed(distanceM, movingS)}. The riding time is used.`,
    );
  else if (
    movingS === null &&
    meanMps !== null &&
    track &&
    track.movingS > 0 &&
    differ(track.totalM / track.movingS, meanMps, SAME_TIME)
  )
    found.push(
      `An average of ${unitToken(meanMps, "speed", 1)} was typed; the track has ${speed(track.totalM, track.movingS)} in motion. The track's is used.`,
    );
  // A ride cannot be ridden for longer than it lasted.
  const riddenS = movingS ?? (meanMps ? distanceM / meanMps : null);
  const isLogged = lastedS !== null && lastedS > 0 && distanceM / lastedS < FASTEST_MPS;
  if (riddenS !== null && !track && isLogged && riddenS > (1 + SAME_TIME) * lastedS) {
    const typed =
      movingS === null
        ? `An average of ${unitToken(meanMps ?? 0, "speed", 1)} takes ${durationText(riddenS)} for ${way}`
        : `A riding time of ${durationText(riddenS)} was typed`;
    found.push(`${typed}; by the times of its entries the ride lasted ${durationText(lastedS)}. Check both.`);
  }
  return found;
}

/** A climb that was typed against the track's. */
function climbClash({ log, track }: RideNoted): readonly string[] {
  const climbM = totalOf(log, "climbM");
  const byTrack = track?.hasHeights ? (track.gainM.at(-1) ?? 0) : null;
  if (climbM === null || byTrack === null) return [];
  if (!differ(climbM, byTrack, SAME_CLIMB) || Math.abs(climbM - byTrack) < SAME_CLIMB_M) return [];
  return [
    `A climb of ${unitToken(climbM, "climb", 0)} was typed; the track has ${unitToken(byTrack, "climb", 0)}. The track's is used.`,
  ];
}

/**
 * What was typed of a whole ride and does not agree with its log, each clash in a sentence that says what is used.
 *
 * @param logs live entries of each ride
 */
export function clashes(
  tracks: readonly (TrackProfile | null)[],
  course: Timeline,
  logs: readonly (readonly LiveEntry[])[],
): readonly string[] {
  return logs.flatMap((log, ride) => {
    const times = log.flatMap(({ timeS, body }) => (timeS === null || body.kind === "totals" ? [] : [timeS]));
    const track = nth(tracks, ride);
    const noted: RideNoted = {
      ...{ log, track },
      distanceM: track?.totalM ?? lengthOfRide(course, ride),
      lastedS: times.length > 1 ? Math.max(...times) - Math.min(...times) : null,
    };
    return noted.distanceM > 0 ? [...timeClashes(noted), ...climbClash(noted)] : [];
  });
}
