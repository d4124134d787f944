import type { TrackProfile } from "#core/ride/distance";
import { totalOf, type KnownFactor, type LiveEntry, type Timeline } from "#core/ride/log";
import { lastOf, fixed, unitToken, sumOf } from "#core/base";

const SOURCE_WORDS = { recorder: "by recorder", track: "by the track", display: "by the display" } as const;

/** Where the distance is from, and what it says of the display. */
export function distanceBecause(course: Timeline, known: KnownFactor | null): string {
  const after =
    course.afterEndM > 0
      ? `; ${unitToken(course.afterEndM, "distance", 1)} more after the end count for nothing`
      : "";
  return `${sourceBecause(course, known)}${after}`;
}

function sourceBecause(course: Timeline, known: KnownFactor | null): string {
  const last = lastOf(course.bases);
  const factor = course.bases.map(({ factor }) => factor).find((found) => found !== null);
  if (!factor) {
    if (last.source !== "display") return SOURCE_WORDS[last.source];
    if (!known) return "by the display, never checked against a recorder";
    return `by the display times ${fixed(known.k, 3)}, as ${known.tests === 1 ? "another test" : "other tests"} of the bike found`;
  }
  const off = (1 / factor.k - 1) * 100;
  if (Math.abs(off) < 0.5) return `${SOURCE_WORDS[last.source]}; the display agrees`;
  const wheel = factor.warn ? `: wheel set too ${off > 0 ? "large" : "small"}` : "";
  return `${SOURCE_WORDS[last.source]}; the display read ${fixed(Math.abs(off), 1)} % ${off > 0 ? "more" : "less"}${wheel}`;
}

const sum = (values: readonly number[]) => sumOf(values);
const known = (values: readonly (number | null | undefined)[]) =>
  values.filter((value): value is number => value !== null && value !== undefined);

/** Metres of one ride by its marks. */
export function lengthOfRide({ marks }: Timeline, ride: number): number {
  const own = marks.filter((mark) => mark.ride === ride);
  const before = marks.filter((mark) => mark.ride < ride).at(-1)?.distanceM ?? 0;
  return own.length ? lastOf(own).distanceM - before : 0;
}

/**
 * Riding time, speeds and climb of the whole test: of each ride by its track, else as its recorder was read. The mean speed
 * is that of the rides whose time is known.
 *
 * @param logs live entries of each ride
 */
export function rideFigures(
  tracks: readonly (TrackProfile | null)[],
  course: Timeline,
  logs: readonly (readonly LiveEntry[])[],
) {
  const rides = logs.map((log, ride) => {
    const track = tracks[ride];
    const metres = track?.totalM ?? lengthOfRide(course, ride);
    const avgMps = totalOf(log, "avgSpeedMps");
    const typedS = totalOf(log, "movingS") ?? (avgMps ? metres / avgMps : null);
    return {
      metres,
      movingS: track?.movingS ?? typedS,
      topMps: track?.topSpeedMps ?? totalOf(log, "topSpeedMps"),
      climbM: track?.hasHeights ? (track.gainM.at(-1) ?? 0) : totalOf(log, "climbM"),
    };
  });
  const timed = rides.filter(({ movingS }) => movingS !== null && movingS > 0);
  const [metres, movingS] = [
    sum(timed.map((ride) => ride.metres)),
    sum(known(timed.map((ride) => ride.movingS))),
  ];
  const [tops, climbs] = [known(rides.map(({ topMps }) => topMps)), known(rides.map(({ climbM }) => climbM))];
  return {
    movingS: movingS > 0 ? movingS : null,
    meanSpeedMps: movingS > 0 ? metres / movingS : null,
    topSpeedMps: tops.length ? Math.max(...tops) : null,
    climbM: climbs.length ? sum(climbs) : null,
  };
}
