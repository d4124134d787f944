import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { z } from "zod";
import { entrySchema, type Entry } from "#core/ride/log";
import { testRecordSchema } from "#core/records";
import { entriesOf, entryIdInBatch, optionsOf, previewOf } from "./import.server";
import { clientId } from "./log.server";
import { momentOf } from "./moment";

const BATCH = "019a1234-5678-7abc-8def-0123456789ab";
const record = testRecordSchema.parse({
  test: { title: "t", day: "2026-10-18" },
  bike: { name: "b", levels: ["low", "high"], bars: 5 },
  pack: { name: "p", labelWh: 504, seriesCells: 10 },
  rides: [{ entries: [] }],
});
const form = (values: Record<string, string> = {}) => {
  const data = new FormData();
  for (const [name, value] of Object.entries(values)) data.set(name, value);
  return data;
};
function preview(text: string, values: Record<string, string> = {}, log: readonly Entry[] = []) {
  const sent = form(values);
  const options = optionsOf(sent, record.test.day, "+01:00", "imperial");
  const result = previewOf("notes.csv", text, sent, options, record, log, "imperial");
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
}

describe("the preview of a table", () => {
  test("the shipped example is read whole", () => {
    const { problems, rows, columns } = preview(readFileSync("examples/marsh-commute.csv", "utf8"));
    expect(problems).toEqual([]);
    expect(rows).toHaveLength(6);
    expect(columns.map(({ field }) => field)).toEqual([
      "time",
      "distance",
      "display",
      "percent",
      "volts",
      "level",
      "ground",
      "event",
      "note",
    ]);
  });
  test("times are at the ride's own clock", () => {
    expect(preview("time,miles,percent\n9:05,0,100\n").rows[0]!.at).toBe("2026-10-18T08:05:00.000Z");
  });
  test("the shipped slips are all named in one go, and no row is offered", () => {
    const { problems, rows } = preview(readFileSync("examples/marsh-commute-slips.csv", "utf8"));
    expect(problems.map(({ path, code }) => `${path}: ${code}`)).toEqual([
      "row 3, column ground: unknown-ground",
      "row 4, column miles: backward",
      "row 4, column battery %: bad-value",
      "row 5, column rest volts: volts-range",
      "row 6, column time: not-a-time",
    ]);
    expect(rows).toEqual([]);
  });
  test("columns a person chose are kept, with their unit", () => {
    const { columns, rows } = preview("a,b\n0,100\n10,80\n", {
      column0: "distance",
      column1: "percent",
      distanceUnit: "km",
    });
    expect(columns).toEqual([
      { field: "distance", unit: "km" },
      { field: "percent", unit: "%" },
    ]);
    expect(rows[1]!.body).toMatchObject({ distanceM: 10_000, percent: 80 });
  });
  test("a column can be left out", () => {
    const { columns, rows } = preview("mi,percent,note\n0,100,x\n9,80,y\n", {
      column0: "distance",
      column1: "percent",
      column2: "",
    });
    expect(columns[2]!.field).toBeNull();
    expect("note" in rows[1]!.body && rows[1]!.body.note).toBeFalsy();
  });
  test("bars over the bike's count and a clash with the log are named by row and column", () => {
    const earlier: Entry = {
      id: BATCH,
      seq: 0,
      at: null,
      supersedes: null,
      body: { kind: "checkIn", distanceM: 8000, percent: 70 },
    };
    const { problems } = preview("mi,bars\n1,9\n", {}, [earlier]);
    expect(problems.map(({ path, code }) => `${path}: ${code}`)).toEqual([
      "row 2, column bars: bars-range",
      "row 2, column mi: backward",
    ]);
  });
  test("an empty file is refused in a sentence", () =>
    expect(() => preview("miles\n")).toThrow("holds no check-ins"));
});

describe("rows as entries", () => {
  const { rows } = preview("mi,percent\n0,100\n5,90\n9,80\n");
  test("get ids of their batch, so that a repeated send changes nothing", () => {
    const [once, again] = [entriesOf(rows, BATCH), entriesOf(rows, BATCH)];
    if (!once.ok || !again.ok) throw new Error("no entries");
    expect(once.value.map(({ id }) => id)).toEqual(again.value.map(({ id }) => id));
    expect(new Set(once.value.map(({ id }) => id)).size).toBe(3);
    expect(once.value.map(({ seq }) => seq)).toEqual([0, 1, 2]);
    for (const entry of once.value) expect(entrySchema.safeParse(entry).success).toBe(true);
  });
  test("ids stay UUIDs of version 7 to the last row", () => {
    for (const row of [0, 2, 255, 5001]) {
      const id = entryIdInBatch(BATCH, row);
      expect(z.uuid().safeParse(id).success).toBe(true);
      expect(id[14]).toBe("7");
    }
  });
  test("nothing is nothing", () => expect(entriesOf([], BATCH).ok).toBe(false));
});

describe("what a page sends", () => {
  test("its id is taken; a missing one is made", () => {
    expect(clientId(BATCH)).toBe(BATCH);
    for (const sent of ["", null, undefined, "7"])
      expect(z.uuid().safeParse(clientId(sent)).success).toBe(true);
  });
  test("a time of day is a moment at the ride's clock", () => {
    expect(momentOf("2026-10-18", "09:05", "-05:00", null)).toBe("2026-10-18T14:05:00.000Z");
    expect(momentOf("2026-10-18", "9:05", "+05:30", null)).toBe("2026-10-18T03:35:00.000Z");
    expect(momentOf("2026-10-18", "", "+00:00", null)).toBeNull();
    expect(momentOf("2026-10-18", "noon", "+00:00", null)).toBeNull();
  });
  test("import choices that make no sense fall back", () => {
    expect(
      optionsOf(form({ distanceUnit: "cubits", levelHolds: "?" }), "2026-10-18", "+00:00", "metric"),
    ).toEqual({
      distanceUnit: "km",
      levelHolds: "from here",
      day: "2026-10-18",
      zone: "+00:00",
      fullAtStart: false,
    });
  });
});
