import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { foldLog, buildTimeline, type Entry } from "#core/ride/log";
import { METRES_PER_MILE, renderUnits } from "#core/base";

const mi = (miles: number) => miles * METRES_PER_MILE;
const SETTING = {
  knownFactor: null,
  meterStepV: 0.1,
  firstLevel: "eco",
  firstGround: "asphalt",
} as const;
type Look = readonly [miles: number, percent: number, minutes?: number];
const logOf = (looks: readonly Look[]): readonly Entry[] =>
  looks.map(([miles, percent, minutes], seq) => ({
    id: `019c0000-0000-7000-8000-${String(seq).padStart(12, "0")}`,
    seq,
    at: minutes === undefined ? null : new Date(Date.UTC(2026, 5, 1, 9, minutes)).toISOString(),
    body: { kind: seq === 0 ? "start" : "checkIn", distanceM: mi(miles), percent } as Entry["body"],
    supersedes: null,
  }));
const lay = (entries: readonly Entry[]) =>
  buildTimeline([{ entries: foldLog(entries), track: null }], { ...SETTING });
const HONEST: readonly Look[] = [[0, 100], [6, 86], [9, 79], [12.4, 71], [15, 64], [18.1, 58], [24, 44]]; // prettier-ignore
const withTyped = (at: number, miles: number) =>
  HONEST.map(([here, percent], i): Look => [i === at ? miles : here, percent]);

describe("a distance that breaks the order of the log", () => {
  test("is the slip, not the readings it would make look bad; what was likely meant is said", () => {
    const { slips, marks } = lay(logOf(withTyped(3, 21.4)));
    expect(slips).toMatchObject([{ field: "distanceM", rootId: expect.stringMatching(/3$/) }]);
    expect(renderUnits(slips[0]!.sentence, "imperial")).toBe(
      "21.4 mi does not fit its place in the log: a typing slip? 12.4 mi would fit. Until then it is placed between its neighbours.",
    );
    const placed = marks.find(({ entries }) => entries.some(({ seq }) => seq === 3))!;
    expect(placed.distanceM).toBeGreaterThan(mi(9));
    expect(placed.distanceM).toBeLessThan(mi(15));
  });
  test("one beyond the end does not lengthen the ride", () => {
    const { marks, slips } = lay(logOf(withTyped(5, 81.1)));
    expect(slips).toHaveLength(1);
    expect(marks.at(-1)!.distanceM).toBeCloseTo(mi(24), 6);
  });
  test("set aside by a person it is placed the same way, and asks no more", () => {
    const log = logOf(withTyped(3, 21.4));
    const strike: Entry = {
      id: "019c0000-0000-7000-8000-0000000000ff",
      seq: 99,
      at: null,
      body: { kind: "strike", target: log[3]!.id, field: "distanceM" },
      supersedes: null,
    };
    const { slips, readings } = lay([...log, strike]);
    expect(slips).toEqual([]);
    expect(readings.filter(({ struck }) => struck)).toEqual([]);
  });
});

describe("what is none", () => {
  test("an honest log", () => expect(lay(logOf(HONEST)).slips).toEqual([]));
  test("a look that was noted late, whose gauge fits where it says", () => {
    const late = [...HONEST.filter(([miles]) => miles !== 9), [9, 79] as const];
    expect(lay(logOf(late)).slips).toEqual([]);
  });
  test("a log typed in one go, every stretch too fast for its times", () => {
    const typed = HONEST.map(([miles, percent], i): Look => [miles, percent, i]);
    expect(lay(logOf(typed)).slips).toEqual([]);
  });
  test("too far on for its time it is one, where another distance fits", () => {
    const looks: readonly Look[] = [[0, 100, 0], [6, 86, 28], [9, 79, 43], [21.4, 71, 59], [24, 64, 110], [26, 60, 122]]; // prettier-ignore
    expect(renderUnits(lay(logOf(looks)).slips[0]!.sentence, "imperial")).toContain("12.4 mi would fit");
  });
  test("whatever the distances, everything is placed, forward, and no more than a quarter is doubted", () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 600 }), fc.integer({ min: 0, max: 100 })), {
          minLength: 2,
          maxLength: 14,
        }),
        (typed) => {
          const { marks, slips } = lay(logOf(typed.map(([tenths, percent]): Look => [tenths / 10, percent])));
          expect(slips.length).toBeLessThanOrEqual(typed.length / 4);
          marks.forEach(({ distanceM }, i) => {
            if (i > 0) expect(distanceM).toBeGreaterThanOrEqual(marks[i - 1]!.distanceM - 1e-6);
          });
          expect(marks.flatMap(({ entries }) => entries)).toHaveLength(typed.length);
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe("a wrong bar number", () => {
  const lost = (bars: readonly number[]): readonly Entry[] =>
    bars.map((bar, seq) => ({
      id: `019c0000-0000-7000-8000-${String(seq).padStart(12, "0")}`,
      seq,
      at: null,
      body: { kind: "barLost", bar, distanceM: mi(4 * (seq + 1)) },
      supersedes: null,
    }));
  const counted = (bars: readonly number[]) =>
    lay(lost(bars)).readings.flatMap(({ reading }) => (reading.kind === "barLost" ? [reading.bar] : []));
  test.each([
    [[5, 4, 2, 2], [5, 4, 2], "Bar 2 lost between bar 4 and bar 2: bar 3?"],
    [[5, 3, 3, 2], [5, 3, 2], "Bar 3 lost between bar 5 and bar 3: bar 4?"],
    [[5, 4, 4, 2], [5, 4, 2], "Bar 4 lost between bar 4 and bar 2: bar 3?"],
  ])("%j: the honest ones after it still count", (typed, kept, asked) => {
    expect(counted(typed)).toEqual(kept);
    expect(lay(lost(typed)).slips[0]!.sentence).toContain(asked);
  });
  test("bars that nobody saw go are no slip", () => {
    expect(lay(lost([5, 3, 2])).slips).toEqual([]);
    expect(counted([5, 3, 2])).toEqual([5, 3, 2]);
  });
});
