import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { SPENT, wayInAll, wayLeft, type RideSoFar } from "#core/analysis/projection";
import { METRES_PER_MILE, spanOf } from "#core/base";

const mi = (miles: number) => miles * METRES_PER_MILE;
const ride = (rest: Partial<RideSoFar> = {}): RideSoFar => ({
  distance: { mean: mi(20), sd: 0 },
  used: { mean: 0.4, sd: 0.01 },
  spent: { mean: 0.4, sd: 0.01 },
  covariance: 0.01 ** 2,
  scatter: 0.25,
  ...rest,
});
const TO_END = SPENT.toEnd;
const miles = (metres: number) => metres / METRES_PER_MILE;

describe("the way left", () => {
  test("is what is left at the rate so far", () => {
    expect(miles(wayLeft(ride(), { mean: 0.8, sd: 0 })!.mean)).toBeCloseTo(20, 9);
    expect(miles(wayLeft(ride(), TO_END)!.mean)).toBeCloseTo(30, 9);
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
    expect(wayLeft(ride({ used: { mean: 0.4, sd: 0.25 } }), TO_END)).toBeNull();
  });
  test("is never less than nothing, and its edges lie about it", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 1.2, noNaN: true }),
        fc.double({ min: 0.001, max: 0.3, noNaN: true }),
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        (used, sd, scatter) => {
          const both = { mean: used, sd };
          const left = wayLeft(ride({ used: both, spent: both, covariance: sd * sd, scatter }), TO_END);
          if (!left) return;
          const { low, high } = spanOf(left);
          expect(left.mean).toBeGreaterThanOrEqual(0);
          expect(low).toBeGreaterThanOrEqual(0);
          expect(high).toBeGreaterThanOrEqual(Math.max(low, left.mean));
          expect(Number.isFinite(high)).toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe("the way on a whole charge", () => {
  test("half the energy over 20 miles is 40 to the end", () =>
    expect(
      miles(
        wayInAll(ride({ used: { mean: 0.5, sd: 0.01 }, spent: { mean: 0.5, sd: 0.01 } }), TO_END, true)!.mean,
      ),
    ).toBeCloseTo(40, 9));
  test("is what was ridden and what is left, and never less than what was ridden", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.98, noNaN: true }),
        fc.double({ min: 0.001, max: 0.05, noNaN: true }),
        fc.double({ min: 0.05, max: 2, noNaN: true }),
        (used, sd, scatter) => {
          const so = ride({
            ...{ used: { mean: used, sd }, spent: { mean: used, sd } },
            ...{ covariance: sd * sd, scatter },
          });
          const [left, whole] = [wayLeft(so, TO_END), wayInAll(so, TO_END, true)];
          if (!left || !whole) return expect(whole).toBe(left);
          expect(whole.mean).toBeCloseTo(so.distance.mean + left.mean, 6);
          expect(whole.sd).toBeCloseTo(left.sd, 6);
          expect(spanOf(whole).low).toBeGreaterThanOrEqual(so.distance.mean);
        },
      ),
    );
  });
  test("of a ride that did not begin full it is what it would have been", () => {
    const partly = ride({ spent: { mean: 0.6, sd: 0.02 } });
    expect(miles(wayInAll(partly, TO_END, false)!.mean)).toBeCloseTo(50, 9);
  });
  test("a share that is spent already lies behind, as sure as the readings", () => {
    const dead = ride({
      used: { mean: 1, sd: 0.01 },
      spent: { mean: 1, sd: 0.01 },
      distance: { mean: mi(20), sd: 0 },
    });
    const { mean, sd } = wayInAll(dead, SPENT.toReserve, true)!;
    expect(miles(mean)).toBeCloseTo(16, 9);
    expect(sd / mean).toBeCloseTo(0.01, 9);
  });
});
