import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import {
  decimalBy,
  fixed,
  formatInput,
  formatUncertain,
  parseQuantity,
  renderUnits,
  unitToken,
  withReadersDecimals,
} from "#core/base";

describe("for a reader who writes a comma", () => {
  beforeAll(() => decimalBy(() => ","));
  afterAll(() => decimalBy(() => "."));

  test("figures, their plus-or-minus and sentences have it", () => {
    expect(fixed(-1.25, 1)).toBe("−1,3");
    expect(formatUncertain({ mean: 0.00861, sd: 0.000525 }, "energyPerDistance", "imperial")).toBe(
      "13,9 ± 1,7 Wh/mi",
    );
    expect(renderUnits(`62 % at ${unitToken(15_127, "distance")} is 2.5 times the usual.`, "metric")).toBe(
      "62 % at 15,1 km is 2,5 times the usual.",
    );
  });
  test("what was typed, versions and addresses stay as they are", () => {
    for (const same of ["“3.000” can be read two ways", "version 2.17.5", "127.0.0.1", "no figure. 3 of 5"])
      expect(withReadersDecimals(same)).toBe(same);
  });
  test("every field's text is read back as it was, in either way of writing", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.001, max: 400_000, noNaN: true }), (metres) => {
        const text = formatInput(metres, "distance", "km");
        expect(text).not.toContain(".");
        const read = parseQuantity(text, "distance", "mi");
        expect(read.ok && Math.abs(read.value - metres)).toBeLessThanOrEqual(0.51);
      }),
    );
  });
});

test("three digits behind the point of a field are never asked about", () => {
  expect(formatInput(1.234, "climb", "m")).toBe("1.2340 m");
  expect(parseQuantity("1.2340 m", "climb", "m")).toMatchObject({ ok: true, value: 1.234 });
  expect(formatInput(1234, "distance", "km")).toBe("1.234 km");
  expect(parseQuantity("1.234 km", "distance", "mi")).toMatchObject({ ok: true, value: 1234 });
});

describe("a figure that may mean thousands is asked about", () => {
  test.each([
    ["3.000 km", "distance", "type 3.0 or 3000."],
    ["12.000", "distance", "type 12.0 or 12000."],
    ["1.250 m", "climb", "type 1.25 or 1250."],
    ["1.234 Wh", "energy", "type 1.2340 or 1234."],
    ["1,234 km", "distance", "type 1.2340 or 1234."],
  ] as const)("%s", (text, name, says) => {
    const read = parseQuantity(text, name, "km");
    expect(read).toMatchObject({ ok: false, problems: [{ code: "ambiguous" }] });
    expect(!read.ok && read.problems[0]!.sentence).toContain(says);
  });
  test.each([
    ["12.345 km", "distance", 12_345],
    ["52.123 V", "volts", 52.123],
    ["0.125 km", "distance", 125],
  ] as const)("%s is plain", (text, name, value) =>
    expect(parseQuantity(text, name, "km")).toMatchObject({ ok: true, value }),
  );
  test("in a column of a file a point is a point", () =>
    expect(parseQuantity("3.000", "distance", "km", "", true)).toMatchObject({ ok: true, value: 3000 }));
});
