import { nth } from "#core/base";
import type { Ground } from "#core/fields";
import { courseParts } from "./parts.ts";
import { legsLength, type Course, type CourseLeg, type PlaceKind, type Profile } from "./schema.ts";

/** A piece of way at one slope, ground and level. */
export interface RouteSegment {
  readonly lengthM: number;
  /** Rise over run, in the direction ridden. */
  readonly slope: number;
  readonly ground: Ground;
  /** Empty for the plan's own. */
  readonly level: string;
  /** Degrees from north; null where the course does not say. */
  readonly headingDeg: number | null;
  /** Which leg it is of. */
  readonly leg: number;
}

/** A place as it is passed: out, and again on the way back. */
export interface Passing {
  readonly name: string;
  readonly kind: PlaceKind;
  /** Along the lap, m. */
  readonly atM: number;
}

/** A course as it is ridden: one lap's pieces, and how many laps. */
export interface Route {
  readonly lap: readonly RouteSegment[];
  readonly lapM: number;
  readonly laps: number;
  readonly lengthM: number;
  /** Where an out-and-back lap turns; null for the others. */
  readonly turnM: number | null;
  /** The lap ends where it began, at home. */
  readonly closed: boolean;
  readonly passings: readonly Passing[];
  readonly gainM: number;
}

const piecesOfLeg = (leg: CourseLeg, index: number): readonly RouteSegment[] =>
  courseParts(leg.gainM / leg.distanceM, leg.lossM / leg.distanceM).map(({ share, slope }) => ({
    lengthM: share * leg.distanceM,
    slope,
    ground: leg.ground,
    level: leg.level,
    headingDeg: null,
    leg: index,
  }));

/** A profile's steps, each painted with the leg it begins in; the last leg reaches to the end. */
function piecesOfProfile({ stepM, lengthM, heightM, headingDeg }: Profile, legs: readonly CourseLeg[]) {
  const pieces: RouteSegment[] = [];
  let leg = 0;
  let legEnds = nth(legs, 0).distanceM;
  for (let i = 0; i < headingDeg.length; i += 1) {
    const from = i * stepM;
    while (leg < legs.length - 1 && from >= legEnds - stepM / 2) {
      leg += 1;
      legEnds += nth(legs, leg).distanceM;
    }
    const length = Math.min(stepM, lengthM - from);
    if (length <= 0) break;
    pieces.push({
      lengthM: length,
      slope: (nth(heightM, i + 1) - nth(heightM, i)) / length,
      ground: nth(legs, leg).ground,
      level: nth(legs, leg).level,
      headingDeg: nth(headingDeg, i),
      leg,
    });
  }
  return pieces;
}

/** The same way ridden the other way. */
export function reversed(pieces: readonly RouteSegment[]): readonly RouteSegment[] {
  return pieces
    .map((piece) => ({
      ...piece,
      slope: -piece.slope,
      headingDeg: piece.headingDeg === null ? null : (piece.headingDeg + 180) % 360,
    }))
    .reverse();
}

/**
 * Lays a course out as it is ridden: legs as climbing, flat and falling parts, or the profile's own steps; out and then
 * back; lap after lap.
 *
 * @param laps instead of the course's own
 */
export function buildRoute(course: Course, laps = course.laps): Route {
  const out = course.profile
    ? piecesOfProfile(course.profile, course.legs)
    : course.legs.flatMap(piecesOfLeg);
  const outM = legsLength(out.map(({ lengthM }) => ({ distanceM: lengthM })));
  const back = course.shape === "out and back";
  const lap = back ? [...out, ...reversed(out)] : out;
  const lapM = back ? 2 * outM : outM;
  const passings = course.places.flatMap(({ name, kind, atM }) => {
    const at = Math.min(atM, outM);
    const once = { name, kind, atM: at };
    return back && at < outM ? [once, { name, kind, atM: lapM - at }] : [once];
  });
  return {
    lap,
    lapM,
    laps,
    lengthM: lapM * laps,
    turnM: back ? outM : null,
    closed: course.shape !== "one way",
    passings: passings.sort((a, b) => a.atM - b.atM),
    gainM: laps * lap.reduce((sum, { slope, lengthM }) => sum + Math.max(0, slope) * lengthM, 0),
  };
}
