import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import {
  differenceOf,
  inMeasure,
  type MeasureBasis,
  type MEASURES,
  onPack,
  weightedMean,
  weightedSum,
  type ErrorComponents,
  combine,
} from "#core/compare";

const figure = fc.record({
  mean: fc.double({ min: 0.002, max: 0.03, noNaN: true }),
  effects: fc.dictionary(
    fc.constantFrom("capacity:p", "drag:b", "measured:1", "measured:2"),
    fc.double({ min: -0.001, max: 0.001, noNaN: true }),
    { minKeys: 1 },
  ),
});

describe("figures with their errors told apart", () => {
  test("a figure less itself is zero, without error", () =>
    fc.assert(
      fc.property(figure, (each) => {
        expect(combine(differenceOf(each, each))).toEqual({ mean: 0, sd: 0 });
      }),
    ));
  test("a sum's error is never more than its parts' errors together", () =>
    fc.assert(
      fc.property(figure, figure, (a, b) => {
        const both = combine(weightedSum([[a, 1], [b, 1]])); // prettier-ignore
        expect(both.sd).toBeLessThanOrEqual(combine(a).sd + combine(b).sd + 1e-12);
      }),
    ));
  test("pooling narrows what is each one's own and keeps what they share", () => {
    const of = (id: string, mean: number): ErrorComponents => ({ mean, effects: { [id]: 0.2, pack: 0.3 } });
    const pool = weightedMean([of("a", 10), of("b", 10.1)]);
    expect(pool.mean).toBeCloseTo(10.05, 9);
    expect(pool.effects["pack"]).toBeCloseTo(0.3, 9);
    expect(combine(pool).sd).toBeCloseTo(Math.hypot(0.2 / Math.SQRT2, 0.3), 9);
  });
  test("tests that disagree widen the pool; one alone stays as it is", () => {
    const of = (id: string, mean: number): ErrorComponents => ({ mean, effects: { [id]: 0.2 } });
    expect(combine(weightedMean([of("a", 10), of("b", 14)])).sd).toBeCloseTo(2, 9);
    expect(weightedMean([of("a", 10)])).toEqual(of("a", 10));
  });
});

describe("measures", () => {
  const basis: MeasureBasis = {
    capacity: onPack("p", { mean: 500, sd: 20 }),
    climbPerM: 0.02,
    option: { addedWh: 250, addedMinor: 50_000 },
    commonWh: 500,
  };
  const put = (name: (typeof MEASURES)[number], each: ErrorComponents, over: Partial<MeasureBasis> = {}) => {
    const found = inMeasure(name, each, { ...basis, ...over });
    if (!found.ok) throw new Error(found.problems[0]!.sentence);
    return found.value;
  };
  const ten: ErrorComponents = { mean: 0.01, effects: { "capacity:p": 0.0004, "measured:t": 0.0001 } };
  test("its own pack's error cancels in its range", () => {
    const range = put("rangeOwn", ten);
    expect(range.mean).toBeCloseTo(50_000, 6);
    expect(combine(range).sd / range.mean).toBeCloseTo(0.01, 9);
    expect(
      combine(put("rangeOwn", ten, { capacity: onPack("other", { mean: 500, sd: 20 }) })).sd / range.mean,
    ).toBeGreaterThan(0.05);
  });
  test("each is what it says", () => {
    expect(put("milesPerKwh", ten).mean).toBeCloseTo(100, 9);
    expect(put("rangeCommon", ten).mean).toBeCloseTo(50_000, 6);
    expect(put("whPerClimb", ten).mean).toBeCloseTo(0.5, 9);
    expect(put("climbCommon", ten).mean).toBeCloseTo(1000, 6);
    expect(put("pricePerMile", ten).mean).toBeCloseTo(2, 9);
  });
  test("relative error is the same in every measure of a figure on a common pack", () =>
    fc.assert(
      fc.property(figure, (each) => {
        const share = (x: ErrorComponents) => combine(x).sd / x.mean;
        for (const name of [
          "milesPerKwh",
          "rangeCommon",
          "whPerClimb",
          "climbCommon",
          "pricePerMile",
        ] as const)
          expect(share(put(name, each))).toBeCloseTo(share(each), 9);
      }),
    ));
  test.each([
    ["whPerClimb", { climbPerM: null }, "no-climb"],
    ["climbCommon", { climbPerM: 0.001 }, "no-climb"],
    ["rangeOwn", { capacity: null }, "no-capacity"],
    ["pricePerMile", { option: null }, "no-option"],
    ["pricePerMile", { option: { addedWh: -20, addedMinor: 100 } }, "no-option"],
  ] as const)("%s without what it goes by is refused", (name, over, code) =>
    expect(inMeasure(name, ten, { ...basis, ...over })).toMatchObject({ problems: [{ code }] }),
  );
});
