import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { courseSchema } from "#core/route";
import {
  decodeText,
  guessColumns,
  readBundle,
  readCheckIns,
  readCourseGpx,
  readGpx,
  writeCourseGpx,
  readHeading,
  readTable,
  writeBundle,
  type ImportOptions,
} from "#core/io";
import { METRES_PER_MILE } from "#core/base";

const options: ImportOptions = {
  distanceUnit: "mi",
  levelHolds: "from here",
  day: "2026-10-18",
  zone: "+00:00",
  fullAtStart: true,
};
const bytes = (text: string) => new TextEncoder().encode(text);

function readAll(text: string, with_: Partial<ImportOptions> = {}) {
  const chosen = { ...options, ...with_ };
  const table = readTable(text);
  if (!table.ok) return table;
  return readCheckIns(table.value, guessColumns(table.value, chosen.distanceUnit), chosen, 5);
}
const problems = (text: string) => {
  const result = readAll(text);
  return result.ok ? [] : result.problems.map(({ path, code }) => `${path}: ${code}`);
};

describe("headings as people write them", () => {
  test.each([
    ["Distance (km)", "distance", "km"],
    ["dist_mi", "distance", "mi"],
    ["Miles", "distance", "mi"],
    ["Battery %", "percent", "%"],
    ["SOC", "percent", null],
    ["%", "percent", "%"],
    ["Rest volts", "volts", "V"],
    ["V", "volts", "V"],
    ["trip (mi)", "display", "mi"],
    ["Bars left", "bars", null],
    ["Assist", "level", null],
    ["Surface", "ground", null],
    ["Remarks", "note", null],
    ["speed km/h", "speed", "km/h"],
    ["Tyre colour", null, null],
  ])("%s", (heading, field, unit) => expect(readHeading(heading)).toEqual({ field, unit }));
});

describe("a CSV of check-ins", () => {
  test("commas, units in names, a full start and an end", () => {
    const result = readAll(
      "miles,battery %,volts,level,event,note\n0,100,54.4,low,,\n5.2,88,,high,,hill\n9,77,50.1,,cut-off,\n",
    );
    expect(result).toMatchObject({
      ok: true,
      value: [
        { row: 2, body: { kind: "start", chargerDone: true, percent: 100, packVolts: 54.4, level: "low" } },
        { row: 3, body: { kind: "checkIn", distanceM: 5.2 * METRES_PER_MILE, percent: 88, note: "hill" } },
        { row: 4, body: { kind: "end", reason: "cutOff" } },
      ],
    });
  });
  test("semicolons, decimal commas, kilometres, times of day", () => {
    const result = readAll("Zeit;time;Distance (km);Bars\n;9:05;0;5\n;9:41;8,5;4\n");
    expect(result).toMatchObject({
      ok: true,
      value: [{ at: "2026-10-18T09:05:00.000Z" }, { body: { distanceM: 8500, bars: 4 } }],
    });
  });
  test("units in the cells win over the column's", () =>
    expect(readAll("distance,percent\n0,100\n10 km,80 %\n")).toMatchObject({
      value: [{}, { body: { distanceM: 10_000, percent: 80 } }],
    }));
  test("bars lost are numbered by the words or by what is left", () => {
    expect(readAll("mi,bars,event\n0,5,start\n4,4,bar lost\n8,,bar 4 lost\n")).toMatchObject({
      value: [{}, { body: { kind: "barLost", bar: 5 } }, { body: { kind: "barLost", bar: 4 } }],
    });
  });
  test("a level ridden up to a row is moved to the row before", () => {
    const result = readAll("mi,percent,level\n0,100,\n5,90,low\n9,80,high\n", { levelHolds: "up to here" });
    expect(result.ok && result.value.map(({ body }) => ("level" in body ? body.level : undefined))).toEqual([
      "low",
      "high",
      undefined,
    ]);
  });
  test("quoted notes keep their commas and line breaks", () =>
    expect(readAll('mi,percent,note\n0,100,"wind, then\nrain"\n3,95,\n')).toMatchObject({
      value: [{ body: { note: "wind, then\nrain" } }, {}],
    }));

  test("every bad cell is named by row and column, and nothing is read", () => {
    expect(problems("miles,battery %,ground\n0,100,asphalt\n5,hello,lava\n3,90,\n8,140,\n")).toEqual([
      "row 3, column battery %: not-a-number",
      "row 3, column ground: unknown-ground",
      "row 4, column miles: backward",
      "row 5, column battery %: bad-value",
    ]);
  });
  test.each([
    ["", "empty-table"],
    ["miles,percent\n", "empty-table"],
    ['miles,percent\n0,"100\n', "broken-csv"],
    ["colour,percent\nred,3\n", "no-distance-column"],
    ["miles,colour\n0,red\n", "no-reading-column"],
  ])("%j: %s", (text, code) => expect(readAll(text)).toMatchObject({ ok: false, problems: [{ code }] }));
  test("a negative distance is refused beside its cell", () =>
    expect(problems("miles,percent\n0,100\n-4,90\n")).toContain("row 3, column miles: bad-value"));
  test("no text makes it throw", () => {
    fc.assert(fc.property(fc.string({ maxLength: 300 }), (text) => typeof readAll(text).ok === "boolean"));
  });
});

