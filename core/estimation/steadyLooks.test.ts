import { describe, expect, test } from "@jest/globals";
import { curveOf, type Pack } from "#core/battery";
import { rowOf, type Reading, type Setting } from "#core/battery/readings";
import { lastSteadyLooks } from "./steadyLooks.ts";

const pack: Pack = { chemistry: "NMC", labelWh: 612, seriesCells: 13 };
const setting: Setting = { pack, curve: curveOf(pack), percentStep: 1, counts: "charge", bars: 5 };
const looks = (...bars: readonly number[]): Reading[] =>
  bars.map((shown, mark) => ({ kind: "bars", mark, bars: shown }));
const rowsOf = (readings: readonly Reading[]) =>
  lastSteadyLooks(
    readings,
    readings.map((reading) => rowOf(reading, setting)),
    setting,
  );
const widthOf = (row: ReturnType<typeof rowsOf>[number]) =>
  Math.hypot(...row.errors.filter(({ source }) => source === "bar width").map(({ sd }) => sd));
/** Where on the charge a row puts the look, its thresholds where they are expected. */
const saysOf = ({ value, unknowns }: ReturnType<typeof rowsOf>[number]) =>
  value - unknowns.reduce((sum, { unknown, coefficient }) => sum + coefficient * unknown.mean, 0);

describe("looks at bars", () => {
  test("one look lies in the middle of its bar, the last of three at three quarters of it", () => {
    const [once] = rowsOf(looks(3));
    expect(saysOf(once!)).toBeCloseTo(0.5, 9);
    expect(widthOf(once!)).toBeCloseTo(0.2 / Math.sqrt(12), 9);
    const thrice = rowsOf(looks(3, 3, 3));
    expect(saysOf(thrice[2]!)).toBeCloseTo(0.4 + 0.75 * 0.2, 9);
    expect(widthOf(thrice[2]!)).toBeCloseTo(0.2 * Math.sqrt(3 / 80), 9);
  });
  test("the others weigh nothing, and each bar is counted anew", () => {
    const rows = rowsOf(looks(5, 4, 4, 3));
    expect(rows.map((row) => widthOf(row) > 1)).toEqual([false, true, false, false]);
    expect(saysOf(rows[2]!)).toBeCloseTo(0.2 + (2 / 3) * 0.2, 9);
    expect(saysOf(rows[3]!)).toBeCloseTo(0.5, 9);
  });
  test("where the bar's going was noted no look at it weighs anything", () => {
    const rows = rowsOf([...looks(4, 4), { kind: "barLost", mark: 2, bar: 4 }]);
    expect(rows.slice(0, 2).every((row) => widthOf(row) > 1)).toBe(true);
  });
  test("the doubt of a look's place stays with it", () => {
    const readings = looks(3, 3);
    const placed = readings.map((reading) => {
      const row = rowOf(reading, setting);
      return { ...row, errors: [...row.errors, { source: "place of the look" as const, sd: 0.02 }] };
    });
    const [, last] = lastSteadyLooks(readings, placed, setting);
    expect(last!.errors).toContainEqual({ source: "place of the look", sd: 0.02 });
  });
});
