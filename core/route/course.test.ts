import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import {
  courseFromTrack,
  courseSchema,
  buildRoute,
  legClimbs,
  legsLength,
  reversed,
  type Course,
} from "#core/route";
import { GROUNDS } from "#core/fields";

const leg = fc.record({
  distanceM: fc.double({ min: 200, max: 20_000, noNaN: true }),
  gain: fc.double({ min: 0, max: 0.06, noNaN: true }),
  loss: fc.double({ min: 0, max: 0.06, noNaN: true }),
  ground: fc.constantFrom(...GROUNDS),
});
const anyCourse = fc
  .record({
    legs: fc.array(leg, { minLength: 1, maxLength: 8 }),
    shape: fc.constantFrom("loop" as const, "out and back" as const),
    laps: fc.integer({ min: 1, max: 5 }),
  })
  .map(({ legs, ...rest }) =>
    courseSchema.parse({
      name: "any",
      ...rest,
      legs: legs.map(({ gain, loss, distanceM, ground }) => ({
        distanceM,
        ground,
        gainM: gain * distanceM,
        lossM: loss * distanceM,
      })),
    }),
  );
const climbOf = (pieces: readonly { slope: number; lengthM: number }[], sign: 1 | -1) =>
  pieces.reduce((sum, { slope, lengthM }) => sum + Math.max(0, sign * slope) * lengthM, 0);

describe("a way", () => {
  test("keeps the legs' length and climb, whatever their order", () => {
    fc.assert(
      fc.property(anyCourse, (course) => {
        const way = buildRoute({ ...course, shape: "loop" });
        expect(way.lapM).toBeCloseTo(legsLength(course.legs), 4);
        expect(climbOf(way.lap, 1)).toBeCloseTo(
          course.legs.reduce((sum, { gainM }) => sum + gainM, 0),
          4,
        );
      }),
    );
  });
  test("out and back climbs what it falls, and is twice the way out", () => {
    fc.assert(
      fc.property(anyCourse, (course) => {
        const way = buildRoute({ ...course, shape: "out and back" });
        expect(way.lapM).toBeCloseTo(2 * legsLength(course.legs), 4);
        expect(climbOf(way.lap, 1)).toBeCloseTo(climbOf(way.lap, -1), 4);
        expect(way.turnM).toBeCloseTo(way.lapM / 2, 4);
      }),
    );
  });
  test("turned round twice is itself", () => {
    fc.assert(
      fc.property(anyCourse, (course) => {
        const { lap } = buildRoute(course);
        reversed(reversed(lap)).forEach((piece, i) => {
          expect(piece.lengthM).toBe(lap[i]!.lengthM);
          expect(piece.slope).toBeCloseTo(lap[i]!.slope, 12);
        });
      }),
    );
  });
  test("places are passed out and again on the way back", () => {
    const course = courseSchema.parse({
      name: "c",
      shape: "out and back",
      legs: [{ distanceM: 10_000 }],
      places: [{ name: "ferry", atM: 4000 }],
    });
    expect(buildRoute(course).passings.map(({ atM }) => atM)).toEqual([4000, 16_000]);
  });
  test("laps of a plan stand instead of the course's", () => {
    const course = courseSchema.parse({ name: "c", legs: [{ distanceM: 1000 }], laps: 3 });
    expect(buildRoute(course).lengthM).toBe(3000);
    expect(buildRoute(course, 5).lengthM).toBe(5000);
  });
});

describe("what no course can be says what to type", () => {
  const parse = (more: object) => {
    const parsed = courseSchema.safeParse({ name: "c", legs: [{ distanceM: 5000 }], ...more });
    return parsed.success ? null : parsed.error.issues[0]!;
  };
  test.each([
    [{ shape: "one way" }, "fetchedBy", "where nobody can be"],
    [{ shape: "one way", fetchedBy: "the ferry", laps: 2 }, "laps", "one lap"],
    [{ legs: [] }, "legs", "at least one leg"],
    [{ legs: [{ distanceM: 5 }] }, "legs.0.distanceM", "20 m to 300 miles"],
    [{ legs: [{ distanceM: 200, gainM: 180 }] }, "legs.0.gainM", "check both units"],
    [{ places: [{ name: "far", atM: 9000 }] }, "places.0.atM", "past the end"],
    [{ latitude: 123 }, "latitude", "-90 to 90"],
  ])("%j", (more, path, said) => {
    const issue = parse(more)!;
    expect(issue.path.join(".")).toBe(path);
    expect(issue.message).toContain(said);
  });
  test("a one-way course with a lift home is one", () =>
    expect(parse({ shape: "one way", fetchedBy: "Tove, by car" })).toBeNull());
});

