import { describe, expect, test } from "@jest/globals";
import type { EntryBody } from "#core/ride/log";
import { METRES_PER_MILE, renderUnits } from "#core/base";
import { testRecordSchema } from "#core/records";
import { analyseTest } from "#core/analysis";
import { worldTest } from "#tests/world";

const mi = (miles: number) => miles * METRES_PER_MILE;
const reckon = (bodies: readonly EntryBody[], bike: object = {}) =>
  analyseTest(
    testRecordSchema.parse({
      test: { title: "t", day: "2026-06-01" },
      bike: { name: "b", levels: ["eco"], percentStep: 1, bars: 5, ...bike },
      pack: { name: "p", chemistry: "NMC", labelWh: 612, seriesCells: 13, ampHours: 13 },
      rides: [
        {
          name: "r",
          entries: bodies.map((body, seq) => ({
            id: `019c0000-0000-7000-8000-${String(seq).padStart(12, "0")}`,
            seq,
            at: null,
            body,
            supersedes: null,
          })),
        },
      ],
    }),
  );
const look = (miles: number, rest: object): EntryBody =>
  ({ kind: "checkIn", distanceM: mi(miles), ...rest }) as EntryBody;
const START: EntryBody = { kind: "start", distanceM: 0, percent: 100, chargerDone: true };
const figure = (found: ReturnType<typeof reckon>) => {
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  const { best, energy, capacity } = found.value;
  for (const { value } of [best, energy, capacity]) {
    expect(Number.isFinite(value.mean)).toBe(true);
    expect(value.sd).toBeGreaterThan(0);
  }
  return found.value;
};
const sentence = (found: ReturnType<typeof reckon>) =>
  found.ok ? "" : renderUnits(found.problems[0]!.sentence, "imperial");

describe("days nobody designed for", () => {
  test("kinds that contradict each other: pencil, and what each alone would say", () => {
    const { best, alone, aloneSentence } = figure(
      reckon([
        START,
        look(10, { percent: 90, packVolts: 44, restMin: 20 }),
        look(20, { percent: 80, packVolts: 43, restMin: 20 }),
        look(30, { percent: 70, packVolts: 42, restMin: 20 }),
      ]),
    );
    expect(best.pencil || best.because.includes("in question")).toBe(true);
    expect(alone.length).toBeGreaterThan(1);
    expect(aloneSentence).not.toBeNull();
    const means = alone.map(({ whPerM }) => whPerM.mean);
    expect(best.value.mean).toBeGreaterThanOrEqual(Math.min(...means) * 0.98);
    expect(best.value.mean).toBeLessThanOrEqual(Math.max(...means) * 1.02);
  });
  test("one reading without a start: a figure that says how little it knows", () => {
    const { best } = figure(reckon([{ kind: "start", distanceM: 0 }, look(12, { percent: 70 })]));
    expect(best.value.sd / best.value.mean).toBeGreaterThan(0.1);
  });
  test("all readings at one place: the distance is asked for", () =>
    expect(sentence(reckon([START, look(0, { percent: 90 }), look(0, { percent: 80 })]))).toBe(
      "Two check-ins at different distances make a test: add the start and at least one more.",
    ));
  test("every reading a slip: a wide span and no bold figure", () => {
    const wild = [100, 20, 90, 10, 85, 30, 95].map((percent, i) => look(4 * i, { percent }));
    const { best, flags } = figure(reckon(wild));
    expect(flags.length).toBeGreaterThan(0);
    expect(best.value.sd / best.value.mean).toBeGreaterThan(0.1);
  });
  test("a gauge that is stuck from the start: an answer near nothing, with room for what it hides", () => {
    const stuck = [0, 5, 10, 15, 20].map((miles) => look(miles, { percent: 77 }));
    const { best } = figure(reckon(stuck));
    expect(best.value.mean).toBeGreaterThanOrEqual(0);
    expect(best.value.mean - 1.96 * best.value.sd).toBeLessThanOrEqual(best.value.mean);
  });
  test("a bar number the bike has not is left out, in words", () => {
    const { notices, readings } = figure(
      reckon([START, look(10, { percent: 80 }), { kind: "barLost", bar: 9, distanceM: mi(12) }]),
    );
    expect(notices.some((notice) => /bar/i.test(notice))).toBe(true);
    expect(readings.some(({ kind }) => kind === "barLost")).toBe(false);
  });
  test("nothing but a full start and miles: what to note is said", () =>
    expect(sentence(reckon([{ kind: "start", distanceM: 0, chargerDone: true }, look(20, {})]))).toContain(
      "note a percent, bars, volts, a counter or how it ended",
    ));
});

