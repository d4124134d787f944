import { describe, expect, test } from "@jest/globals";
import {
  eventOf,
  EVENTS,
  GROUND_WORDS,
  SIGHTING,
  SIGHTING_FIELDS,
  type Field,
  type SightingField,
} from "./index.ts";
import { formatInput, unitOf } from "#core/base";
import { COLUMNS, guessColumns, readCheckIns, readHeading, readTable, type ImportOptions } from "#core/io";
import { entryBodySchema, readLine, writeLine } from "#core/ride/log";

/** A value of each field that a line, a table and a form can hold as it is. */
const SAMPLES: Readonly<Record<SightingField, unknown>> = {
  distanceM: 20_000,
  displayM: 21_000,
  percent: 61,
  bars: 3,
  packVolts: 48.5,
  underLoad: true,
  restMin: 12,
  amps: 6.5,
  watts: 320,
  counterWh: 164,
  counterAh: 4.25,
  meter: "north clip",
  speedMps: 6,
  rangeGuessM: 45_000,
  airTempC: 12,
  windMps: 3,
  climbM: 140,
  bpm: 128,
  movingS: 10_020,
  avgSpeedMps: 6.5,
  topSpeedMps: 11,
  avgBpm: 131,
  section: "upper",
  side: "B",
  level: "mid",
  ground: "loose gravel",
  note: "headwind",
  percentSpan: 4,
  barsSpan: 1,
  speedSpanMps: 2,
  ampsSpan: 1,
};

const OPTIONS: ImportOptions = {
  distanceUnit: "km",
  levelHolds: "from here",
  day: "2026-10-18",
  zone: "+00:00",
  fullAtStart: false,
};
const setting = { levels: ["low", "mid", "high"], throttle: true };
const each = SIGHTING_FIELDS.map((name) => [name] as const);
/** The same value, as far as the digits that are written go. */
function expectSame(actual: unknown, wanted: unknown): void {
  if (typeof wanted !== "number") expect(actual).toEqual(wanted);
  else expect(Math.abs((actual as number) / wanted - 1)).toBeLessThan(2e-4);
}

describe("every field of a sighting", () => {
  test.each(each)("%s has a label, and words for the line or belongs to a field that has", (name) => {
    const { label, line }: Field = SIGHTING[name];
    expect(label).not.toBe("");
    if (line === null)
      expect(SIGHTING_FIELDS.some((other) => (SIGHTING[other] as Field).span === name)).toBe(true);
  });
  test.each(each)("%s is read from the line as it is written there", (name) => {
    const host = SIGHTING_FIELDS.find((other) => (SIGHTING[other] as Field).span === name);
    // Rest is of volts that were read with no load.
    const body = entryBodySchema.parse({
      ...{ kind: "checkIn", distanceM: 20_000, [name]: SAMPLES[name] },
      ...(host && { [host]: SAMPLES[host] }),
      ...(name === "restMin" && { underLoad: false }),
    });
    for (const system of ["imperial", "metric"] as const) {
      const line = writeLine(body, setting, system)!;
      const read = readLine(line, setting);
      expect(read.problem).toBeNull();
      expect(read.unread).toEqual([]);
      const again = read.body as Readonly<Record<string, unknown>>;
      expect(Object.keys(again).sort()).toEqual(Object.keys(body).sort());
      for (const [field, value] of Object.entries(body)) expectSame(again[field], value);
    }
  });
  test.each(each.filter(([name]) => (SIGHTING[name] as Field).column))(
    "%s is read from a table under any of its headings",
    (name) => {
      const { column, dimension, siPerStored = 1 }: Field = SIGHTING[name];
      for (const heading of column!.headings.filter(Boolean))
        expect(readHeading(heading).field).toBe(column!.name);
      const value = SAMPLES[name];
      const written =
        typeof value === "number" && dimension && dimension !== "count"
          ? formatInput(value * siPerStored, dimension, unitOf(dimension, "metric"), 4)
          : value === true
            ? "yes"
            : String(value);
      const heading = column!.headings[0]!;
      const text =
        name === "distanceM"
          ? `${heading};percent\n0;100\n${written};90\n`
          : `distance (km);${heading};event\n0;;full\n20;${written};\n`;
      const table = readTable(text);
      if (!table.ok) throw new Error(table.problems[0]!.sentence);
      const found = readCheckIns(table.value, guessColumns(table.value, "km"), OPTIONS, 5);
      if (!found.ok) throw new Error(found.problems.map(({ sentence }) => sentence).join(" "));
      expectSame((found.value[1]!.body as Readonly<Record<string, unknown>>)[name], value);
    },
  );
  test("no two columns go by one heading", () => {
    const headings = Object.values(COLUMNS).flatMap(({ spellings }) => spellings);
    expect(new Set(headings).size).toBe(headings.length);
  });
});

describe("one vocabulary", () => {
  test("a ground's words are the same in the line and in a table", () => {
    for (const [word, ground] of GROUND_WORDS)
      if (!word.includes(" ")) expect(readLine(`4mi #${word}`, setting).body).toMatchObject({ ground });
  });
  test.each(
    EVENTS.filter(({ words }) => words).map((event) => [event.written || "check-in", event] as const),
  )("“%s” is one thing, alone in a table and in the line", (written, { kind, fields = {} }) => {
    expect(eventOf(written)).toMatchObject({ kind, ...(Object.keys(fields).length && { fields }) });
    expect(readLine(`4mi ${written}`, setting).body).toMatchObject({ kind, ...fields });
  });
  test("a charge has its energy at the wall, and is told apart from what does not belong to it", () => {
    expect(readLine('9mi charged full 412Wh charger:"slow one"', setting).body).toEqual({
      ...{
        kind: "refill",
        toFull: true,
        wallWh: 412,
        charger: "slow one",
        distanceM: expect.closeTo(14484, 0),
      },
    });
    expect(readLine("9mi charged 80%", setting)).toMatchObject({
      body: null,
      problem: "Percent is not part of such an entry: type it as one of its own.",
    });
  });
  test("words in a sentence are no event", () => {
    for (const text of [
      "charged up hills all day",
      "a full bottle",
      "he stopped to chat",
      "went over the top-up road",
    ])
      expect(readLine(text, setting).body).toMatchObject({ kind: "note" });
  });
});
