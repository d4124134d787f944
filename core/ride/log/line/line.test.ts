import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { GROUNDS } from "#core/fields";
import { entryBodySchema, readLine, writeLine, type EntryBody } from "#core/ride/log";
import { METRES_PER_MILE, MPS_PER_MPH, type System } from "#core/base";

const setting = { levels: ["eco", "tour", "boost"], throttle: true };
const numbered = { levels: ["1", "2", "3", "4", "5"], throttle: false };
const read = (line: string, by = setting) => readLine(line, by);
const mi = (miles: number) => miles * METRES_PER_MILE;

describe("what people mutter", () => {
  test("the whole of it, in any order", () => {
    const line = `12.4mi 61% 38.9V rest L2 #gravel 15mph 6-7A ~28mi left "headwind"`;
    const { body, unread } = read(line);
    expect(unread).toEqual([]);
    const wanted = {
      kind: "checkIn",
      distanceM: expect.closeTo(mi(12.4), 6),
      percent: 61,
      packVolts: 38.9,
      underLoad: false,
      level: "tour",
      ground: "fine gravel",
      speedMps: expect.closeTo(15 * MPS_PER_MPH, 9),
      amps: 6.5,
      ampsSpan: 1,
      rangeGuessM: expect.closeTo(mi(28), 6),
      note: "headwind",
    };
    expect(body).toEqual(wanted);
    const shuffled = `~28mi left "headwind" 6-7A #gravel L2 38.9V 15mph rest 61% 12.4mi`;
    expect(read(shuffled).body).toEqual(wanted);
  });
  test.each([
    ["20 km", { distanceM: 20_000 }],
    ["12,4mi", { distanceM: expect.closeTo(mi(12.4), 6) }],
    ["trip 12.6 mi", { displayM: expect.closeTo(mi(12.6), 6) }],
    ["28 mi left", { rangeGuessM: expect.closeTo(mi(28), 6) }],
    ["3bars", { bars: 3 }],
    ["3/5", { bars: 3 }],
    ["-2A", { amps: -2 }],
    ["-3C", { airTempC: -3 }],
    ["27F", { airTempC: expect.closeTo(-2.78, 2) }],
    ["250W 132bpm climb 120m", { watts: 250, bpm: 132, climbM: 120 }],
    ["hr 128", { bpm: 128 }],
    [
      "wind 12mph 15mph",
      { windMps: expect.closeTo(12 * MPS_PER_MPH, 9), speedMps: expect.closeTo(15 * MPS_PER_MPH, 9) },
    ],
    ["38.2V rest 12 min", { packVolts: 38.2, underLoad: false, restMin: 12 }],
    ["36.4V load 9A", { packVolts: 36.4, underLoad: true, amps: 9 }],
    ["boost", { level: "boost" }],
    ["T", { level: "throttle" }],
    ["#loose", { ground: "loose gravel" }],
    ["0.371kWh", { counterWh: expect.closeTo(371, 6) }],
    ["4.2Ah", { counterAh: 4.2 }],
    ["60 percent", { percent: 60 }],
    ["60 per cent left", { percent: 60 }],
    ["50-60%", { percent: 55, percentSpan: 10 }],
    ["39% used", { percent: 61 }],
    ["battery at 62", { percent: 62 }],
    ["charge: 62%", { percent: 62 }],
    ["3 of 5 bars", { bars: 3 }],
    ["3 out of 5", { bars: 3 }],
    ["bars 3", { bars: 3 }],
    ["4 bars left", { bars: 4 }],
    ["level 2", { level: "tour" }],
    ["mode boost", { level: "boost" }],
    ["range 31mi", { rangeGuessM: expect.closeTo(mi(31), 6) }],
    ["range is 31 miles", { rangeGuessM: expect.closeTo(mi(31), 6) }],
    ["31 miles to go", { rangeGuessM: expect.closeTo(mi(31), 6) }],
    ["at 12.4mi", { distanceM: expect.closeTo(mi(12.4), 6) }],
    ["640m climbed", { climbM: 640 }],
    ["12mi climbed 2100 ft", { climbM: expect.closeTo(640.08, 6) }],
    ["12mi avg 14.1mph", { avgSpeedMps: expect.closeTo(14.1 * MPS_PER_MPH, 9) }],
    ["12mi 24mph top", { topSpeedMps: expect.closeTo(24 * MPS_PER_MPH, 9) }],
    ["12mi average hr 128", { avgBpm: 128 }],
    ["12mi moving 2:47", { movingS: 10_020 }],
    ["12mi riding time 2 h 47 min", { movingS: 10_020 }],
    ["12mi 1h08 moving", { movingS: 4080 }],
  ])("%s", (line, wanted) => {
    const { body, unread } = read(line);
    expect(unread).toEqual([]);
    expect(body).toMatchObject({ kind: "checkIn", ...wanted });
  });
  test.each([
    ["full 100%", { kind: "start", chargerDone: true, percent: 100 }],
    ["lost 4 11.2mi", { kind: "barLost", bar: 4 }],
    ["blink", { kind: "lastBar" }],
    ["lowpower 31mi", { kind: "lowPower" }],
    ["stop 8mi", { kind: "stop", distanceM: expect.closeTo(mi(8), 6) }],
    ["go", { kind: "go" }],
    [`"geese on the dyke"`, { kind: "note", note: "geese on the dyke" }],
    ["stop 12.5mi 4bars", { kind: "stop", distanceM: expect.closeTo(mi(12.5), 6), bars: 4 }],
    ["31.4mi died", { kind: "end", reason: "cutOff", distanceM: expect.closeTo(mi(31.4), 6) }],
    ["cut off at 31.4mi", { kind: "end", reason: "cutOff", distanceM: expect.closeTo(mi(31.4), 6) }],
    ["end 31mi 12%", { kind: "end", reason: "byChoice", percent: 12 }],
    ["crawling 30.1mi", { kind: "end", reason: "cannotHoldSpeed" }],
    ["gauge at zero 30mi", { kind: "end", reason: "gaugeZero" }],
    ["low power 29mi", { kind: "lowPower" }],
    ["last bar blinking 28mi", { kind: "lastBar" }],
    ["bar 4 gone 11.2mi", { kind: "barLost", bar: 4 }],
    ["lost bar 4", { kind: "barLost", bar: 4 }],
    ["moving 2:47 avg 14.1mph top 24mph climb 640m avg 128bpm", { kind: "totals", movingS: 10_020 }],
  ])("%s is an entry of its own kind", (line, wanted) => expect(read(line).body).toMatchObject(wanted));
  test.each([
    ["14:32 61%", "14:32"],
    ["2:05 pm 61%", "14:05"],
    ["9am 61%", "09:00"],
    ["12:10am 61%", "00:10"],
  ])("the time of day: %s", (line, clock) =>
    expect(read(line)).toMatchObject({ clock, body: { percent: 61 } }),
  );
  test("levels that are numbers go by their number, names by their place or name", () => {
    expect(read("L3", numbered).body).toMatchObject({ level: "3" });
    expect(read("L3").body).toMatchObject({ level: "boost" });
    expect(read("L9").unread).toHaveLength(1);
  });
});

