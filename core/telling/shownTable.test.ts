import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { readTable, writeCsv } from "#core/io";
import { shownRows, tabbedText } from "#core/telling";

describe("a shown table as rows", () => {
  test("figures are parted from their doubt, their unit stands in the heading", () =>
    expect(
      shownRows({
        headings: ["Bike", "Use", "Left"],
        rows: [
          ["Tarrick Fold", "13 ± 3 Wh/mi", "69 %"],
          ["Brindlow 3", "−4.5 ± 1.3 Wh/mi", "7 %"],
        ],
      }),
    ).toEqual([
      { Bike: "Tarrick Fold", "Use, Wh/mi": 13, "Use ±, Wh/mi": 3, "Left, %": 69 },
      { Bike: "Brindlow 3", "Use, Wh/mi": -4.5, "Use ±, Wh/mi": 1.3, "Left, %": 7 },
    ]));
  test("a column with any words stays words; an empty cell stays empty", () =>
    expect(
      shownRows({
        headings: ["Use", "Miles"],
        rows: [
          ["13 Wh/mi", "4.0"],
          ["not told apart", ""],
        ],
      }),
    ).toEqual([
      { Use: "13 Wh/mi", Miles: 4 },
      { Use: "not told apart", Miles: "" },
    ]));
  test("two units in a column are words, so that no number loses its unit", () =>
    expect(shownRows({ headings: ["Far"], rows: [["4 mi"], ["800 ft"]] })).toEqual([
      { Far: "4 mi" },
      { Far: "800 ft" },
    ]));
  test("headings that are missing or the same are told apart", () =>
    expect(Object.keys(shownRows({ headings: ["", "a", "a"], rows: [["x", "y", "z"]] })[0]!)).toEqual([
      "column 1",
      "a",
      "a 2",
    ]));
  test("no cell is a formula in a spreadsheet, and none is lost on the way through a file", () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.string({ minLength: 1 }).filter((text) => /[a-z]/.test(text) && text.trim() === text),
          { minLength: 1, maxLength: 6 },
        ),
        (cells) => {
          const rows = shownRows({ headings: ["what", "far"], rows: cells.map((cell) => [cell, "4 mi"]) });
          const text = writeCsv(rows);
          expect(
            text
              .split("\r\n")
              .slice(1)
              .some((line) => /^[=+@-]/.test(line)),
          ).toBe(false);
          expect(readTable(text).ok).toBe(true);
        },
      ),
    ));
  test("as text, a cell holds neither tab nor line break", () =>
    expect(tabbedText([{ a: "x\ty", b: "1\n2" }])).toBe("a\tb\nx y\t1 2"));
});
