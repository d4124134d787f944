import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { entryBodySchema, GROUNDS, readLine, writeLine, type EntryBody } from "#core/log";
import { METRES_PER_MILE, MPS_PER_MPH, type System } from "#core/quantities";

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
  ])("%s is an entry of its own kind", (line, wanted) => expect(read(line).body).toMatchObject(wanted));
  test("the time of day", () =>
    expect(read("14:32 61%")).toMatchObject({ clock: "14:32", body: { percent: 61 } }));
  test("levels that are numbers go by their number, names by their place or name", () => {
    expect(read("L3", numbered).body).toMatchObject({ level: "3" });
    expect(read("L3").body).toMatchObject({ level: "boost" });
    expect(read("L9").unread).toHaveLength(1);
  });
});

describe("nothing is guessed in silence", () => {
  test.each([
    ["windy 61%", "windy", "kept as a note"],
    ["61", "61", "which unit?"],
    ["61% 58%", "58%", "there is a figure for this already"],
    ["14-15mph", "14-15mph", "a span is read for amps only"],
    ["7-6A", "7-6A", "runs backward"],
    ["1,234mi", "1,234mi", "two ways"],
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
      kind: fc.constantFrom("checkIn", "lastBar", "lowPower"),
    })
    .map(({ rested, ampsSpan, amps, ...rest }) => ({
      ...rest,
      ...(rested === "load" && { underLoad: true }),
      ...(rested.startsWith("rest") && { underLoad: false }),
      ...(rested === "rest 12" && { restMin: 12 }),
      ...(amps !== undefined && { amps: amps + 4 }),
      ...(amps !== undefined && ampsSpan !== undefined && { ampsSpan }),
    }))
    .filter(
      ({ kind, note: _, ...rest }) =>
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
  ] as const)("$kind", (body) => alike(read(writeLine(body, setting, "metric")!).body, body));
  test("a strike has no words", () =>
    expect(
      writeLine({ kind: "strike", target: "019a0000-0000-7000-8000-000000000000" }, setting, "metric"),
    ).toBeNull());
});
