import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import {
  climbAlong,
  climbAt,
  haversine,
  odometerFactor,
  profileOf,
  trackAt,
  type Track,
} from "#core/ride/distance";

const DEGREE_M = 111_195;
/** A straight track at a steady speed: points every `step` seconds. */
const straight = (
  points: number,
  mps: number,
  step = 1,
  ele: (i: number) => number | null = () => 0,
): Track => ({
  timeS: Array.from({ length: points }, (_, i) => i * step),
  lat: Array.from({ length: points }, () => 0),
  lon: Array.from({ length: points }, (_, i) => (i * step * mps) / DEGREE_M),
  eleM: Array.from({ length: points }, (_, i) => ele(i)),
});

describe("the odometer's factor", () => {
  test("exact proportion is found, with the floor as its doubt", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 1.5, noNaN: true }),
        fc.array(fc.double({ min: 0.5, max: 20, noNaN: true }), { minLength: 1, maxLength: 9 }),
        (k, odo) => {
          const factor = odometerFactor(
            odo.map((miles) => miles * k),
            odo,
          );
          expect(factor.ok && factor.value.k).toBeCloseTo(k, 9);
          expect(factor.ok && factor.value.sd).toBeCloseTo(0.005 * k, 6);
          expect(factor.ok && factor.value.warn).toBe(Math.abs(k - 1) > 0.03);
        },
      ),
    );
  });
  test.each([
    [[], []],
    [[1], [0]],
    [[1, 2], [1]],
  ])("%j against %j is refused", (gps, odo) => expect(odometerFactor(gps, odo).ok).toBe(false));
});

describe("a track", () => {
  test("a degree at the equator", () => expect(haversine(0, 0, 0, 1)).toBeCloseTo(111_195, 0));
  test("length, moving time and speed", () => {
    const profile = profileOf(straight(601, 6));
    expect(profile.totalM).toBeCloseTo(3600, -1);
    expect(profile.movingS).toBe(600);
    expect(profile.meanSpeedMps).toBeCloseTo(6, 2);
  });
  test("standing still adds neither distance nor moving time", () => {
    const ride = straight(101, 6);
    const jitter = Array.from({ length: 300 }, (_, i) => ride.lon.at(-1)! + (i % 2) * 0.000002);
    const profile = profileOf({
      timeS: [...ride.timeS, ...jitter.map((_, i) => 101 + i)],
      lat: [...ride.lat, ...jitter.map(() => 0)],
      lon: [...ride.lon, ...jitter],
      eleM: [...ride.eleM, ...jitter.map(() => 0)],
    });
    expect(profile.totalM).toBeCloseTo(600, 0);
    expect(profile.movingS).toBe(100);
  });
  test("a point that needs over 30 m/s is left out", () => {
    const ride = straight(101, 6);
    const profile = profileOf({ ...ride, lat: ride.lat.map((lat, i) => (i === 50 ? 0.01 : lat)) });
    expect(profile.jumps).toBe(1);
    expect(profile.totalM).toBeCloseTo(600, 0);
  });
  test("a gap over 10 s is bridged straight and counted", () => {
    const ride = straight(101, 6);
    const keep = (_: unknown, i: number) => i < 40 || i > 60;
    const profile = profileOf({
      timeS: ride.timeS.filter(keep),
      lat: ride.lat.filter(keep),
      lon: ride.lon.filter(keep),
      eleM: ride.eleM.filter(keep),
    });
    expect(profile.gaps).toBe(1);
    expect(profile.totalM).toBeCloseTo(600, 0);
  });
  test("heights are used only when every point has one", () => {
    expect(profileOf(straight(50, 5, 1, (i) => (i === 9 ? null : i))).hasHeights).toBe(false);
    expect(profileOf(straight(50, 5, 1, (i) => i)).hasHeights).toBe(true);
  });
  test("an empty track has no length", () =>
    expect(profileOf({ timeS: [], lat: [], lon: [], eleM: [] })).toMatchObject({
      totalM: 0,
      meanSpeedMps: 0,
      hasHeights: false,
    }));
  test("distance at a time, and nothing outside", () => {
    const profile = profileOf(straight(101, 6));
    expect(trackAt(profile, "distanceM", 50.5)).toBeCloseTo(303, 0);
    expect(trackAt(profile, "distanceM", 1000)).toBeUndefined();
    expect(climbAt(profile, "gainM", 300)).toBe(0);
  });
});

describe("climb", () => {
  test("noise under 3 m is no hill", () =>
    expect(climbAlong(Array.from({ length: 200 }, (_, i) => 10 + (i % 2) * 2)).gainM.at(-1)).toBe(0));
  test("up and down again are told apart", () => {
    const heights = [
      ...Array.from({ length: 60 }, (_, i) => i),
      ...Array.from({ length: 60 }, (_, i) => 60 - i),
    ];
    const { gainM, lossM } = climbAlong(heights);
    expect(gainM.at(-1)!).toBeGreaterThanOrEqual(54);
    expect(gainM.at(-1)!).toBeLessThanOrEqual(60);
    expect(lossM.at(-1)!).toBeGreaterThanOrEqual(54);
  });
  test("gain less loss is the change of height, within the step", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 300, noNaN: true }), { minLength: 5, maxLength: 60 }),
        (heights) => {
          const { gainM, lossM } = climbAlong(heights);
          for (const rows of [gainM, lossM])
            expect(rows.every((value, i) => i === 0 || value >= rows[i - 1]!)).toBe(true);
        },
      ),
    );
  });
});
