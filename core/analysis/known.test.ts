import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { METRES_PER_MILE } from "#core/base";
import { analyseTest, knownFor, learnedOf, stillShown, type TestResults } from "#core/analysis";
import type { EntryBody } from "#core/ride/log";
import { testRecordSchema, type TestRecord } from "#core/records";
import { worldTest } from "#tests/world";
import { addedBy, weighedMean } from "./known.ts";
import { digestOf } from "./digest.ts";

const analysed = (record: TestRecord): TestResults => {
  const found = analyseTest(record);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
};
const relative = ({ best: { value } }: TestResults) => value.sd / value.mean;

const mi = (miles: number) => miles * METRES_PER_MILE;
const record = (bodies: readonly object[], more: object = {}) =>
  testRecordSchema.parse({
    test: { title: "t", day: "2026-06-01" },
    bike: { name: "b", levels: ["eco"], percentStep: 1, bars: 5 },
    pack: { name: "p", chemistry: "NMC", labelWh: 612, seriesCells: 13, ampHours: 13 },
    rides: [
      {
        name: "r",
        entries: bodies.map((body, seq) => ({
          id: `019c0000-0000-7000-8000-${String(seq).padStart(12, "0")}`,
          ...{ seq, at: null, supersedes: null },
          body: body as EntryBody,
        })),
      },
    ],
    ...more,
  });
const START = { kind: "start", distanceM: 0, chargerDone: true };
const byBars = [START, ...[4, 3, 2].map((bar, i) => ({ kind: "barLost", bar, distanceM: mi(9 * (i + 1)) }))];
const byPercent = [START, { kind: "checkIn", distanceM: mi(20), percent: 52 }];

describe("what a test by itself adds", () => {
  test("is what, weighed with what was known before, gives what is known after", () => {
    const estimate = fc.record({
      mean: fc.double({ min: -5, max: 5, noNaN: true }),
      sd: fc.double({ min: 0.1, max: 2, noNaN: true }),
    });
    fc.assert(
      fc.property(estimate, estimate, (before, own) => {
        const after = weighedMean([before, own])!;
        const again = addedBy(before, after);
        if (own.sd > 3 * before.sd) return;
        expect(again!.mean).toBeCloseTo(own.mean, 6);
        expect(again!.sd).toBeCloseTo(own.sd, 6);
      }),
    );
  });
  test("is nothing where nothing became surer", () =>
    expect(addedBy({ mean: 1, sd: 1 }, { mean: 1, sd: 1 })).toBeNull());
  test("does not depend on what other tests showed, so that no test counts twice", () => {
    const plain = worldTest(3, "pack measured").record;
    const labelled = { ...plain, pack: { ...plain.pack, measuredWh: undefined } };
    const alone = analysed(labelled).packLearned.own!;
    const capacity = { mean: alone.mean * 1.02, sd: 0.04 * alone.mean, tests: 1 };
    const taught = analysed({ ...labelled, known: { points: [], capacity } }).packLearned.own!;
    expect(Math.abs(taught.mean / alone.mean - 1)).toBeLessThan(0.01);
    expect(Math.abs(taught.sd / alone.sd - 1)).toBeLessThan(0.15);
  });
});

describe("what other tests showed", () => {
  const learned = [
    { testId: "a", point: "bar 3", mean: 0.5, sd: 0.02 },
    { testId: "b", point: "bar 3", mean: 0.54, sd: 0.02 },
    { testId: "b", point: "display", mean: 0.93, sd: 0.01 },
  ];
  const held = [
    { testId: "a", on: "2026-05-01", wh: 560, sdWh: 8 },
    { testId: "b", on: "2026-06-01", wh: 540, sdWh: 20 },
  ];
  test("counts for every test but the one that showed it", () => {
    const of = (testId: string) => knownFor({ learned }, { learned: held }, { testId, day: "2026-06-01" });
    expect(of("c").known!.points).toEqual([
      { point: "bar 3", mean: expect.closeTo(0.52, 9), sd: expect.closeTo(0.02 / Math.SQRT2, 9), tests: 2 },
    ]);
    expect(of("a").known!.points[0]).toMatchObject({ mean: expect.closeTo(0.54, 9), tests: 1 });
    expect(of("b").knownFactor).toBeNull();
    expect(of("c").knownFactor).toMatchObject({ k: expect.closeTo(0.93, 9), tests: 1 });
    expect(of("a").known!.capacity!.mean).toBeCloseTo(540, 9);
    // The surest alone, aged by a month: rides of one pack share a meter's gain.
    expect(of("c").known!.capacity).toMatchObject({ mean: expect.closeTo(560, -1), tests: 1 });
    expect(of("c").known!.capacity!.sd).toBeGreaterThan(8);
    expect(knownFor({ learned: [] }, { learned: [] }, { testId: "a", day: "2026-06-01" })).toEqual({
      knownFactor: null,
      known: null,
    });
  });
  test("narrows a figure by bars and one by percents, and says from how many tests", () => {
    const points = [4, 3, 2].map((bar) => ({
      point: `bar ${bar}`,
      mean: 1.02 - bar / 5,
      sd: 0.02,
      tests: 3,
    }));
    const bars = [null, { points, capacity: null }].map((known) => analysed(record(byBars, { known })));
    expect(relative(bars[1]!)).toBeLessThan(0.9 * relative(bars[0]!));
    expect(bars[1]!.best.because).toContain("known besides: the gauge by 3 other tests");
    const capacity = { mean: 560, sd: 8, tests: 1 };
    const percents = [null, { points: [], capacity }].map((known) => analysed(record(byPercent, { known })));
    expect(relative(percents[1]!)).toBeLessThan(0.8 * relative(percents[0]!));
    expect(percents[1]!.best.because).toContain("the pack by one other test");
    expect(percents[1]!.capacity.value.mean).toBeCloseTo(555, -1);
  });
  test("puts a display's miles right, and says by what", () => {
    const shown = byPercent.map(({ distanceM, ...body }) => ({ ...body, displayM: distanceM }));
    const { distance } = analysed(record(shown, { knownFactor: { k: 0.93, sd: 0.01, tests: 2 } }));
    expect(distance.value.mean / mi(20)).toBeCloseTo(0.93, 9);
    expect(distance.because).toBe("by the display times 0.930, as other tests of the bike found");
    expect(distance.pencil).toBe(false);
  });
});

describe("what is to be taken over of a bike's tests", () => {
  const digest = digestOf(analysed(worldTest(4, "bars to the end").record));
  const one = { id: "a", day: "2026-06-01", packId: "p", secondPackId: null, digest };
  test("holds each test by itself, and no pack of two", () => {
    const { display, packs } = learnedOf([one, { ...one, id: "b", secondPackId: "q" }]);
    expect(new Set(display.map(({ testId }) => testId))).toEqual(new Set(["a", "b"]));
    expect([...packs.values()].flat().every(({ testId }) => testId === "a")).toBe(true);
  });
  test("is current until a test shows something else", () => {
    const shown = learnedOf([one]);
    expect(stillShown(shown, shown)).toBe(true);
    const moved = shown.display.map((each) => ({ ...each, mean: each.mean + each.sd }));
    expect(stillShown(shown, { ...shown, display: moved })).toBe(false);
    expect(stillShown(shown, { display: [], packs: new Map() })).toBe(false);
  });
});
