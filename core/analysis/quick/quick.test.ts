import { describe, expect, test } from "@jest/globals";
import { v7 as uuidv7 } from "uuid";
import fc from "#tests/property";
import { METRES_PER_MILE } from "#core/base";
import { quickFigure, readQuick } from "#core/analysis/quick";

const DAY = "2026-10-18";
const read = (notes: string) => readQuick(notes, DAY, uuidv7);
const logOf = (notes: string) => {
  const quick = read(notes);
  return quick.ok ? quick.value.record.rides[0]!.entries.map(({ body }) => body) : quick.problems;
};
const miles = (value: number) => value * METRES_PER_MILE;

describe("the pack, the rider and the claim in a few words", () => {
  test.each([
    ["52 V 17 Ah, 27 mi, 31 %", { labelWh: 884, ampHours: 17, seriesCells: 14 }],
    ["52V17Ah 27mi 31%", { labelWh: 884 }],
    ["Battery is a 48 volt 15 amp hour. 27 miles, 12 percent left", { labelWh: 720, seriesCells: 13 }],
    ["36 V, 10 Ah, 12 mi, 50 %", { labelWh: 360, seriesCells: 10 }],
    ["a 612 Wh battery, 27 mi, 31 %", { labelWh: 612 }],
    ["612 watt-hours, 27 mi, 31 %", { labelWh: 612 }],
    ["612 Wh used 410 Wh over 30 mi", { labelWh: 612 }],
  ])("%s", (notes, pack) => expect(read(notes)).toMatchObject({ ok: true, value: { record: { pack } } }));
  test.each([
    ["175 lb rider", 79.4],
    ["rider 80 kg", 80],
    ["i weigh 200 pounds", 90.7],
    ["12 kg bike, 70 kg rider", 70],
  ])("a rider: %s", (words, massKg) => {
    const quick = read(`612 Wh, 27 mi, 31 %, ${words}`);
    expect(quick.ok && quick.value.record.rider?.massKg).toBeCloseTo(massKg, 1);
  });
  test("a claim, a bike's weight and the air", () =>
    expect(read("612 Wh, 27 mi, 31 %, claims 40-60 miles, 63 lb bike, 45 F")).toMatchObject({
      value: {
        record: {
          bike: { claims: [{ lowM: miles(40), highM: miles(60) }], massKg: expect.closeTo(28.58, 2) },
          test: { airTempC: expect.closeTo(7.2, 1) },
        },
        unread: [],
      },
    }));
});

describe("a ride in a few words", () => {
  const full = { kind: "start", chargerDone: true };
  const at = (distance: number, percent?: number) => ({
    kind: "checkIn",
    distanceM: expect.closeTo(miles(distance), 3),
    ...(percent !== undefined && { percent }),
  });
  test.each([
    ["full, 27 mi, 31 % left", [full, at(27, 31)]],
    ["27 miles, 31 percent left", [full, at(27, 31)]],
    ["31 % left after 27 mi", [full, at(27, 31)]],
    ["used 69 % in 27 mi", [full, at(27, 31)]],
    ["rode 27 miles and the display says 31% left", [full, at(27, 31)]],
    ["from 98 to 31 % over 27 miles", [{ kind: "start", percent: 98 }, at(27, 31)]],
    ["98 %, 27 mi, 31 %", [{ kind: "start", percent: 98 }, at(27, 31)]],
    ["full charge, 10 mi 80 %, 20 mi 58 %", [full, at(10, 80), at(20, 58)]],
    ["20 mi 58 %, 10 mi 80 %", [full, at(10, 80), at(20, 58)]],
    ["27,5 mi; 31 %", [full, at(27.5, 31)]],
    ["full, 27 mi, 31 %, 600 m climb", [full, { ...at(27, 31), climbM: 600 }]],
    ["full, 20 mi, 3 of 5 bars", [full, { ...at(20), bars: 3 }]],
    ["full, 20 mi, 3 bars left of 5", [full, { ...at(20), bars: 3 }]],
  ])("%s", (notes, log) => expect(logOf(`612 Wh, ${notes}`)).toEqual(log));
  test.each(["full, died at 33 miles", "full, 33 miles, died", "fully charged, cut off after 33 miles"])(
    "%s",
    (notes) =>
      expect(logOf(`612 Wh, ${notes}`)).toEqual([
        full,
        { kind: "end", reason: "cutOff", distanceM: expect.closeTo(miles(33), 3) },
      ]),
  );
  test("volts alone were read at rest; a counter counted from nothing", () => {
    expect(logOf("48 V 14 Ah; started at 54.2 V, 21 mi, 48.1 V")).toMatchObject([
      { kind: "start", packVolts: 54.2, underLoad: false },
      { packVolts: 48.1, underLoad: false },
    ]);
    expect(logOf("612 Wh, full, used 410 Wh over 30 mi")).toMatchObject([
      { counterWh: 0 },
      { counterWh: 410 },
    ]);
  });
  test("one level or ground is the whole ride's, several hold from where they stand", () => {
    expect(read("612 Wh, throttle, 27 mi, 31 %, on gravel")).toMatchObject({
      value: { record: { test: { drive: "throttle", firstLevel: "throttle", firstGround: "fine gravel" } } },
    });
    expect(logOf("612 Wh, full, level 1, 10 mi 80 %, level 3, 20 mi 50 %")).toMatchObject([
      { level: "1" },
      { percent: 80, level: "3" },
      { percent: 50 },
    ]);
  });
});