/** A track round a circle of some radius, on hills of some height, sampled once a second at 5 m/s. */
function track(radiusM: number, hillM: number, turns = 1) {
  const length = 2 * Math.PI * radiusM * turns;
  const count = Math.floor(length / 5);
  const degree = 111_195;
  return {
    name: "ring",
    timeS: Array.from({ length: count }, (_, i) => i),
    lat: Array.from({ length: count }, (_, i) => (radiusM / degree) * Math.sin((i * 5) / radiusM)),
    lon: Array.from({ length: count }, (_, i) => (radiusM / degree) * (1 - Math.cos((i * 5) / radiusM))),
    eleM: Array.from({ length: count }, (_, i) => hillM * Math.sin((i * 5) / radiusM)),
  };
}

describe("a course from a track", () => {
  const made = courseFromTrack(track(1000, 20), "ring");
  const course: Course = made.ok ? made.value.course : ({} as Course);
  test("has the track's length, shape and place", () => {
    expect(course.profile!.lengthM).toBeCloseTo(2 * Math.PI * 1000, -2);
    expect(course).toMatchObject({ shape: "loop", latitude: 0, longitude: 0 });
  });
  test("climbs the hill once", () => expect(course.legs[0]!.gainM).toBeCloseTo(40, -1));
  test("heads north at first, then round", () => {
    const { headingDeg } = course.profile!;
    expect(Math.min(headingDeg[0]!, 360 - headingDeg[0]!)).toBeLessThan(8);
    expect(headingDeg[Math.floor(headingDeg.length / 4)]).toBeCloseTo(90, -1);
  });
  test("is painted leg by leg; the last reaches to the end", () => {
    const painted = buildRoute({
      ...course,
      legs: [
        { ...course.legs[0]!, distanceM: 2000, ground: "brick" },
        { ...course.legs[0]!, distanceM: 1000, ground: "grass" },
      ],
    });
    const lengthOn = (ground: string) =>
      painted.lap.filter((piece) => piece.ground === ground).reduce((sum, { lengthM }) => sum + lengthM, 0);
    expect(lengthOn("brick")).toBeCloseTo(2000, -2);
    expect(lengthOn("brick") + lengthOn("grass")).toBeCloseTo(course.profile!.lengthM, 3);
  });
  test("tells each leg's climb from the profile", () => {
    const halves = legClimbs({
      ...course,
      legs: [
        { ...course.legs[0]!, distanceM: course.profile!.lengthM / 2 },
        { ...course.legs[0]!, distanceM: course.profile!.lengthM / 2 },
      ],
    });
    expect(halves[0]!.gainM + halves[1]!.gainM).toBeCloseTo(course.legs[0]!.gainM, 0);
  });
  test("a way that ends elsewhere is one way", () => {
    const { timeS, lat, lon, eleM } = track(4000, 5, 0.3);
    expect(courseFromTrack({ timeS, lat, lon, eleM }, "arc")).toMatchObject({
      ok: true,
      value: { course: { shape: "one way" } },
    });
  });
  test("without heights it is flat, and says so", () => {
    const bare = { ...track(1000, 0), eleM: track(1000, 0).eleM.map(() => null) };
    const flat = courseFromTrack(bare, "flat");
    expect(flat.ok && flat.value.notices[0]).toContain("no heights");
  });
  test("a stroll round the yard is none", () =>
    expect(courseFromTrack(track(10, 0), "yard")).toMatchObject({
      ok: false,
      problems: [{ code: "short-track" }],
    }));
  test("noise of a metre or two does not climb", () => {
    const flat = track(2000, 0);
    const noisy = { ...flat, eleM: flat.eleM.map((_, i) => 12 + 1.5 * Math.sin(i * 2.1)) };
    const result = courseFromTrack(noisy, "noise");
    expect(result.ok && result.value.course.legs[0]!.gainM).toBeLessThan(4);
  });
});
