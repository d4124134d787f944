import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { wayLeft, type RideSoFar } from "#core/analysis/projection";
import { METRES_PER_MILE } from "#core/base";

const mi = (miles: number) => miles * METRES_PER_MILE;
const ride = (rest: Partial<RideSoFar> = {}): RideSoFar => ({
  distance: { mean: mi(20), sd: 0 },
  used: { mean: 0.4, sd: 0.01 },
  spent: { mean: 0.4, sd: 0.01 },
  covariance: 0.01 ** 2,
  scatter: 0.25,
  ...rest,
});
const TO_END = { mean: 1, sd: 0.015 };
const miles = (metres: number) => metres / METRES_PER_MILE;

describe("the way left", () => {
  test("is what is left at the rate so far; the last of it goes a little further", () => {
    expect(miles(wayLeft(ride(), { mean: 0.8, sd: 0 })!.mean)).toBeCloseTo(20, 9);
    const toEnd = miles(wayLeft(ride(), TO_END)!.mean);
    expect(toEnd).toBeGreaterThan(30);
    expect(toEnd).toBeLessThan(31.5);
  });
  test("from a part-full start what was spent before counts against it, not in the rate", () => {
    const partly = ride({ spent: { mean: 0.6, sd: 0.02 } });
    expect(miles(wayLeft(partly, { mean: 0.8, sd: 0 })!.mean)).toBeCloseTo(10, 9);
  });
  test("a meter that cannot tell the pack's size is surer of the rate than of the rest", () => {
    const sure = wayLeft(ride({ used: { mean: 0.4, sd: 0.004 } }), TO_END)!;
    const jointly = wayLeft(ride({ used: { mean: 0.4, sd: 0.02 }, covariance: 0.0002 }), TO_END)!;
    expect(jointly.sd).toBeGreaterThan(sure.sd);
  });
  test("a road that scatters more is told with more doubt, one of many miles with less", () => {
    const sd = (scatter: number, length = 20) => {
      const left = wayLeft(ride({ scatter, distance: { mean: mi(length), sd: 0 } }), TO_END)!;
      return left.sd / left.mean;
    };
    expect(sd(0.6)).toBeGreaterThan(sd(0.25));
    expect(sd(0.25, 60)).toBeLessThan(sd(0.25, 6));
  });
  test("nothing used, or nothing ridden, tells nothing", () => {
    expect(wayLeft(ride({ used: { mean: 0, sd: 0.01 } }), TO_END)).toBeNull();
    expect(wayLeft(ride({ distance: { mean: 0, sd: 0 } }), TO_END)).toBeNull();
  });
  test("is never less than nothing, and its edges lie about it", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 1.2, noNaN: true }),
        fc.double({ min: 0.001, max: 0.3, noNaN: true }),
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        (used, sd, scatter) => {
          const both = { mean: used, sd };
          const left = wayLeft(ride({ used: both, spent: both, covariance: sd * sd, scatter }), TO_END)!;
          expect(left.mean).toBeGreaterThanOrEqual(0);
          expect(left.low).toBeGreaterThanOrEqual(0);
          expect(left.low).toBeLessThanOrEqual(left.mean);
          expect(left.high).toBeGreaterThanOrEqual(left.mean);
          expect(Number.isFinite(left.high)).toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });
});