describe("what cannot be a figure says what to type", () => {
  test.each([
    ["", /^Say which pack it has/],
    ["27 mi, 31 %", /^Say which pack it has/],
    ["612 Wh", /^Say how far/],
    ["612 Wh, half of it", /^Say how far/],
    ["5 Wh, 27 mi, 31 %", /^A pack's label says 20 to 10,000 Wh/],
  ])("“%s”", (notes, sentence) =>
    expect(read(notes)).toMatchObject({
      ok: false,
      problems: [{ sentence: expect.stringMatching(sentence) }],
    }),
  );
  test("a way without any charge has no figure yet", () =>
    expect(quickFigure("612 Wh, full, 27 miles", DAY, uuidv7)).toMatchObject({
      ok: false,
      problems: [{ code: "no-reading" }],
    }));
  test("whatever is typed, nothing breaks", () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            fc.constantFrom(
              "612 Wh",
              "52 V 17 Ah",
              "27 mi",
              "31 %",
              "full",
              "died",
              "3 of 5 bars",
              "at",
              ",",
              ".",
              "\n",
            ),
            fc.string({ unit: "binary", maxLength: 12 }),
          ),
          { maxLength: 12 },
        ),
        (words) => {
          const found = quickFigure(words.join(" "), DAY, uuidv7);
          if (found.ok) expect(found.value.results.best.value.sd).toBeGreaterThan(0);
          else expect(found.problems[0]!.sentence.length).toBeGreaterThan(5);
        },
      ),
      { numRuns: 150 },
    ));
});

test("the figure is that of the same ride typed in full, and surer with a counter", () => {
  const whPerMi = (notes: string) => {
    const found = quickFigure(notes, DAY, uuidv7);
    if (!found.ok) throw new Error(found.problems[0]!.sentence);
    const { mean, sd } = found.value.results.best.value;
    return { mean: mean * METRES_PER_MILE, sd: sd * METRES_PER_MILE };
  };
  const percent = whPerMi("612 Wh, full, 27 mi, 31 %");
  expect(percent.mean).toBeGreaterThan(13);
  expect(percent.mean).toBeLessThan(16.5);
  expect(whPerMi("612 Wh, full, 27 mi, used 410 Wh").sd).toBeLessThan(percent.sd / 2);
});

describe("both ends of a stretch in one breath", () => {
  const ends = (notes: string) => {
    const log = logOf(`52 V 17 Ah, ${notes}`);
    return log.map((body) => ({ kind: undefined, ...body }) as Record<string, unknown>);
  };
  test.each([
    ["5 bars to 2 bars in 12 miles", "bars", 5, 2],
    ["from 5 to 2 bars over 12 mi", "bars", 5, 2],
    ["5 bars down to 2 bars, 12 miles", "bars", 5, 2],
    ["54.6 V to 47 V over 18 mi", "packVolts", 54.6, 47],
    ["from 54.6 to 47 volts in 18 miles", "packVolts", 54.6, 47],
    ["54,6 V - 47 V, 18 mi", "packVolts", 54.6, 47],
  ])("%s", (notes, field, first, last) => {
    const [start, end] = ends(notes);
    expect([start!["kind"], start![field], end![field]]).toEqual(["start", first, last]);
    const found = quickFigure(`52 V 17 Ah, ${notes}`, DAY, uuidv7);
    if (!found.ok) throw new Error(found.problems[0]!.sentence);
    const { mean } = found.value.results.best.value;
    expect(mean * METRES_PER_MILE).toBeGreaterThan(8);
    expect(mean * METRES_PER_MILE).toBeLessThan(60);
  });
  test("a figure that rises is a span, as it flickered", () =>
    expect(ends("full, 12 mi, 2-3 bars").at(-1)).toMatchObject({ bars: 3, barsSpan: 1 }));
  test("full is 100 % for the simple figure too, and all of the bars", () => {
    const plainOf = (notes: string) => {
      const found = quickFigure(notes, DAY, uuidv7);
      return found.ok ? found.value.results.plain : null;
    };
    expect(plainOf("612 Wh, full, 27 mi, 31 % left")).toMatchObject({
      energyWh: expect.closeTo(0.69 * 612, 6),
    });
    expect(plainOf("612 Wh, full, 20 mi, 3 of 5 bars")).toMatchObject({
      energyWh: expect.closeTo(0.4 * 612, 6),
    });
  });
  test("a charge that does not fall is said, and is no figure", () => {
    const found = quickFigure("612 Wh, from 40 % to 90 % over 20 mi", DAY, uuidv7);
    expect(found.ok ? found.value.results.best.value.mean : 1).toBeGreaterThan(0);
  });
  test("a bike goes by its name, and one without by none", () => {
    const named = readQuick("612 Wh, 27 mi, 31 %", DAY, uuidv7, " Ferry bike ");
    expect(named.ok && named.value.record.bike.name).toBe("Ferry bike");
    expect(read("612 Wh, 27 mi, 31 %")).toMatchObject({
      value: { record: { bike: { name: "Unnamed bike" } } },
    });
    expect(read("612 Wh, 27 mi, 31 %, 80 kg rider")).toMatchObject({
      value: { record: { rider: { name: "Unnamed rider", pencil: ["name"] } } },
    });
  });
});
