import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { decimalsOf, DIMENSIONS, fromSi, toSi, unitOf, writeIn, writeUncertain } from "./index.ts";

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
  test("a figure is written in the unit that is named", () => {
    const value = { mean: 0.01, sd: 0.0002 };
    expect(writeIn(value, "energyPerDistance", "Wh/km")).toEqual({
      value: "10.0",
      error: "0.4",
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
