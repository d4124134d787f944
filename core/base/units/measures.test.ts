import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import {
  decimalsOf,
  DIMENSIONS,
  formatUncertain,
  fromSi,
  METRES_PER_MILE,
  toSi,
  unitOf,
  writeIn,
  writeShare,
  writeUncertain,
} from "./index.ts";
import { boundedSpan } from "./bounded.ts";

describe("measures of comparison", () => {
  test("miles a kilowatt-hour are the inverse of watt-hours a mile", () => {
    const whPerM = toSi(16, "energyPerDistance", "Wh/mi")!;
    expect(fromSi(1 / whPerM, "distancePerEnergy", "mi/kWh")).toBeCloseTo(1000 / 16, 9);
    expect(fromSi(1 / whPerM, "distancePerEnergy", "km/kWh")).toBeCloseTo((1000 / 16) * 1.609344, 9);
  });
  test("a price a mile is in units of its currency, from minor units a metre", () => {
    expect(fromSi(1, "pricePerDistance", "per km")).toBeCloseTo(10, 9);
    expect(fromSi(1, "pricePerDistance", "per mi")).toBeCloseTo(16.09344, 9);
  });
  test.each([
    [14, 1, "14 ± 2 Wh/mi"],
    [9, 4.08, "9 (4 to 19) Wh/mi"],
    [-7, 3.06, "−7 ± 6 Wh/mi"],
    [-1, 3, "under 6 Wh/mi"],
    [2, 4, "under 10 Wh/mi"],
  ])("%p Wh/mi, give or take an sd of %p, is written as what can be: %s", (mean, sd, text) => {
    const value = { mean: mean / METRES_PER_MILE, sd: sd / METRES_PER_MILE };
    expect(formatUncertain(value, "energyPerDistance", "imperial")).toBe(text);
  });
  test("no span of what is never negative reaches below nought, and it holds the mean it is of", () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 30, noNaN: true }),
        fc.double({ min: 0.001, max: 60, noNaN: true }),
        (mean, sd) => {
          const span = boundedSpan({ mean, sd });
          if (!span) return;
          expect(span.low).toBeGreaterThanOrEqual(0);
          expect(span.high).toBeGreaterThan(mean);
          expect(span.low).toBeLessThan(span.high);
        },
      ),
    ));
  test("a difference lies on either side of nought", () =>
    expect(
      formatUncertain(
        { mean: -2 / METRES_PER_MILE, sd: 1.5 / METRES_PER_MILE },
        "energyPerDistance",
        "imperial",
        true,
      ),
    ).toBe("−2 ± 3 Wh/mi"));
  test("a share of the charge stays between nothing and all", () => {
    expect(writeShare({ mean: 1.07, sd: 0.03 })).toEqual({ value: "100", spread: "(100 to 100)" });
    expect(writeShare({ mean: 0.02, sd: 0.03 })).toEqual({ value: "2", spread: "(0 to 8)" });
    expect(writeShare({ mean: 0.5, sd: 0.03 })).toEqual({ value: "50", spread: "± 6" });
  });
  test("a figure is written in the unit that is named", () => {
    const value = { mean: 0.01, sd: 0.0002 };
    expect(writeIn(value, "energyPerDistance", "Wh/km")).toEqual({
      value: "10.0",
      error: "0.4",
      spread: "± 0.4",
      unit: "Wh/km",
    });
    expect(writeIn(value, "energyPerDistance", "Wh/mi").value).toBe("16.1");
    for (const system of ["imperial", "metric"] as const)
      expect(writeUncertain(value, "energyPerDistance", system)).toEqual(
        writeIn(value, "energyPerDistance", unitOf("energyPerDistance", system)),
      );
  });
  test("every unit goes to SI and back", () =>
    fc.assert(
      fc.property(
        fc.constantFrom(
          "distancePerEnergy",
          "energyPerClimb",
          "pricePerDistance",
          "climb",
          "energyPerDistance",
        ),
        fc.double({ min: -1e4, max: 1e4, noNaN: true }),
        (name, value) => {
          for (const { symbol } of DIMENSIONS[name].units) {
            expect(fromSi(toSi(value, name, symbol)!, name, symbol)).toBeCloseTo(value, 6);
            expect(decimalsOf(name, symbol)).toBeGreaterThanOrEqual(0);
          }
        },
      ),
    ));
});
