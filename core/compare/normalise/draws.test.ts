import { describe, expect, test } from "@jest/globals";
import { spreadOf, withoutOne } from "#core/compare";
import { rngFrom } from "#core/world";

describe("draws of a figure", () => {
  test("their spread is that of what was drawn", () => {
    const chance = rngFrom(3);
    const { mean, sd, low, high } = spreadOf(Array.from({ length: 20_000 }, () => chance.normal(14, 0.5)));
    expect(mean).toBeCloseTo(14, 1);
    expect(sd).toBeCloseTo(0.5, 1);
    expect(low).toBeCloseTo(14 - 1.96 * 0.5, 1);
    expect(high).toBeCloseTo(14 + 1.96 * 0.5, 1);
  });
  test("a lopsided spread has unequal ends", () => {
    const chance = rngFrom(4);
    const { mean, low, high } = spreadOf(
      Array.from({ length: 20_000 }, () => Math.exp(chance.normal(0, 0.5))),
    );
    expect(high - mean).toBeGreaterThan(1.5 * (mean - low));
  });
});

test("without any test left there is nothing", () =>
  expect(withoutOne([], "x")).toEqual({ id: "x", difference: null, chanceA: 0.5 }));