describe("encodings", () => {
  test("UTF-8 with and without its mark", () =>
    expect(decodeText(bytes("\ufeffmiles"), "file")).toMatchObject({ ok: true }));
  test("UTF-16 when its mark says so", () =>
    expect(decodeText(new Uint8Array([0xff, 0xfe, 0x6d, 0, 0x69, 0]), "file")).toEqual({
      ok: true,
      value: "mi",
    }));
  test("another encoding is refused with its line", () => {
    const result = decodeText(new Uint8Array([...bytes("miles,note\n3,caf"), 0xe9]), "file");
    expect(result).toMatchObject({
      ok: false,
      problems: [{ code: "not-utf8", sentence: expect.stringContaining("Line 2") }],
    });
  });
  test("a spreadsheet's own file is not text", () =>
    expect(decodeText(new Uint8Array([0x50, 0x4b, 3, 4, 0, 0]), "file")).toMatchObject({
      problems: [{ code: "not-text" }],
    }));
});

const gpx = (points: string, head = "") =>
  `<?xml version="1.0"?>${head}<gpx version="1.1" xmlns="http://www.topografix.com/GPX/1/1"><trk><name>loop</name><trkseg>${points}</trkseg></trk></gpx>`;
const point = (lat: string, lon: string, second: number, rest = "") =>
  `<trkpt lat="${lat}" lon="${lon}">${rest}<time>2026-10-18T09:00:${String(second).padStart(2, "0")}Z</time></trkpt>`;

describe("GPX", () => {
  test("position, time and height", () => {
    expect(readGpx(gpx(point("0.1", "0.2", 0, "<ele>12.5</ele>") + point("0.1001", "0.2", 5)))).toEqual({
      ok: true,
      value: {
        name: "loop",
        timeS: [Date.UTC(2026, 9, 18, 9) / 1000, Date.UTC(2026, 9, 18, 9) / 1000 + 5],
        lat: [0.1, 0.1001],
        lon: [0.2, 0.2],
        eleM: [12.5, null],
      },
    });
  });
  test("segments are joined", () => {
    const split = gpx(`${point("0", "0", 0)}</trkseg><trkseg>${point("0", "0.1", 9)}`);
    expect(readGpx(split)).toMatchObject({ ok: true, value: { lon: [0, 0.1] } });
  });
  test.each([
    ["entities", gpx(point("0", "0", 0), '<!DOCTYPE gpx [<!ENTITY a "aaaa">]>'), "xml-entities"],
    ["a broken end", "<gpx><trk>", "broken-xml"],
    ["something else", "<kml></kml>", "not-gpx"],
    ["a route only", "<gpx><rte></rte></gpx>", "no-track"],
    ["one point", gpx(point("0", "0", 0)), "no-track"],
    ["no times", gpx('<trkpt lat="0" lon="0"/><trkpt lat="0" lon="0.1"/>'), "no-times"],
    ["no position", gpx('<trkpt lat="99" lon="0"/><trkpt lat="0" lon="0.1"/>'), "bad-position"],
    [
      "a time that is no date",
      gpx('<trkpt lat="0" lon="0"><time>noon</time></trkpt><trkpt lat="0" lon="0.1"/>'),
      "bad-time",
    ],
    ["times that stand still", gpx(point("0", "0", 5) + point("0", "0.1", 5)), "bad-times"],
    ["no XML at all", "hello", "broken-xml"],
  ])("%s is refused", (_name, text, code) =>
    expect(readGpx(text)).toMatchObject({ ok: false, problems: [{ code, path: "file" }] }),
  );
});

describe("the bundle", () => {
  test("says which field is wrong", () => {
    const result = readBundle({
      format: "barometron bundle",
      version: 1,
      tests: [{ test: { title: "", day: "soon" } }],
    });
    const paths = result.ok ? [] : result.problems.map(({ path }) => path);
    expect(paths).toEqual(
      expect.arrayContaining([
        "tests.0.test.title",
        "tests.0.test.day",
        "tests.0.bike",
        "tests.0.pack",
        "tests.0.rides",
      ]),
    );
  });
  test("another format is refused", () =>
    expect(readBundle({ format: "x", version: 1, tests: [] }).ok).toBe(false));
  test("writing names format and version", () =>
    expect(writeBundle([])).toEqual({ format: "barometron bundle", version: 1, tests: [] }));
});