test.each(["14:32", "2:32 pm", " 14:32, "])("a time alone, %p, is asked what was read then", (line) =>
  expect(read(line)).toMatchObject({
    body: null,
    clock: "14:32",
    problem: "14:32 is a time: type what was read then beside it, for example 14:32 12.4mi 61%.",
  }),
);

describe("nothing is guessed in silence", () => {
  test.each([
    ["windy 61%", "windy", "kept as a note"],
    ["61", "61", "which unit?"],
    ["61% 58%", "58%", "there is a figure for this already"],
    ["14-15V", "14-15V", "no span is kept of this"],
    ["7-6A", "7-6A", "runs backward"],
    ["1,234mi", "1,234mi", "two ways: type 1.2340 or 1234"],
    ["3.000km", "3.000km", "two ways: type 3.0 or 3000"],
    ["1.250m climbed", "1.250m climbed", "two ways: type 1.25 or 1250"],
    ["#lava 61%", "#lava", "no ground is called so"],
    ["~61%", "~61%", "the display's guess"],
    ["lost", "lost", "which bar?"],
    ["start stop", "stop", "one line is one entry"],
    ["trip", "trip", "needs a figure"],
    ["500m", "500m", "no unit known here"],
  ])("%s", (line, text, why) => {
    const { unread, body } = read(line);
    expect(unread.map((each) => each.text)).toEqual([text]);
    expect(unread[0]!.why).toContain(why);
    expect(line.slice(unread[0]!.from, unread[0]!.to)).toBe(text);
    expect((body as { note?: string }).note).toContain(text);
  });
  test("words in a row are one piece, and stay words", () => {
    const { unread, body } = read("dog in the road 61% then rain");
    expect(unread.map(({ text }) => text)).toEqual(["dog in the road", "then rain"]);
    expect((body as { note?: string }).note).toContain("dog in the road");
    expect(body).toMatchObject({ percent: 61 });
  });
  test.each([
    ["18% grade 61%", { percent: 61 }, "18% grade"],
    ["61% on the 18% slope", { percent: 61 }, "18% slope"],
    ["range 31% 61%", { percent: 61 }, "range 31%"],
    ["cut off by a van 61%", { kind: "checkIn", percent: 61 }, "cut off by a van"],
    ["at the end of the road 61%", { kind: "checkIn", percent: 61 }, "at the end of the road"],
    ["past the bus stop 61%", { kind: "checkIn", percent: 61 }, "past the bus stop"],
    ["full gas up here 61%", { kind: "checkIn", percent: 61 }, "full gas up here"],
    ["dead sheep on the path", { kind: "note" }, "dead sheep on the path"],
    ["max 24A 61%", { percent: 61 }, "max 24A"],
    ["8% humidity 61%", { percent: 61 }, "8% humidity"],
    ["200m to the gate 61%", { percent: 61 }, "200m"],
  ])("%s is not mistaken", (line, wanted, kept) => {
    const { body, unread } = read(line);
    expect(body).toMatchObject(wanted);
    expect(unread.map(({ text }) => text).join(" ")).toContain(kept);
    expect((body as { note?: string }).note).toContain(kept);
  });
  test("a level with an everyday name is one by itself, not among words", () => {
    const everyday = { levels: ["low", "high"], throttle: false };
    expect(read("61% high", everyday).body).toMatchObject({ level: "high" });
    expect(read("61% level high", everyday).body).toMatchObject({ level: "high" });
    expect(read("61% high wind again", everyday).body).not.toHaveProperty("level");
  });
  test("a figure that cannot be says what to type and keeps nothing", () => {
    expect(read("140%")).toMatchObject({ body: null, problem: "Percent runs from 0 to 100." });
    expect(read("")).toMatchObject({ body: null, problem: expect.stringContaining("for example") });
  });
  test("every character of any line is in a chip, unread, or between them", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (line) => {
        const { chips, unread } = read(line);
        const spans = [...chips, ...unread].sort((a, b) => a.from - b.from);
        let at = 0;
        for (const { from, to, text } of spans) {
          expect(from).toBeGreaterThanOrEqual(at);
          expect(line.slice(at, from)).toMatch(/^[\s,;]*$/);
          expect(line.slice(from, to)).toBe(text);
          at = to;
        }
        expect(line.slice(at)).toMatch(/^[\s,;]*$/);
      }),
      { numRuns: 400 },
    );
  });
});

