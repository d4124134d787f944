import { describe, expect, test } from "@jest/globals";
import type { EntryBody } from "#core/ride/log";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import { testRecordSchema, type TestRecord } from "#core/records";
import { digestOf, analyseTest, type TestResults } from "#core/analysis";

const mi = (miles: number) => miles * METRES_PER_MILE;
const START_S = Date.UTC(2026, 9, 18, 9) / 1000;

interface Note {
  readonly atMin: number;
  readonly body: object;
}

function reckon(
  notes: readonly Note[],
  over: { bike?: object; test?: object; telemetry?: object; track?: object } = {},
): TestResults {
  const record: TestRecord = testRecordSchema.parse({
    test: { title: "t", day: "2026-10-18", airTempC: 20, firstLevel: "low", ...over.test },
    bike: { name: "b", levels: ["low", "high"], ...over.bike },
    pack: { name: "p", labelWh: 500, seriesCells: 13 },
    rides: [
      {
        entries: notes.map(({ atMin, body }, seq) => ({
          id: `019a0000-0000-7000-8000-${seq.toString(16).padStart(12, "0")}`,
          seq,
          at: new Date((START_S + atMin * 60) * 1000).toISOString(),
          body: body as EntryBody,
        })),
        telemetry: over.telemetry ?? null,
        track: over.track ?? null,
      },
    ],
  });
  const found = analyseTest(record);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
}
const start = { atMin: 0, body: { kind: "start", distanceM: 0, percent: 100, chargerDone: true } };
const look = (atMin: number, miles: number, percent: number, rest: object = {}) => ({
  atMin,
  body: { kind: "checkIn", distanceM: mi(miles), percent, ...rest },
});

