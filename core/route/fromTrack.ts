import { haversine, climbAlong, profileOf, type Track } from "#core/ride/distance";
import { there, nth, lastOf, err, ok, type Result, meanOf } from "#core/base";
import type { Course, Profile, Shape } from "./schema.ts";

/** Finest step of a profile, and the most steps it holds. */
const STEP_M = 50;
const MOST_STEPS = 2000;
/** How far each side a height is smoothed over, in steps, with binomial weights. */
const WEIGHTS = [1, 4, 6, 4, 1];
/** A track that ends this near its start is a loop, as a share of its length and at most in metres. */
const CLOSED_SHARE = 0.05;
const CLOSED_M = 300;
const SHORTEST_M = 200;

/** Linear reading of a column at evenly spaced places along a rising one. */
function resample(along: readonly number[], values: readonly number[], places: readonly number[]) {
  let at = 0;
  return places.map((place) => {
    while (at < along.length - 2 && nth(along, at + 1) < place) at += 1;
    const span = nth(along, at + 1) - nth(along, at);
    const share = span > 0 ? Math.min(1, Math.max(0, (place - nth(along, at)) / span)) : 0;
    return nth(values, at) + share * (nth(values, at + 1) - nth(values, at));
  });
}

function smoothed(values: readonly number[]): readonly number[] {
  const reach = (WEIGHTS.length - 1) / 2;
  return values.map((_, i) => {
    let [sum, weight] = [0, 0];
    WEIGHTS.forEach((by, k) => {
      const value = values[i + k - reach];
      if (value === undefined) return;
      sum += by * value;
      weight += by;
    });
    return sum / weight;
  });
}

/** Heading from one point to another, degrees clockwise from north; short distances, on a flat map. */
function heading(latA: number, lonA: number, latB: number, lonB: number): number {
  const east = (lonB - lonA) * Math.cos((((latA + latB) / 2) * Math.PI) / 180);
  return ((Math.atan2(east, latB - latA) * 180) / Math.PI + 360) % 360;
}

/**
 * A course from a recorded track: its length after stops and jumps are taken out, heights resampled every 50 m (wider on
 * very long tracks) and smoothed, headings for the wind. One leg, to be split and painted with ground and level.
 *
 * @param smooth the heights were smoothed before, as in a file that Barometron wrote
 * @returns the course and what the track could not tell, or a problem for a track too short to ride
 */
export function courseFromTrack(
  track: Track & { readonly name?: string },
  name: string,
  smooth = false,
): Result<{ readonly course: Course; readonly notices: readonly string[] }> {
  const along = profileOf(track);
  if (along.totalM < SHORTEST_M)
    return err(
      "short-track",
      "file",
      `The track is ${Math.round(along.totalM)} m long once its stops are taken out: a course needs 200 m or more.`,
    );
  const stepM = Math.max(STEP_M, along.totalM / MOST_STEPS);
  const steps = Math.ceil(along.totalM / stepM - 1e-9);
  const places = Array.from({ length: steps + 1 }, (_, i) => Math.min(i * stepM, along.totalM));
  const heights = along.hasHeights ? resample(along.distanceM, along.heightM, places) : places.map(() => 0);
  const heightM = smooth ? heights : smoothed(heights);
  // The profile keeps the kept points' times; their positions are found again by time.
  const byTime = new Map(track.timeS.map((time, i) => [time, i] as const));
  const kept = along.timeS.map((time) => there(byTime.get(time)));
  const lat = resample(
    along.distanceM,
    kept.map((i) => nth(track.lat, i)),
    places,
  );
  const lon = resample(
    along.distanceM,
    kept.map((i) => nth(track.lon, i)),
    places,
  );
  const { gainM, lossM } = climbAlong(heightM);
  const apart = haversine(nth(lat, 0), nth(lon, 0), lastOf(lat), lastOf(lon));
  const shape: Shape = apart < Math.min(CLOSED_M, CLOSED_SHARE * along.totalM) ? "loop" : "one way";
  const round = (value: number, digits: number) => Number(value.toFixed(digits));
  const profile: Profile = {
    stepM,
    lengthM: along.totalM,
    heightM: heightM.map((height) => round(height, 2)),
    lat: lat.map((value) => round(value, 6)),
    lon: lon.map((value) => round(value, 6)),
    headingDeg: places
      .slice(1)
      .map((_, i) => round(heading(nth(lat, i), nth(lon, i), nth(lat, i + 1), nth(lon, i + 1)), 1)),
  };
  const mean = meanOf(heightM);
  return ok({
    course: {
      name,
      shape,
      legs: [
        {
          name: "",
          distanceM: along.totalM,
          ground: "asphalt",
          level: "",
          gainM: round(gainM.at(-1) ?? 0, 1),
          lossM: round(lossM.at(-1) ?? 0, 1),
        },
      ],
      laps: 1,
      profile,
      places: [],
      fetchedBy: "",
      latitude: round(nth(lat, 0), 5),
      longitude: round(nth(lon, 0), 5),
      ...(along.hasHeights && { altitudeM: Math.min(6000, Math.max(-430, Math.round(mean))) }),
      note: "",
    },
    notices: [
      ...(along.hasHeights ? [] : ["The track has no heights: the course is taken as flat."]),
      ...(along.gaps ? [`${along.gaps} gaps in the track were bridged straight.`] : []),
      ...(along.jumps ? [`${along.jumps} points that no bike could reach were left out.`] : []),
    ],
  });
}

/** A course's climb and fall by leg, from its profile where it has one. */
export function legClimbs(course: Course): readonly { readonly gainM: number; readonly lossM: number }[] {
  const { profile, legs } = course;
  if (!profile) return legs.map(({ gainM, lossM }) => ({ gainM, lossM }));
  const { gainM, lossM } = climbAlong(profile.heightM);
  const places = profile.heightM.map((_, i) => Math.min(i * profile.stepM, profile.lengthM));
  let from = 0;
  return legs.map(({ distanceM }, i) => {
    const to = i === legs.length - 1 ? profile.lengthM : from + distanceM;
    const at = (column: readonly number[]) => {
      const [low, high] = resample(places, column, [from, to]);
      return there(high) - there(low);
    };
    const climb = { gainM: at(gainM), lossM: at(lossM) };
    from = to;
    return climb;
  });
}