describe("words people use in their notes", () => {
  const body = (row: string) => {
    const result = readAll(`mi,bars,event,ground,load\n0,5,,,\n${row}\n`);
    if (!result.ok) throw new Error(result.problems[0]!.sentence);
    return result.value[1]!.body;
  };
  test.each([
    ["cut-off", { kind: "end", reason: "cutOff" }],
    ["cut off", { kind: "end", reason: "cutOff" }],
    ["Dead", { kind: "end", reason: "cutOff" }],
    ["shutdown", { kind: "end", reason: "cutOff" }],
    ["low power", { kind: "lowPower" }],
    ["limp mode", { kind: "lowPower" }],
    ["last bar blinking", { kind: "lastBar" }],
    ["lost bar 3", { kind: "barLost", bar: 3 }],
    ["end", { kind: "end", reason: "byChoice" }],
    ["stopped by choice", { kind: "end", reason: "byChoice" }],
    ["check-in", { kind: "checkIn" }],
    ["", { kind: "checkIn" }],
  ])("event %j", (event, wanted) => expect(body(`9,,${event},,`)).toMatchObject(wanted));
  test.each([
    ["tarmac", "asphalt"],
    ["cobbles", "brick"],
    ["Gravel", "fine gravel"],
    ["dirt", "loose gravel"],
    ["mud", "mud"],
  ])("ground %s is %s", (word, ground) => expect(body(`9,,,${word},`)).toMatchObject({ ground }));
  test.each([
    ["yes", true],
    ["X", true],
    ["load", true],
    ["no", undefined],
    ["rest", undefined],
    ["", undefined],
  ])("load %j", (word, underLoad) => {
    const got = body(`9,4,,,${word}`);
    expect("underLoad" in got ? got.underLoad : undefined).toBe(underLoad);
  });
  test("a bar lost without saying which, and a load that is neither, are asked about", () => {
    expect(problems("mi,bars,event,load\n0,5,,\n4,,bar lost,\n9,3,,perhaps\n")).toEqual([
      "row 3, column event: which-bar",
      "row 3, column event: bad-value",
      "row 4, column load: not-yes-no",
    ]);
  });
  test.each([
    ["9:05", "2026-10-18T09:05:00.000Z"],
    ["09.05", "2026-10-18T09:05:00.000Z"],
    ["9h05", "2026-10-18T09:05:00.000Z"],
    ["2026-10-19 21:40", "2026-10-19T21:40:00.000Z"],
    ["2026-10-19T21:40:30Z", "2026-10-19T21:40:30.000Z"],
  ])("time %s", (time, at) => {
    expect(readAll(`time,mi,percent\n${time},0,100\n,4,90\n`)).toMatchObject({
      ok: true,
      value: [{ at }, { at: null }],
    });
  });
  test.each(["02:30", "2026-03-29 02:30"])("time %s is not on that day's clock", (time) => {
    const berlin = { day: "2026-03-29", zone: "Europe/Berlin" };
    expect(readAll(`time,mi,percent\n${time},0,100\n03:40,4,90\n`, berlin)).toMatchObject({
      problems: [{ code: "no-such-time", sentence: expect.stringContaining("shows no 02:30: type 03:30") }],
    });
    expect(readAll("time,mi,percent\n2026-03-29T02:30Z,0,100\n05:40,4,90\n", berlin).ok).toBe(true);
  });
  test.each(["25:00", "9:75", "noonish", "2026-13-40 10:00"])("time %s is none", (time) => {
    expect(problems(`time,mi,percent\n${time},0,100\n,4,90\n`)).toEqual(["row 2, column time: not-a-time"]);
  });
});

