import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { analyseTest } from "#core/analysis";
import { formatUncertain, METRES_PER_MILE, Z_95 } from "#core/base";
import { readTable, writeCaptions, writeChapters, writeCsv } from "#core/io";
import { makeStandin } from "#core/simulator";
import { asSaid, filmOf, readingRows, spokenNumber } from "#core/telling";

describe("figures as they are said", () => {
  test.each([
    [0.5, "a half"],
    [1.5, "one and a half"],
    [4.2, "four point two"],
    [18, "eighteen"],
    [120, "one hundred twenty"],
  ])("%p is %s", (value, words) => expect(spokenNumber(value)).toBe(words));
  const perMile = (mean: number, half: number) => ({
    mean: mean / METRES_PER_MILE,
    sd: half / Z_95 / METRES_PER_MILE,
  });
  test.each([
    [18.1, 1.5, "about eighteen watt-hours a mile, give or take one and a half"],
    [13.57, 2.26, "about thirteen and a half watt-hours a mile, give or take two and a half"],
    [4.2, 0.2, "about four point two watt-hours a mile, give or take zero point two"],
    [33, 9, "about thirty-three watt-hours a mile, give or take nine"],
  ])("%p ± %p: %s", (mean, half, words) =>
    expect(asSaid(perMile(mean, half), "energyPerDistance", "imperial")).toBe(words),
  );
  test("miles and kilometres, one and many", () => {
    expect(asSaid({ mean: 34_000, sd: 1500 }, "distance", "metric")).toBe(
      "about thirty-four kilometres, give or take three",
    );
    expect(asSaid({ mean: 646, sd: 41 }, "energy", "imperial")).toBe(
      "about six hundred fifty watt-hours, give or take eighty",
    );
  });
  test("what is said lies within the doubt of what was found", () =>
    fc.assert(
      fc.property(
        fc.double({ min: 3, max: 60, noNaN: true }),
        fc.double({ min: 0.3, max: 20, noNaN: true }),
        (mean, half) => {
          const said = asSaid(perMile(mean, half), "energyPerDistance", "imperial");
          expect(said).toMatch(/^about [a-z -]+ watt-hours? a mile, give or take [a-z -]+$/);
        },
      ),
    ));
});

const { record } = makeStandin(7, { what: "film", untilEmpty: true });
const results = analyseTest(record);
if (!results.ok) throw new Error("the stand-in has no figure");
const told = results.value;
const firstS = told.course.marks[0]!.timeS!;

describe("a film of the ride", () => {
  const film = filmOf(told, firstS - 60, "imperial");
  test("captions follow one another without a gap, with distance, charge and Wh/mi", () => {
    expect(film.cues.length).toBe(told.course.marks.filter(({ timeS }) => timeS !== null).length);
    film.cues.slice(1).forEach(({ fromS }, i) => expect(fromS).toBe(film.cues[i]!.toS));
    expect(film.cues[0]).toMatchObject({
      fromS: 60,
      text: expect.stringMatching(/^0\.0 mi, (100|99) % left$/),
    });
    expect(film.cues.at(-1)!.text).toMatch(/^\d+\.\d mi, \d+ % left, \d+(\.\d+)? ± \d+(\.\d+)? Wh\/mi$/);
  });
  test("the last caption has the ledger's own figure; before it the rate so far nears it", () => {
    expect(film.cues.at(-1)!.text).toContain(
      formatUncertain(told.best.value, "energyPerDistance", "imperial"),
    );
    const [, rate] = /left, about ([\d.]+) Wh\/mi so far/.exec(film.cues.at(-2)!.text)!;
    const best = told.best.value.mean * METRES_PER_MILE;
    expect(Math.abs(Number(rate) - best)).toBeLessThan(0.5 + 0.1 * best);
  });
  test("chapters begin with the start and end with the end", () => {
    expect(film.chapters[0]).toEqual({ atS: 60, title: "Start" });
    expect(film.chapters.at(-1)!.title).toMatch(/^The end, /);
  });
  test("a film that begins on the way leaves out what was before, and its first caption begins with it", () => {
    const late = filmOf(told, firstS + 4000, "metric");
    expect(late.cues.length).toBeLessThan(film.cues.length);
    expect(late.cues[0]!.fromS).toBe(0);
    expect(late.cues[0]!.text).toContain(" km, ");
    const [, place] = /^([\d.]+ km), /.exec(late.cues[0]!.text)!;
    expect(writeChapters(late.chapters)).toMatch(/^0:00 [A-Z]/);
    expect(writeChapters(late.chapters).split("\n")[0]).toContain(`, ${place}`);
    expect(writeChapters(film.chapters)).toMatch(/^0:00 Before the ride\n1:00 Start\n/);
  });
  test("both formats are written with their stamps", () => {
    expect(writeCaptions(film.cues, "vtt")).toMatch(/^WEBVTT[\s\S]+00:01:00\.000 --> /);
    expect(writeCaptions(film.cues, "srt")).toMatch(/^1\r?\n00:01:00,000 --> /);
  });
});

describe("the readings as a table", () => {
  const rows = readingRows(told, "imperial");
  test("hold every reading once, in the order of the way", () => {
    expect(rows).toHaveLength(told.readings.length);
    const at = rows.map((row) => Number(row["distance, mi"]));
    expect(at).toEqual([...at].sort((a, b) => a - b));
  });
  test("are read back cell by cell", () => {
    const table = readTable(writeCsv(rows));
    expect(table).toMatchObject({ ok: true, value: { headings: Object.keys(rows[0]!) } });
    expect(table.ok && table.value.rows).toHaveLength(rows.length);
  });
  test("a cell that a spreadsheet would run is text", () =>
    expect(writeCsv([{ note: '=HYPERLINK("http://x")', wh: -3 }])).toBe(
      'note,wh\r\n"\'=HYPERLINK(""http://x"")",-3\r\n',
    ));
  test("no rows are headings alone", () => expect(writeCsv([], ["a", "b"])).toBe("a,b\r\n"));
});