describe("a meter that is out of order", () => {
  const notices = (seed: number, kind: "meter off" | "pack measured") => {
    const found = analyseTest(worldTest(seed, kind).record);
    if (!found.ok) throw new Error(found.problems[0]!.sentence);
    return found.value.notices.filter((each) => each.includes("meter"));
  };
  test("is named, with its side and its odds", () => {
    expect(notices(4, "meter off")).toEqual([
      expect.stringMatching(/^The meter probably shows \d+ % too much \(\d+ in 100\): the pack's energy/),
    ]);
  });
  test("one that is in order is not", () => {
    for (let seed = 1; seed <= 6; seed += 1) expect(notices(seed, "pack measured")).toEqual([]);
  });
});

describe("what was typed of the whole ride against its log", () => {
  const said = (totals: object, times = true) => {
    const found = analyseTest(
      testRecordSchema.parse({
        test: { title: "t", day: "2026-06-01" },
        bike: { name: "b", levels: ["eco"], percentStep: 1 },
        pack: { name: "p", chemistry: "NMC", labelWh: 612, seriesCells: 13 },
        rides: [
          {
            name: "r",
            entries: [START, look(20, { percent: 52 }), { kind: "totals", ...totals }].map((body, seq) => ({
              id: `019c0000-0000-7000-8000-${String(seq).padStart(12, "0")}`,
              ...{ seq, body, supersedes: null },
              at: times && seq < 2 ? `2026-06-01T0${6 + 2 * seq}:00:00Z` : null,
            })),
          },
        ],
      }),
    );
    return figure(found).notices.map((notice) => renderUnits(notice, "imperial"));
  };
  const mph = 0.44704;
  test.each([
    [
      "an average that the riding time denies",
      { movingS: 5400, avgSpeedMps: 15.5 * mph },
      "An average of 15.5 mph was typed; 20.0 mi in a riding time of 1 h 30 min is 13.3 mph. The riding time is used.",
    ],
    [
      "a riding time longer than the ride",
      { movingS: 3 * 3600 },
      "A riding time of 3 h was typed; by the times of its entries the ride lasted 2 h. Check both.",
    ],
    [
      "an average that takes longer than the ride",
      { avgSpeedMps: 8 * mph },
      "An average of 8.0 mph takes 2 h 30 min for 20.0 mi; by the times of its entries the ride lasted 2 h. Check both.",
    ],
  ])("%s is said with what is used", (_, totals, sentence) => expect(said(totals)).toEqual([sentence]));
  test("what agrees, and what nothing denies, is said nothing of", () => {
    expect(said({ movingS: 5400, avgSpeedMps: 13.2 * mph })).toEqual([]);
    expect(said({ movingS: 3 * 3600 }, false)).toEqual([]);
    expect(said({ avgSpeedMps: 14 * mph })).toEqual([]);
  });
});

describe("where nobody said where", () => {
  test("a remark makes no mark and splits no way", () => {
    const { course } = figure(
      reckon([START, { kind: "checkIn", note: "windy" } as EntryBody, look(20, { percent: 52 })]),
    );
    expect(course.legs.map(({ distanceM }) => Math.round(distanceM / METRES_PER_MILE))).toEqual([20]);
    expect(course.asides).toMatchObject([{ between: true }]);
  });
  test("a start at the bike's whole mileage is at nought, and said", () => {
    const { distance, notices, flags } = figure(
      reckon([
        { ...START, distanceM: mi(204) } as EntryBody,
        look(12, { percent: 70 }),
        look(20, { percent: 52 }),
      ]),
    );
    expect(distance.value.mean / METRES_PER_MILE).toBeCloseTo(20, 9);
    expect(flags).toEqual([]);
    expect(notices.map((each) => renderUnits(each, "imperial"))).toEqual([
      "The start was noted at 204.0 mi, further on than all that follows: it is taken as the bike's whole mileage, and the ride counts from 0. Correct it if it is not.",
    ]);
  });
});