describe("what was noted on the way", () => {
  test("stops, heart, wind, climb and the display's guesses come from the log", () => {
    const { noted } = reckon([
      start,
      look(20, 4, 88, { bpm: 120, windMps: 2, climbM: 30, rangeGuessM: mi(30) }),
      { atMin: 30, body: { kind: "stop" } },
      { atMin: 33, body: { kind: "go" } },
      look(45, 8, 76, { bpm: 130, windMps: 4, climbM: 70, rangeGuessM: mi(20) }),
    ]);
    expect(noted).toMatchObject({ stops: 1, bpm: 125, windMps: 3, climbM: 70 });
    expect(noted.guesses).toEqual([
      { distanceM: mi(4), guessM: mi(30) },
      { distanceM: mi(8), guessM: mi(20) },
    ]);
  });
  describe("a recorder beside it", () => {
    const seconds = Array.from({ length: 2400 }, (_, s) => s);
    // Two minutes at a stand in the middle.
    const moved = seconds.map((s) => (s < 1200 ? s : Math.max(1200, s - 120)) * 5);
    const track = {
      name: "loop",
      timeS: seconds.map((s) => START_S + s),
      lat: moved.map((metres) => 0.3 + metres / 111_195),
      lon: seconds.map(() => 0.3),
      eleM: seconds.map(() => null),
      bpm: seconds.map((s) => (s < 1200 || s >= 1320 ? 130 : 85)),
      riderW: seconds.map((s) => (s < 1200 || s >= 1320 ? 95 : 0)),
    };
    const log = [start, look(38, 7, 80)];
    test("its heart, its watts and its stops are evidence, those in motion alone", () => {
      const { noted } = reckon(log, { track });
      expect(noted.bpm).toBeCloseTo(130, 0);
      expect(noted.riderW).toBeCloseTo(95, 0);
      expect(noted.stops).toBe(1);
    });
    test("what somebody noted goes before it", () => {
      const { noted } = reckon([...log, { atMin: 39, body: { kind: "totals", avgBpm: 118 } }], { track });
      expect(noted.bpm).toBe(118);
    });
  });
  test("what nobody noted is not known", () =>
    expect(reckon([start, look(20, 4, 88)]).noted).toMatchObject({
      stops: null,
      bpm: null,
      windMps: null,
      climbM: null,
      unassistedShare: null,
      guesses: [],
    }));
  test("speed by the clock is that of the quickest way where nobody noted a stop, and knows each level", () => {
    const { noted } = reckon([
      start,
      look(20, 4, 88, { level: "high" }),
      look(35, 8, 76),
      look(300, 8.5, 74),
    ]);
    const quickest = 1.06 * 16;
    expect(noted.clockHoldsRests).toBe(true);
    expect(noted.clockSpeedMps! / MPS_PER_MPH).toBeCloseTo(quickest, 1);
    const mean = (8 / 35) * 60;
    expect(noted.levelSpeedMps["low"]! / MPS_PER_MPH).toBeCloseTo((12 * quickest) / mean, 1);
    expect(noted.levelSpeedMps["high"]! / MPS_PER_MPH).toBeCloseTo((16 * quickest) / mean, 1);
  });
  test("speed by the clock leaves out the stops that were counted", () => {
    const none = reckon([start, look(20, 4, 88), look(35, 8, 76)], { test: { stops: 0 } }).noted;
    expect(none.clockSpeedMps! / MPS_PER_MPH).toBeCloseTo((8 / 35) * 60, 1);
    expect(none.clockHoldsRests).toBe(false);
    const counted = reckon([start, look(20, 4, 88), look(40, 8, 76)], { test: { stops: 10 } });
    expect(counted.noted.clockSpeedMps! / MPS_PER_MPH).toBeCloseTo((8 / 34) * 60, 1);
  });
  test("miles faster than the motor helps are told, on pedal bikes alone", () => {
    const fast = (over: object) => {
      const timeS = Array.from({ length: 1200 }, (_, i) => START_S + i);
      const speedMps = timeS.map((_, i) => (i < 800 ? 5 : 8));
      return reckon([start, look(20, 4, 88)], {
        telemetry: { timeS, volts: timeS.map(() => 48), amps: timeS.map(() => 4), speedMps },
        ...over,
      }).noted.unassistedShare;
    };
    expect(fast({ bike: { assistToMps: 15.5 * MPS_PER_MPH } })).toBeCloseTo(3192 / (800 * 5 + 400 * 8), 2);
    expect(fast({ bike: {} })).toBeNull();
    expect(fast({ bike: { assistToMps: 7, throttle: true }, test: { drive: "throttle" } })).toBeNull();
  });
});

describe("quarters of the charge", () => {
  const even = [start, ...[1, 2, 3, 4, 5].map((i) => look(30 * i, 6 * i, 100 - 19 * i, { climbM: 50 * i }))];
  test("an even fall is even, by the climb where it is known", () => {
    const { quarters } = reckon(even);
    expect(quarters).toMatchObject({ by: "climb", even: true });
    expect(quarters!.quarters.map(({ from }) => from)).toEqual(
      [0, 0.25, 0.5, 0.75].slice(0, quarters!.quarters.length),
    );
    const [first] = quarters!.quarters;
    expect(first!.climbM! / first!.distanceM).toBeCloseTo(50 / mi(6), 4);
  });
  test("a pack that gives half as much near its end is not", () => {
    const { quarters } = reckon([
      start,
      look(60, 16, 70),
      look(90, 24, 55),
      look(110, 28, 35),
      look(130, 31, 15),
      { atMin: 150, body: { kind: "end", distanceM: mi(32), percent: 0, reason: "cutOff" } },
    ]);
    expect(quarters).toMatchObject({ by: "way", even: false });
    expect(quarters!.lastOverFirst.mean).toBeLessThan(0.6);
  });
  test("a short ride has none", () => expect(reckon([start, look(20, 4, 88)]).quarters).toBeNull());
});

test("a digest keeps the figures and leaves the drawings", () => {
  const results = reckon([start, look(20, 4, 88)]);
  const digest = digestOf(results);
  expect(digest.best).toBe(results.best);
  expect(digest.questions).toBe(results.flags.length);
  expect(digest).not.toHaveProperty("curve");
  expect(digest).not.toHaveProperty("course");
});