describe("what the chips show is what is kept", () => {
  const piece = fc.constantFrom(
    ..."12.4mi 61% 38.9V rest|rest 5 min|load|L2|boost|T|#gravel|15mph|6-7A|50-60%|~28mi left|range 31mi|4bars|3 of 5".split("|"), // prettier-ignore
    ..."stop|go|start|full|end|died|low power|blink|lost 4|avg 14mph|top 24mph|moving 2:47|climb 640m|avg 128bpm".split("|"), // prettier-ignore
    ..."14:32|wind 12mph|@upper:A|@|18% grade|the hill|by a van|,|;|61% used|at 9mi|trip 12km|battery 40|-3C".split("|"), // prettier-ignore
  );
  test("whatever is typed in whatever order", () => {
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 9 }), (pieces) => {
        const { body, chips, unread } = read(pieces.join(" "));
        if (body === null) return;
        const kept = body as unknown as Record<string, unknown>;
        for (const { field } of chips) if (field !== null) expect(kept[field]).toBeDefined();
        for (const { text } of unread) expect(kept["note"]).toContain(text);
        const shown = new Set<string | null>(chips.map(({ field }) => field));
        const beside = [
          "kind",
          "note",
          "reason",
          "chargerDone",
          "ampsSpan",
          "percentSpan",
          "underLoad",
          "section",
        ];
        for (const field of Object.keys(kept)) if (!beside.includes(field)) expect(shown).toContain(field);
      }),
      { numRuns: 600 },
    );
  });
});

