import { describe, expect, test } from "@jest/globals";
import { ledgerInputSchema, solveLedger, type Solved } from "#core/estimation";
import { METRES_PER_MILE } from "#core/base";
import type { Timeline } from "#core/ride/log";
import type { EndView } from "#core/analysis";
import { ranges } from "./ranges.ts";
import { soFar } from "./soFar.ts";

/** A 20-mile ride from full to a percent, solved. */
function ride(percent: number, more: readonly object[] = []): Solved {
  const solved = solveLedger(
    ledgerInputSchema.parse({
      pack: { chemistry: "NMC", labelWh: 600, seriesCells: 13 },
      cells: ["a"],
      legs: [{ miles: { a: 10 } }, { miles: { a: 10 } }],
      readings: [{ kind: "fullStart", mark: 0 }, { kind: "percent", mark: 2, percent }, ...more],
    }),
  );
  if (!solved.ok) throw new Error("not solved");
  return solved.value;
}
const LONG_M = 20 * METRES_PER_MILE;
const course = { marks: [{ distanceM: 0 }], legs: [] } as unknown as Timeline;
const charged = { ...course, legs: [{ charged: true }] } as unknown as Timeline;
/** Of a ride of 20 miles, its sds widened. */
const rangesOf = (solved: Solved, course: Timeline, end: EndView, wide = 1) =>
  ranges(solved, soFar(solved, { mean: LONG_M, sd: 0.005 * LONG_M }, wide), 0.005, course, end);
const open: EndView = { reason: null, closed: false, fullPower: null, used: { mean: 0.5, sd: 0.01 } };
const closed: EndView = { ...open, closed: true };
const until = (distanceM: number, by: "hand" | "low-power mode"): EndView => ({
  ...closed,
  fullPower: { distanceM, by, rootId: null },
});

describe("range three ways", () => {
  test("projected from a part, in pencil, each with its share", () => {
    const { rangeTotal, rangeFullPower, rangeWithReserve } = rangesOf(ride(45), course, open);
    expect(rangeTotal).toMatchObject({
      pencil: true,
      because: expect.stringMatching(/^projected from \d+ % of the energy$/),
    });
    expect(rangeFullPower!.value.mean / rangeTotal!.value.mean).toBeCloseTo(0.92, 2);
    expect(rangeWithReserve!.value.mean / rangeTotal!.value.mean).toBeCloseTo(0.8, 2);
  });
  test("ridden from full to the end is ink, and as sure as the distance", () => {
    const { rangeTotal } = rangesOf(ride(1, [{ kind: "cutOff", mark: 2 }]), course, closed);
    expect(rangeTotal).toEqual({
      value: { mean: LONG_M, sd: LONG_M * 0.005 },
      because: "ridden, full to the end",
      pencil: false,
      how: [],
    });
  });
  test("a charge in between makes it a projection again", () => {
    const { rangeTotal } = rangesOf(ride(1, [{ kind: "cutOff", mark: 2 }]), charged, closed);
    expect(rangeTotal!.pencil).toBe(true);
  });
  test.each(["low-power mode", "hand"] as const)("by %s is where full power ends", (by) => {
    const dead = ride(1, [{ kind: "cutOff", mark: 2 }]);
    const { rangeFullPower } = rangesOf(dead, course, until(0.9 * LONG_M, by));
    expect(rangeFullPower).toMatchObject({ pencil: false, value: { mean: 0.9 * LONG_M } });
  });
  test("under 30 % used it is a sketch", () => {
    expect(rangesOf(ride(85), course, open).rangeTotal!.because).toContain("a sketch");
  });
  test("a few frugal miles still have a range, whose doubt is of its own size", () => {
    const four = soFar(ride(95), { mean: LONG_M, sd: 0.005 * LONG_M }, 1);
    expect(four.scatter).toBeLessThanOrEqual(1);
    const { mean, sd } = rangesOf(ride(95), course, open).rangeTotal!.value;
    expect(sd / mean).toBeGreaterThan(0.2);
  });
  test("a ride the readings say nothing of has no range", () => {
    const nothing = ride(100, [{ kind: "percent", mark: 1, percent: 100 }]);
    const { rangeTotal } = rangesOf(nothing, course, open, 40);
    expect(rangeTotal).toBeNull();
  });
  test("disagreement widens it", () => {
    const [once, twice] = [1, 2].map((wide) => rangesOf(ride(45), course, open, wide).rangeTotal!.value.sd);
    expect(twice!).toBeGreaterThan(1.2 * once!);
  });
});
