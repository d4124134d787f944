import { expect, test } from "@jest/globals";
import { DEFAULTS, assumptionRows } from "#core/base";

test("every assumption is one row for people: value, unit and what it is", () => {
  expect(assumptionRows.map(({ name }) => name).sort()).toEqual(Object.keys(DEFAULTS).sort());
  for (const { name, value, unit, what } of assumptionRows) {
    expect(value).toBe(DEFAULTS[name as keyof typeof DEFAULTS]);
    expect(Number.isFinite(value)).toBe(true);
    expect(unit).not.toBe("");
    expect(what.length).toBeGreaterThan(8);
  }
});

test("no two rows read the same", () => {
  const said = assumptionRows.map(({ what, unit }) => `${what} ${unit}`);
  const twice = said.filter((row, i) => said.indexOf(row) !== i);
  expect(twice.filter((row) => !row.startsWith("doubt of that"))).toEqual([]);
});
