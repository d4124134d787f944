import { XMLBuilder } from "fast-xml-parser";
import { courseFromTrack, courseSchema, legClimbs, type Course, type Profile } from "#core/route";
import { there, nth, errs, fromIssues, ok, type Result } from "#core/base";
import { scanGpx, trackOf, type GpxFile } from "./gpx.ts";

/** The extension's namespace; docs/formats/course-gpx.md describes it. */
export const COURSE_NAMESPACE = "urn:barometron:course:1";

const builder = new XMLBuilder({ ignoreAttributes: false, attributeNamePrefix: "@", format: true });

/** Attributes of a node, empty ones left out. */
function attributes(values: Readonly<Record<string, string | number | undefined>>) {
  return Object.fromEntries(
    Object.entries(values).flatMap(([name, value]) =>
      value === undefined || value === "" ? [] : [[`@${name}`, String(value)]],
    ),
  );
}

/** A place's position along the profile; null on a course without one. */
function positionAt({ profile }: Course, atM: number) {
  if (!profile) return null;
  const i = Math.min(profile.lat.length - 1, Math.round(atM / profile.stepM));
  return { lat: nth(profile.lat, i), lon: nth(profile.lon, i) };
}

/**
 * Writes a course as GPX 1.1: its places as waypoints and its way as a track where it has positions, and everything that
 * GPX has no word for (legs with ground and level, laps, shape) in an extension of its own.
 */
export function writeCourseGpx(course: Course): string {
  const { name, note, shape, laps, fetchedBy, legs, places, profile } = course;
  const climbs = legClimbs(course);
  const number = (value: number) => Number(value.toFixed(2));
  const body = {
    "?xml": { "@version": "1.0", "@encoding": "UTF-8" },
    gpx: {
      "@version": "1.1",
      "@creator": "Barometron",
      "@xmlns": "http://www.topografix.com/GPX/1/1",
      "@xmlns:bm": COURSE_NAMESPACE,
      metadata: { name, ...(note && { desc: note }) },
      wpt: places.flatMap((place) => {
        const at = positionAt(course, place.atM);
        return at ? [{ ...attributes(at), name: place.name, type: place.kind }] : [];
      }),
      ...(profile && {
        trk: {
          name,
          trkseg: {
            trkpt: profile.lat.map((lat, i) => ({
              ...attributes({ lat, lon: profile.lon[i] }),
              ele: profile.heightM[i],
            })),
          },
        },
      }),
      extensions: {
        "bm:course": {
          ...attributes({
            shape,
            laps,
            fetchedBy,
            latitude: course.latitude,
            longitude: course.longitude,
            altitude: course.altitudeM,
          }),
          "bm:leg": legs.map((leg, i) =>
            attributes({
              name: leg.name,
              length: number(leg.distanceM),
              ground: leg.ground,
              level: leg.level,
              gain: number(nth(climbs, i).gainM),
              loss: number(nth(climbs, i).lossM),
            }),
          ),
          "bm:place": places.map((place) =>
            attributes({ name: place.name, at: number(place.atM), kind: place.kind }),
          ),
        },
      },
    },
  };
  return builder.build(body);
}

const numberIn = (value: string | undefined) => (value === undefined ? undefined : Number(value));

export interface CourseRead {
  readonly course: Course;
  readonly notices: readonly string[];
}

/** Share of the work that reading through the file is. */
const READING = 0.7;

/**
 * Reads a course from GPX: one that Barometron wrote comes back with its legs, places and laps; any other track, recorded
 * or planned, becomes a course of one leg with its profile.
 *
 * @param name for a track without one; @param step is told how much of the work is done
 */
export function readCourseGpx(
  text: string,
  name: string,
  step: (share: number) => void = () => undefined,
): Result<CourseRead> {
  const scanned = scanGpx(text, "file", (share) => step(share * READING));
  if (!scanned.ok) return scanned;
  const file = scanned.value;
  const own = file.own.length > 0;
  if (own && file.points.length === 0) return ownCourse(file, name, null);
  const track = trackOf(file, "file", true);
  if (!track.ok) return track;
  step(READING + 0.1);
  const made = courseFromTrack(track.value, track.value.name || file.metaName || name, own);
  step(READING + 0.2);
  return made.ok && own ? ownCourse(file, name, made.value.course.profile) : made;
}

/** The course of a file that Barometron wrote. */
function ownCourse(file: GpxFile, name: string, profile: Profile | null): Result<CourseRead> {
  const [course] = file.own;
  const each = (tag: string) =>
    file.own.filter((element) => element.name === tag).map(({ attributes: of }) => of);
  const { shape, laps, fetchedBy = "", latitude, longitude, altitude } = there(course).attributes;
  const parsed = courseSchema.safeParse({
    name: file.metaName || name,
    note: file.metaDesc,
    shape,
    laps: numberIn(laps),
    fetchedBy,
    latitude: numberIn(latitude),
    longitude: numberIn(longitude),
    altitudeM: numberIn(altitude),
    legs: each("leg").map(({ name: leg = "", length, ground, level = "", gain, loss }) => ({
      name: leg,
      distanceM: numberIn(length),
      ground,
      level,
      gainM: numberIn(gain),
      lossM: numberIn(loss),
    })),
    places: each("place").map(({ name: place, at, kind }) => ({ name: place, atM: numberIn(at), kind })),
    profile,
  });
  return parsed.success ? ok({ course: parsed.data, notices: [] }) : errs(fromIssues(parsed.error.issues));
}