describe("written and read again, an entry is the same", () => {
  const some = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined });
  const figure = (most: number) => fc.integer({ min: 0, max: most * 10 }).map((tenths) => tenths / 10);
  const words = fc.stringMatching(/^[a-z]{1,8}( [a-z]{1,8}){0,3}$/);
  const checkIn = fc
    .record({
      distanceM: some(figure(60_000)),
      displayM: some(figure(60_000)),
      percent: some(fc.integer({ min: 0, max: 100 })),
      bars: some(fc.integer({ min: 0, max: 5 })),
      packVolts: some(fc.integer({ min: 300, max: 580 }).map((tenths) => tenths / 10)),
      amps: some(figure(30)),
      watts: some(fc.integer({ min: 0, max: 900 })),
      counterWh: some(figure(900)),
      counterAh: some(figure(20)),
      speedMps: some(fc.integer({ min: 1, max: 15 })),
      rangeGuessM: some(figure(60_000)),
      airTempC: some(fc.integer({ min: -20, max: 40 })),
      bpm: some(fc.integer({ min: 60, max: 190 })),
      climbM: some(fc.integer({ min: 0, max: 2000 })),
      windMps: some(fc.double({ min: 0, max: 30, noNaN: true }).map((value) => Number(value.toFixed(3)))),
      level: some(fc.constantFrom("eco", "tour", "boost", "throttle")),
      ground: some(fc.constantFrom(...GROUNDS)),
      note: some(words),
      rested: fc.constantFrom("none", "load", "rest", "rest 12"),
      ampsSpan: some(fc.integer({ min: 0, max: 4 })),
      percentSpan: some(fc.integer({ min: 1, max: 20 })),
      movingS: some(fc.integer({ min: 60, max: 40_000 })),
      avgSpeedMps: some(fc.integer({ min: 1, max: 15 })),
      topSpeedMps: some(fc.integer({ min: 1, max: 20 })),
      avgBpm: some(fc.integer({ min: 60, max: 190 })),
      kind: fc.constantFrom("checkIn", "lastBar", "lowPower", "stop"),
    })
    .map(({ rested, ampsSpan, percentSpan, amps, percent, ...rest }) => ({
      ...rest,
      ...(percent !== undefined && { percent }),
      ...(percent !== undefined &&
        percentSpan !== undefined &&
        percent >= percentSpan && { percentSpan: 2 * Math.floor(percentSpan / 2) || 2 }),
      ...(rested === "load" && { underLoad: true }),
      ...(rested.startsWith("rest") && { underLoad: false }),
      ...(rested === "rest 12" && { restMin: 12 }),
      ...(amps !== undefined && { amps: amps + 4 }),
      ...(amps !== undefined && ampsSpan !== undefined && { ampsSpan }),
    }))
    .filter(
      ({ kind, note: _, movingS: _m, avgSpeedMps: _a, topSpeedMps: _t, avgBpm: _b, climbM: _c, ...rest }) =>
        kind !== "checkIn" || Object.values(rest).some((value) => value !== undefined),
    )
    .map((body) => entryBodySchema.parse(JSON.parse(JSON.stringify(body))));

  const alike = (got: EntryBody | null, wanted: EntryBody) => {
    expect(Object.keys(got ?? {}).sort()).toEqual(Object.keys(wanted).sort());
    for (const [key, value] of Object.entries(wanted)) {
      const mine = (got as unknown as Record<string, unknown>)[key];
      if (typeof value === "number") expect(Math.abs((mine as number) - value)).toBeLessThan(0.2);
      else expect(mine).toEqual(value);
    }
  };

  test.each(["imperial", "metric"] as const)("in %s units", (system: System) => {
    fc.assert(
      fc.property(checkIn, (body) => {
        const { body: again, unread } = read(writeLine(body, setting, system)!);
        expect(unread).toEqual([]);
        alike(again, body);
      }),
      { numRuns: 300 },
    );
  });
  test.each([
    { kind: "start", chargerDone: true, percent: 100 },
    { kind: "barLost", bar: 3, distanceM: 5000 },
    { kind: "stop", distanceM: 5000, note: "gate" },
    { kind: "note", note: "geese" },
    { kind: "end", reason: "cutOff", distanceM: 5000 },
    { kind: "totals", movingS: 10_020, avgSpeedMps: 5, climbM: 640, note: "off the recorder" },
  ] as const)("$kind", (body) => alike(read(writeLine(body, setting, "metric")!).body, body));
  test("a strike has no words", () =>
    expect(
      writeLine({ kind: "strike", target: "019a0000-0000-7000-8000-000000000000" }, setting, "metric"),
    ).toBeNull());
});
