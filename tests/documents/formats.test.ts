import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { answer } from "#core/calc";
import { CALCULATIONS } from "../../core/calc/calculations";
import { readingSchema } from "#core/battery/readings";
import {
  guessColumns,
  readCheckIns,
  readCourseGpx,
  readGpx,
  readHeading,
  readLogger,
  readTable,
} from "#core/io";
import { readLine } from "#core/ride/log";
import { flat, pageText, tableRows, ticked } from "./pages";

const EXAMPLES = "examples/";
const options = {
  distanceUnit: "mi",
  levelHolds: "from here",
  day: "2026-10-18",
  zone: "+01:00",
  fullAtStart: true,
} as const;
const setting = { levels: ["eco", "tour", "boost"], throttle: true };

describe("the line as its page has it", () => {
  const page = pageText("docs/formats/line.md");
  const forms = tableRows(page).flatMap(([write = ""]) => ticked(write));
  test("has its forms", () => expect(forms.length).toBeGreaterThan(60));
  test.each(forms)("%s is understood", (form) => {
    const { unread, chips, problem } = readLine(form, setting);
    expect({ unread, problem: problem?.startsWith("Invalid") ?? false }).toEqual({
      unread: [],
      problem: false,
    });
    expect(chips.length).toBeGreaterThan(0);
  });
  test("its first example is one check-in with nine readings", () => {
    const [, example = ""] = /```\n(.+)\n```/.exec(page) ?? [];
    const { body, unread } = readLine(example, setting);
    expect(unread).toEqual([]);
    expect(body).toMatchObject({
      kind: "checkIn",
      percent: 61,
      packVolts: 38.9,
      underLoad: false,
      level: "tour",
      ground: "fine gravel",
      note: "headwind",
    });
  });
  test.each(["cut off by a van", "the end of the road", "full gas up here", "18% grade", "max 24A"])(
    "“%s” stays words",
    (words) => {
      expect(flat(page)).toContain(words);
      expect(readLine(words, setting).body).toEqual({ kind: "note", note: words });
    },
  );
});

describe("check-ins as their page has them", () => {
  const rows = tableRows(pageText("docs/formats/check-ins.md")).slice(1);
  const headings = rows.flatMap(([column = "", names = ""]) =>
    names
      .split(/[,;]\s*/)
      .filter((name) => !name.startsWith("anything"))
      .map((name) => [name, column] as const),
  );
  test("has its headings", () => expect(headings.length).toBeGreaterThan(80));
  test.each(headings)("“%s” is a column", (name) => expect(readHeading(name).field).not.toBeNull());
  test("every column has a row", () => {
    const fields = new Set(headings.map(([name]) => readHeading(name).field));
    expect(rows).toHaveLength(24);
    expect(fields.size).toBeGreaterThanOrEqual(rows.length);
  });
  test.each([
    ["marsh-commute.csv", true],
    ["marsh-commute-slips.csv", false],
  ])("%s is read: %p", (file, isRead) => {
    const table = readTable(readFileSync(`${EXAMPLES}${file}`, "utf8"));
    if (!table.ok) throw new Error("no table");
    expect(readCheckIns(table.value, guessColumns(table.value, "mi"), options).ok).toBe(isRead);
  });
});

describe("tracks, courses and loggers as their pages have them", () => {
  test("the track that ships is read", () =>
    expect(readGpx(readFileSync(`${EXAMPLES}levee-and-harbour.gpx`, "utf8")).ok).toBe(true));
  test("the course of its page is read, with what the page says of it", () => {
    const [, extensions = ""] = /```xml\n([\s\S]+?)```/.exec(pageText("docs/formats/course-gpx.md")) ?? [];
    const read = readCourseGpx(
      `<?xml version="1.0"?><gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1" xmlns:bm="urn:barometron:course:1"><metadata><name>levee</name></metadata>${extensions}</gpx>`,
      "levee",
    );
    expect(read).toMatchObject({
      ok: true,
      value: {
        course: {
          shape: "out and back",
          laps: 2,
          latitude: 53.6,
          legs: [{ name: "levee", ground: "fine gravel", level: "mid" }],
          places: [{ name: "sluice house", kind: "pick-up point" }],
        },
      },
    });
  });
  const columns = tableRows(pageText("docs/formats/logger.md")).slice(1);
  const names = (column: string) => columns.find(([name]) => name === column)![1]!.split(", ");
  const box = { rideStartS: Date.parse("2026-10-18T09:30:00Z") / 1000, zone: "+00:00" };
  const headed = (at: number, name: string) =>
    ["time", "volts", "amps"].map((each, i) => (i === at ? name : each)).join(";");
  test.each(["time", "volts", "amps"].flatMap((each, at) => names(each).map((name) => headed(at, name))))(
    "a logger's file headed %s is read",
    (heading) =>
      expect(readLogger(`${heading}\n0;54.1;6.5\n1;54.0;6.4\n`, "box", box)).toMatchObject({ ok: true }),
  );
  test.each(names("watts"))("a meter's watts headed %s stand for amps", (heading) =>
    expect(readLogger(`time;volts;${heading}\n0;50;200\n`, "box", box)).toMatchObject({
      ok: true,
      value: { amps: [4] },
    }),
  );
  test.each(names("date"))("a day in a column headed %s is read with its clock", (heading) =>
    expect(readLogger(`${heading};time;volts;amps\n2026-10-18;09:30:05;50;4\n`, "box", box)).toMatchObject({
      ok: true,
      value: { timeS: [box.rideStartS + 5] },
    }),
  );
  test.each(names("speed"))("a logger's speed headed %s is read", (heading) =>
    expect(readLogger(`time;volts;amps;${heading}\n0;54.1;6.5;5\n1;54.0;6.4;5\n`, "box", box)).toMatchObject({
      ok: true,
      value: { speedMps: [expect.any(Number), expect.any(Number)] },
    }),
  );
});

describe("calc as its page has it", () => {
  const page = pageText("docs/formats/calc.md");
  const rows = tableRows(page);
  test("every calculation, and none besides", () => {
    const named = rows.flatMap(([name = "", input = ""]) =>
      ticked(name).filter((each) => each in CALCULATIONS && input !== ""),
    );
    expect([...new Set(named)].sort()).toEqual(Object.keys(CALCULATIONS).sort());
  });
  test("every kind of reading", () => {
    const text = rows.map(([kinds = ""]) => kinds).join(" ");
    const kinds = readingSchema.options.map(({ shape }) => shape.kind.value);
    expect(kinds.length).toBeGreaterThan(12);
    expect(kinds.filter((kind) => !ticked(text).includes(kind))).toEqual([]);
  });
  test("every part of a ledger's answer", () => {
    const given = answer({
      calculation: "ledger",
      input: {
        pack: { chemistry: "NMC", labelWh: 612, packTempC: 20 },
        gauge: { percentStep: 1, counts: "charge", bars: 0 },
        cells: ["mid | asphalt"],
        legs: [5, 5, 5, 4.2].map((miles) => ({ miles: { "mid | asphalt": miles } })),
        readings: [99, 88, 30, 66, 56].map((percent, mark) => ({ kind: "percent", mark, percent })),
      },
    });
    if (!given.ok) throw new Error("no answer");
    const keys = Object.keys(given.value as object);
    expect(keys).toContain("withoutFlagged");
    expect(keys.filter((key) => !page.includes(`\`${key}\``))).toEqual([]);
  });
});
