import type { TrackProfile } from "#core/distance";
import type { Course } from "#core/log";
import { fixed } from "#core/quantities";

const SOURCE_WORDS = { recorder: "by recorder", track: "by the track", display: "by the display" } as const;

/** Where the distance is from, and what it says of the display. */
export function distanceBecause(course: Course): string {
  const last = course.bases.at(-1)!;
  const factor = course.bases.map(({ factor }) => factor).find((found) => found !== null);
  if (!factor)
    return last.source === "display"
      ? "by the display, never checked against a recorder"
      : SOURCE_WORDS[last.source];
  const off = (1 / factor.k - 1) * 100;
  if (Math.abs(off) < 0.5) return `${SOURCE_WORDS[last.source]}; the display agrees`;
  const wheel = factor.warn ? `: wheel set too ${off > 0 ? "large" : "small"}` : "";
  return `${SOURCE_WORDS[last.source]}; the display read ${fixed(Math.abs(off), 1)} % ${off > 0 ? "more" : "less"}${wheel}`;
}

/** Several tracks' speed and climb together. */
export function rideFigures(tracks: readonly (TrackProfile | null)[]) {
  const known = tracks.filter((track): track is TrackProfile => track !== null);
  if (!known.length) return { movingS: null, meanSpeedMps: null, topSpeedMps: null, climbM: null };
  const movingS = known.reduce((sum, track) => sum + track.movingS, 0);
  const metres = known.reduce((sum, track) => sum + track.totalM, 0);
  const heights = known.filter(({ hasHeights }) => hasHeights);
  return {
    movingS,
    meanSpeedMps: movingS > 0 ? metres / movingS : null,
    topSpeedMps: Math.max(...known.map(({ topSpeedMps }) => topSpeedMps)),
    climbM: heights.length ? heights.reduce((sum, { gainM }) => sum + (gainM.at(-1) ?? 0), 0) : null,
  };
}