describe("a course as GPX", () => {
  const typed = courseSchema.parse({
    name: "Levee & loop",
    note: 'mind the "geese" <again>',
    shape: "out and back",
    laps: 2,
    legs: [
      { name: "front", distanceM: 2253.08, ground: "brick", gainM: 6, lossM: 4 },
      { name: "levee", distanceM: 6598.31, ground: "fine gravel", level: "mid", gainM: 9, lossM: 9 },
    ],
    places: [{ name: "sluice", atM: 5149.9, kind: "pick-up point" }],
    latitude: 53.6,
    longitude: -0.9,
    altitudeM: 4,
  });
  const back = (course: typeof typed) => readCourseGpx(writeCourseGpx(course), "other");
  test("a typed course comes back as it was", () =>
    expect(back(typed)).toEqual({ ok: true, value: { course: typed, notices: [] } }));
  test("a track's course comes back with its profile, legs and places", () => {
    const points = Array.from({ length: 400 }, (_, i) => {
      const angle = (2 * Math.PI * i) / 400;
      return `<trkpt lat="${(0.02 * Math.sin(angle)).toFixed(6)}" lon="${(0.02 * (1 - Math.cos(angle))).toFixed(6)}"><ele>${(20 + 15 * Math.sin(angle)).toFixed(1)}</ele></trkpt>`;
    }).join("");
    const first = readCourseGpx(gpx(points), "ring");
    if (!first.ok) throw new Error(first.problems[0]!.sentence);
    const painted = {
      ...first.value.course,
      legs: [
        { ...first.value.course.legs[0]!, distanceM: 5000, ground: "grass" as const },
        { ...first.value.course.legs[0]!, distanceM: 8000 },
      ],
      places: [{ name: "tap", atM: 3000, kind: "water" as const }],
    };
    const again = back(painted);
    if (!again.ok) throw new Error(again.problems[0]!.sentence);
    expect(again.value.course.legs.map(({ ground }) => ground)).toEqual(["grass", "asphalt"]);
    expect(again.value.course.places).toEqual(painted.places);
    expect(again.value.course.profile!.lengthM).toBeCloseTo(painted.profile!.lengthM, -1);
    expect(Math.max(...again.value.course.profile!.heightM)).toBeCloseTo(
      Math.max(...painted.profile!.heightM),
      0,
    );
  });
  test("a planned way without times is read as a course, though not as a ride", () => {
    const planned = gpx('<trkpt lat="0" lon="0"/><trkpt lat="0" lon="0.01"/><trkpt lat="0" lon="0.02"/>');
    expect(readGpx(planned)).toMatchObject({ ok: false, problems: [{ code: "no-times" }] });
    const course = readCourseGpx(planned, "way");
    expect(course.ok && course.value.course.profile!.lengthM).toBeCloseTo(2224, -1);
  });
  test("progress only rises, to nearly all of it", () => {
    const shares: number[] = [];
    readCourseGpx(writeCourseGpx(typed), "x", (share) => shares.push(share));
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });
  test("an extension that was changed by hand is checked like anything typed", () => {
    const broken = writeCourseGpx(typed).replace('ground="brick"', 'ground="lava"');
    const read = readCourseGpx(broken, "x");
    expect(read).toMatchObject({ ok: false, problems: [{ path: "legs.0.ground" }] });
  });
  test("a file that is none says so", () =>
    expect(readCourseGpx("<kml></kml>", "x")).toMatchObject({ ok: false, problems: [{ code: "not-gpx" }] }));
});

describe("a column in another unit than it says", () => {
  const read = (text: string) => {
    const table = readTable(text);
    if (!table.ok) throw new Error("no table");
    return readCheckIns(table.value, guessColumns(table.value, "mi"), {
      ...{
        distanceUnit: "mi",
        levelHolds: "from here",
        day: "2026-06-01",
        zone: "+00:00",
        fullAtStart: true,
      },
    });
  };
  const asked = (text: string) => {
    const found = read(text);
    return found.ok ? [] : found.problems.map(({ path, code }) => `${path}: ${code}`);
  };
  test("“trip meter” is a distance in the ride's unit, not in metres", () => {
    const found = read("trip meter,battery %\n0,100\n6.5,80\n12.4,61\n18,40\n");
    const last = found.ok ? found.value.at(-1)!.body : {};
    expect(last).toMatchObject({ displayM: expect.closeTo(18 * 1609.344, 3) });
  });
  test("a charge that falls over a few metres is asked about, whichever distance it is", () => {
    expect(asked("Distance (m),%\n0,100\n6.5,80\n12.4,61\n18,40\n")).toEqual(["column Distance (m): scale"]);
    expect(asked("Odometer (m),%\n0,100\n6.5,80\n12.4,61\n18,40\n")).toEqual(["column Odometer (m): scale"]);
  });
  test("percents that are shares, and two distances of different rides, are asked about", () => {
    expect(asked("mi,percent\n0,1\n6,0.8\n12,0.61\n")).toEqual(["column percent: scale"]);
    expect(asked("km,display (m),percent\n1,1.1,99\n6,6.2,80\n12,12.1,61\n")).toEqual([
      "column display (m): scale",
    ]);
  });
  test("honest tables are not", () => {
    expect(asked("mi,percent\n0,100\n0.1,99\n0.2,99\n")).toEqual([]);
    expect(asked("km,odo (km),percent\n0,0,100\n6,6.4,80\n12,12.6,61\n")).toEqual([]);
    expect(asked("mi,percent\n30,1\n31,1\n32,0\n")).toEqual([]);
  });
});
