import { describe, expect, test } from "@jest/globals";
import { fromSi, spellingsOf, there, toSi, unitOf } from "#core/base";
import { readTyped, SIGHTING, SIGHTING_FIELDS, type Field, type SightingField } from "#core/fields";
import { readLine } from "#core/ride/log";
import { guessColumns, readCheckIns, readTable } from "#core/io";

/** One vocabulary: what the form, a table or the line reads of a quantity, the others read the same. */
const setting = { levels: ["low", "high"], throttle: false };
const OPTIONS = {
  ...{ distanceUnit: "mi" as const, levelHolds: "from here" as const, day: "2026-06-01", zone: "+00:00" },
  fullAtStart: false,
};

const byLine = (text: string) => {
  const { body, unread } = readLine(`3 mi ${text}`, setting);
  expect([text, unread]).toEqual([text, []]);
  return body as Readonly<Record<string, unknown>>;
};
const byForm = (name: SightingField, text: string) => {
  const { dimension }: Field = SIGHTING[name];
  const read = readTyped(name, text, unitOf(there(dimension), "imperial"));
  if (!read.ok) throw new Error(`${text}: ${read.problems[0]!.sentence}`);
  return read.value as Readonly<Record<string, unknown>>;
};
const byTable = (name: SightingField, text: string) => {
  const { column }: Field = SIGHTING[name];
  const others = ["distance", "percent"].filter((each) => each !== column!.headings[0]);
  const table = readTable(
    `${[...others, column!.headings[0]].join(";")}\n${others.map(() => "3").join(";")};${text}\n`,
  );
  if (!table.ok) throw new Error(text);
  const rows = readCheckIns(table.value, guessColumns(table.value, "mi"), OPTIONS, 5);
  if (!rows.ok) throw new Error(`${text}: ${rows.problems[0]!.sentence}`);
  return rows.value[0]!.body as unknown as Readonly<Record<string, unknown>>;
};

/** Quantities the line has units for, with every spelling of each unit, behind the figure and after a space. */
const written = SIGHTING_FIELDS.flatMap((name) => {
  const { dimension, line }: Field = SIGHTING[name];
  if (!dimension || !line?.units) return [];
  const units = [...new Set(line.units.split(" ").flatMap((word) => spellingsOf(dimension, word)))];
  const figure = name === "counterWh" || name === "watts" ? 240 : name === "bpm" ? 120 : 4;
  return units.flatMap((unit) => [
    [name, `${figure}${unit}`] as const,
    [name, `${figure} ${unit}`] as const,
    [name, `${figure} ${unit.toUpperCase()}`] as const,
  ]);
});

const SAME = (name: SightingField, a: unknown, b: unknown) =>
  expect([name, Math.abs((a as number) / (b as number) - 1) < 1e-9]).toEqual([name, true]);

describe("a figure with its unit is the same at every door", () => {
  test("there are many", () => expect(written.length).toBeGreaterThan(80));
  test.each(written.filter(([name]) => name !== "distanceM"))("%s as “%s”", (name, text) => {
    const { dimension }: Field = SIGHTING[name];
    const line = byLine(text)[name];
    expect(typeof line).toBe("number");
    // Counts have no unit in a form: there the field itself says which.
    if (dimension === "count") return;
    SAME(name, byForm(name, text)[name], line);
    SAME(name, byTable(name, text)[name], line);
  });
  test.each(["4kmph", "4 kph", "4 KM/H"])("a speed as “%s”", (text) =>
    SAME("speedMps", byLine(text)["speedMps"], toSi(4, "speed", "km/h")),
  );
});

describe("a span is the same at every door", () => {
  test.each([
    ["percent", "60-64", "%", { percent: 62, percentSpan: 4 }],
    ["bars", "2-3", "bars", { bars: 3, barsSpan: 1 }],
    ["amps", "6-7", "A", { amps: 6.5, ampsSpan: 1 }],
    ["speedMps", "21-22", "mph", { speedMps: 21.5 * 0.44704, speedSpanMps: 0.44704 }],
  ] as const)("%s as “%s %s”", (name, figures, unit, kept) => {
    for (const [field, value] of Object.entries(kept)) {
      expect(byLine(`${figures} ${unit}`)[field]).toBeCloseTo(value, 9);
      expect(byLine(`${figures}${unit}`)[field]).toBeCloseTo(value, 9);
      const typed = name === "bars" ? figures : `${figures} ${unit}`;
      expect(byForm(name, typed)[field]).toBeCloseTo(value, 9);
      expect(byForm(name, figures.replace("-", " to "))[field]).toBeCloseTo(value, 9);
      expect(byTable(name, typed)[field]).toBeCloseTo(value, 9);
    }
  });
  test("one that runs backward is refused at each", () => {
    expect(readLine("3mi 7-6A", setting).unread).toHaveLength(1);
    expect(readTyped("amps", "7-6", "A").ok).toBe(false);
    expect(() => byTable("amps", "7-6")).toThrow("backward");
  });
});

describe("words behind a figure", () => {
  test.each([
    ["12.4mi 61% motor hot", 61],
    ["12.4mi 61% brake squeals", 61],
    ["12.4mi 61% hill ahead", 61],
    ["12.4mi 61% slope behind me", 61],
    ["18mi 63% 38.9 V", 63],
  ])("“%s” keeps its charge", (line, percent) =>
    expect(readLine(line, setting).body).toMatchObject({ percent, distanceM: expect.any(Number) }),
  );
  test.each(["12.4mi 18% grade", "12.4mi 12% hill", "12.4mi 60% assist"])(
    "“%s” has none, and says why",
    (line) => {
      const { body, unread } = readLine(line, setting);
      expect(body).not.toHaveProperty("percent");
      expect(unread).toHaveLength(1);
    },
  );
  test.each([
    ["18mi 63% 38.9 V", { packVolts: 38.9 }],
    ["18mi 63% 7 A", { amps: 7 }],
    ["18mi 63% 240 W", { watts: 240 }],
    ["18mi 63% 7 a", { amps: 7 }],
    ["18mi 63% 21 C", { airTempC: 21 }],
  ])("“%s” has its unit after a space", (line, seen) =>
    expect(readLine(line, setting).body).toMatchObject(seen),
  );
  test("a word of one letter before others is no unit", () => {
    const { body } = readLine("18mi 63% 2 a day", setting);
    expect(body).not.toHaveProperty("amps");
    expect(fromSi((body as { distanceM: number }).distanceM, "distance", "mi")).toBeCloseTo(18);
  });
});
