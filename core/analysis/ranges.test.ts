import { describe, expect, test } from "@jest/globals";
import { ledgerInputSchema, solveLedger, type Solved } from "#core/estimation";
import { METRES_PER_MILE } from "#core/base";
import type { Timeline } from "#core/ride/log";
import type { EndView } from "#core/analysis";
import { ranges } from "./ranges.ts";

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
const open: EndView = { reason: null, closed: false, fullPower: null, used: { mean: 0.5, sd: 0.01 } };
const closed: EndView = { ...open, closed: true };
const until = (distanceM: number, by: "hand" | "low-power mode"): EndView => ({
  ...closed,
  fullPower: { distanceM, by, rootId: null },
});

describe("range three ways", () => {
  test("projected from a part, in pencil, each with its share", () => {
    const { rangeTotal, rangeFullPower, rangeWithReserve } = ranges(ride(45), LONG_M, 0.005, 1, course, open);
    expect(rangeTotal).toMatchObject({
      pencil: true,
      because: expect.stringMatching(/^projected from \d+ % of the energy$/),
    });
    expect(rangeFullPower!.value.mean / rangeTotal!.value.mean).toBeCloseTo(0.92, 9);
    expect(rangeWithReserve!.value.mean / rangeTotal!.value.mean).toBeCloseTo(0.8, 9);
  });
  test("ridden from full to the end is ink, and as sure as the distance", () => {
    const { rangeTotal } = ranges(ride(1, [{ kind: "cutOff", mark: 2 }]), LONG_M, 0.005, 1, course, closed);
    expect(rangeTotal).toEqual({
      value: { mean: LONG_M, sd: LONG_M * 0.005 },
      because: "ridden, full to the end",
      pencil: false,
      how: [],
    });
  });
  test("a charge in between makes it a projection again", () => {
    const { rangeTotal } = ranges(ride(1, [{ kind: "cutOff", mark: 2 }]), LONG_M, 0.005, 1, charged, closed);
    expect(rangeTotal!.pencil).toBe(true);
  });
  test.each(["low-power mode", "hand"] as const)("by %s is where full power ends", (by) => {
    const dead = ride(1, [{ kind: "cutOff", mark: 2 }]);
    const { rangeFullPower } = ranges(dead, LONG_M, 0.005, 1, course, until(0.9 * LONG_M, by));
    expect(rangeFullPower).toMatchObject({ pencil: false, value: { mean: 0.9 * LONG_M } });
  });
  test("under 30 % used it is a sketch", () => {
    expect(ranges(ride(85), LONG_M, 0.005, 1, course, open).rangeTotal!.because).toContain("a sketch");
  });
  test("a ride the readings say nothing of has no range", () => {
    const nothing = ride(100, [{ kind: "percent", mark: 1, percent: 100 }]);
    const { rangeTotal } = ranges(nothing, LONG_M, 0.005, 40, course, open);
    expect(rangeTotal).toBeNull();
  });
  test("disagreement widens it", () => {
    const [once, twice] = [1, 2].map(
      (wide) => ranges(ride(45), LONG_M, 0, wide, course, open).rangeTotal!.value.sd,
    );
    expect(twice! / once!).toBeCloseTo(2, 9);
  });
});
