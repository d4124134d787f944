import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import {
  DIMENSIONS,
  errorDecimals,
  formatInput,
  formatQuantity,
  formatUncertain,
  fromSi,
  METRES_PER_MILE,
  parseNumber,
  parseQuantity,
  toSi,
  withRelative,
  type DimensionName,
  writeNarrowing,
  stopwatchAt,
  stopwatchText,
} from "#core/base";

const names = Object.keys(DIMENSIONS) as DimensionName[];
const anyUnit = fc
  .constantFrom(...names)
  .chain((name) => fc.tuple(fc.constant(name), fc.constantFrom(...DIMENSIONS[name].units)));

describe("units", () => {
  test("go to SI and back", () => {
    fc.assert(
      fc.property(anyUnit, fc.double({ min: -1e6, max: 1e6, noNaN: true }), ([name, { symbol }], value) => {
        expect(fromSi(toSi(value, name, symbol)!, name, symbol)).toBeCloseTo(value, 6);
      }),
    );
  });
  test.each([
    ["12 km", "distance", "mi", 12_000],
    ["12.4", "distance", "mi", 12.4 * METRES_PER_MILE],
    ["12,4 mi", "distance", "km", 12.4 * METRES_PER_MILE],
    ["31 psi", "pressure", "bar", 213_737.467],
    ["-3 C", "temperature", "F", -3],
    ["\u22123 °C", "temperature", "F", -3],
    ["27 F", "temperature", "C", -2.7778],
    ["57 lb", "mass", "kg", 25.8548],
    ["1.5 h", "duration", "min", 5400],
    ["61%", "percent", "%", 61],
    ["48,6V", "volts", "V", 48.6],
    ["0.612 kWh", "energy", "Wh", 612],
  ] as const)("%s is read", (text, name, unit, si) => {
    const value = parseQuantity(text, name, unit);
    expect(value.ok && value.value).toBeCloseTo(si, 2);
  });
  test("what a form shows reads back as the value it was made from", () => {
    fc.assert(
      fc.property(anyUnit, fc.integer({ min: -99_999, max: 99_999 }), ([name, { symbol }], thousandths) => {
        const value = toSi(thousandths / 1000, name, symbol)!;
        const read = parseQuantity(formatInput(value, name, symbol), name, symbol);
        expect(read.ok && Math.abs(fromSi(read.value, name, symbol) - thousandths / 1000)).toBeLessThan(1e-6);
      }),
    );
  });
});

describe("numbers as people write them", () => {
  test.each([
    ["12,5", 12.5],
    ["1.234,5", 1234.5],
    ["1,234.5", 1234.5],
    ["1 234,5", 1234.5],
    ["1'234", 1234],
    [".5", 0.5],
    ["0,125", 0.125],
    ["\u22124", -4],
    ["1,234,567", 1_234_567],
  ])("%s is %p", (text, value) => expect(parseNumber(text)).toBe(value));
  test.each(["", "abc", "1.2.3", "12,34,5", "--3", "1,23.4", "4e3"])("%p is not a number", (text) =>
    expect(parseNumber(text)).toBeUndefined(),
  );
  test("a comma before three digits is refused, not guessed", () => {
    expect(parseNumber("1,234")).toBe("ambiguous");
    expect(parseQuantity("1,234 Wh", "energy", "Wh")).toMatchObject({
      ok: false,
      problems: [{ code: "ambiguous" }],
    });
  });
  test("a decimal point is never read as thousands", () => expect(parseNumber("3.125")).toBe(3.125));
});

describe("what cannot be read says what to type", () => {
  test.each([
    ["", "empty", "Type a distance"],
    ["far", "not-a-number", "“far” is not a distance"],
    ["12 kg", "unknown-unit", "“kg” is not a unit of a distance"],
  ])("%p", (text, code, sentence) => {
    const value = parseQuantity(text, "distance", "mi", "distanceM");
    expect(value).toMatchObject({ ok: false, problems: [{ code, path: "distanceM" }] });
    expect(!value.ok && value.problems[0]!.sentence).toContain(sentence);
  });
});

describe("figures are rounded to what their error supports", () => {
  test.each([
    [0.144, 2],
    [0.5, 1],
    [1.4, 1],
    [2.3, 0],
    [14, 0],
    [0, 1],
    [NaN, 1],
  ])("an error of %p keeps %p decimals", (error, decimals) => expect(errorDecimals(error)).toBe(decimals));
  test("value and plus-or-minus stand at the same decimals, 95 %", () => {
    expect(
      formatUncertain(
        { mean: 13.856 / METRES_PER_MILE, sd: 0.8444 / METRES_PER_MILE },
        "energyPerDistance",
        "imperial",
      ),
    ).toBe("13.9 ± 1.7 Wh/mi");
    expect(
      formatUncertain(
        { mean: 13.856 / METRES_PER_MILE, sd: 0.8444 / METRES_PER_MILE },
        "energyPerDistance",
        "metric",
      ),
    ).toBe("8.6 ± 1.0 Wh/km");
  });
  test("a temperature's error is not shifted by its zero", () => {
    expect(formatUncertain({ mean: 10, sd: 1 }, "temperature", "imperial")).toBe("50 ± 4 F");
  });
  test("a true minus, and no minus zero", () => {
    expect(formatQuantity(-3, "temperature", "metric")).toBe("\u22123 C");
    expect(formatQuantity(-0.2, "temperature", "metric")).toBe("0 C");
  });
  test("relative errors add in quadrature", () =>
    expect(withRelative({ mean: 10, sd: 0.3 }, 0.04).sd).toBeCloseTo(0.5));
});

test("a narrowing span is written so that it is seen to narrow", () => {
  expect(writeNarrowing(2.02, 1.61)).toEqual(["2.0", "1.6"]);
  expect(writeNarrowing(2.4, 2.2)).toEqual(["2.4", "2.2"]);
  expect(writeNarrowing(12, 5)).toEqual(["12", "5"]);
  expect(writeNarrowing(0.502, 0.5)).toEqual(["0.50", "0.50"]);
});

test.each([
  ["3:24", 204],
  ["1:03:24", 3804],
  ["0:09", 9],
])("a stopwatch's %s is %i s, and back", (text, seconds) => {
  expect(stopwatchAt(text)).toBe(seconds);
  expect(stopwatchText(seconds)).toBe(text);
});
test("what no stopwatch shows is left to others", () =>
  expect(["184 s", "3:60", ""].map(stopwatchAt)).toEqual([null, null, null]));
