import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { climbOf, pairedDifference, spot } from "#core/compare";

const pack = { ampHours: 14, labelWh: 672, nominalVolts: 48 };
const row = (speedMph: number, ampsLow: number, ampsHigh: number, packVolts?: number) => ({
  speedMph,
  ampsLow,
  ampsHigh,
  packVolts,
});

describe("a spot of a sweep", () => {
  test("its directions count alike, in either order", () => {
    const [out, back] = [row(14, 6, 7, 49), row(17, 3, 4, 50)];
    expect(spot([out, back], pack)).toEqual(spot([back, out], pack));
  });
  test("twice the same direction says what one does, with less doubt", () => {
    const [once, twice] = [spot([row(16, 5, 6)], pack), spot([row(16, 5, 6), row(16, 5, 6)], pack)];
    if (!once.ok || !twice.ok) throw new Error("spots are expected");
    expect(twice.value.whPerMi).toBeCloseTo(once.value.whPerMi, 12);
    expect(twice.value.sdWhPerMi).toBeCloseTo(once.value.sdWhPerMi / Math.SQRT2, 12);
  });
  test("downhill with nothing drawn still averages with the way up", () =>
    expect(spot([row(12, 8, 9), row(20, 0, 0)], pack).ok).toBe(true));
  test.each([
    ["no rows", [], "no-rows"],
    ["low over high", [row(15, 7, 6)], "low-over-high"],
    ["standing", [row(0, 5, 6)], "no-speed"],
    ["nothing drawn at all", [row(15, 0, 0)], "no-current"],
  ])("%s is refused", (_what, rows, code) =>
    expect(spot(rows, pack)).toMatchObject({ problems: [{ code }] }),
  );
});

describe("paired runs", () => {
  const run = (startPercent: number, endPercent: number, distanceMi = 5) => ({
    startPercent,
    endPercent,
    distanceMi,
  });
  const paired = (...pairs: readonly { A: ReturnType<typeof run>; B: ReturnType<typeof run> }[]) => {
    const found = pairedDifference(500, 1, pairs);
    if (!found.ok) throw new Error(found.problems[0]!.sentence);
    return found.value;
  };
  test("one pair has the display's step for its doubt, and settles nothing: how pairs scatter is unknown", () => {
    const found = paired({ A: run(100, 80), B: run(80, 70) });
    expect(found).toMatchObject({
      differences: [10],
      mean: 10,
      sdScatter: null,
      resolved: false,
      pairsNeeded: 1,
    });
    expect(found.sd).toBe(found.sdRounding);
  });
  test("runs alike give no difference, and nothing would resolve it", () =>
    expect(paired({ A: run(100, 90), B: run(90, 80) })).toMatchObject({
      mean: 0,
      resolved: false,
      pairsNeeded: null,
    }));
  test("a point of difference is not resolved by one pair, and says how many would", () => {
    const found = paired({ A: run(100, 89), B: run(89, 79) });
    expect(found.resolved).toBe(false);
    const repeated = paired(
      ...Array.from({ length: found.pairsNeeded! + 1 }, () => ({ A: run(100, 89), B: run(89, 79) })),
    );
    expect(repeated.resolved).toBe(true);
  });
  test("A against B is B against A with its sign turned", () =>
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 30 }), fc.integer({ min: 2, max: 30 }), (a, b) => {
        const [A, B] = [run(100, 100 - a), run(90, 90 - b)];
        expect(paired({ A, B }).mean).toBeCloseTo(-paired({ A: B, B: A }).mean, 12);
      }),
    ));
  test("a run that gained charge, or went nowhere, is refused beside its field", () => {
    expect(pairedDifference(500, 1, [{ A: run(80, 90), B: run(80, 70) }])).toMatchObject({
      problems: [{ code: "no-drop", path: "pairs.0.A.endPercent" }],
    });
    expect(pairedDifference(500, 1, [{ A: run(90, 80), B: run(80, 70, 0) }])).toMatchObject({
      problems: [{ code: "no-distance", path: "pairs.0.B.distanceMi" }],
    });
    expect(pairedDifference(500, 1, [])).toMatchObject({ problems: [{ code: "no-pairs" }] });
  });
});

describe("a climb", () => {
  test.each([
    ["lengthMi", "no-length"],
    ["gainM", "no-gain"],
    ["timeS", "no-time"],
  ])("without %s is refused", (field, code) =>
    expect(climbOf({ lengthMi: 0.62, gainM: 47, timeS: 184, energyWh: 31, [field]: 0 })).toMatchObject({
      problems: [{ code }],
    }),
  );
});
