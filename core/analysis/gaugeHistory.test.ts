import { describe, expect, test } from "@jest/globals";
import { METRES_PER_MILE } from "#core/base";
import { digestOf, gaugeHistory, isDigest, analyseTest, type TestDigest } from "#core/analysis";
import type { KindName } from "#core/world";
import { worldTest } from "#tests/world";

const digest = (seed: number, kind: KindName): TestDigest => {
  const found = analyseTest(worldTest(seed, kind).record);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return digestOf(found.value);
};

describe("a gauge over its bike's tests", () => {
  const [one, other] = [digest(3, "bars to the end"), digest(4, "bars to the end")];
  test("without a test nothing is known", () => expect(gaugeHistory([], 5)).toBeNull());
  test("a point is surer by every test that saw it, and the prior counts once", () => {
    const sdOf = (tests: readonly TestDigest[]) =>
      new Map(gaugeHistory(tests, 5)!.points.map(({ name, used }) => [name, used.sd]));
    const [alone, both] = [sdOf([one]), sdOf([one, other])];
    for (const [name, sd] of alone) expect(both.get(name)!).toBeLessThanOrEqual(sd + 1e-12);
    const [prior, own] = [
      { mean: 0.4, sd: 0.1 },
      { mean: 0.5, sd: 0.1 },
    ];
    const shows = { point: "bar 3", name: "bar 3 goes", used: own, prior, own, tests: 0 };
    const told = { ...one, thresholds: [shows] };
    // A test that shows nothing of a point moves nothing.
    const mute = { ...told, thresholds: [{ ...shows, used: prior, own: null }] };
    const pooled = gaugeHistory([told, mute, mute], 5)!.points[0]!;
    expect(pooled.used.mean).toBeCloseTo(0.45, 9);
    expect(pooled.used.sd).toBeCloseTo(0.1 / Math.SQRT2, 9);
  });
  test("bars have lengths that sum to the pack, in Wh and in miles", () => {
    const { bars } = gaugeHistory([one, other], 5)!;
    expect(bars).toHaveLength(5);
    expect(bars.reduce((sum, { share }) => sum + share.mean, 0)).toBeCloseTo(1, 6);
    for (const { wh, wayM } of bars) {
      expect(wh.mean).toBeGreaterThanOrEqual(0);
      expect(wayM!.mean / METRES_PER_MILE).toBeLessThan(60);
    }
  });
  test("half the gauge, where it stands still, and what it shows as the pack cuts off", () => {
    const stuck = gaugeHistory([9, 15, 20].map((seed) => digest(seed, "stuck")), 0)!; // prettier-ignore
    expect(stuck.quirks.some(({ kind, percent }) => kind === "stands" && percent < 20)).toBe(true);
    expect(stuck.percents.find(({ shown }) => shown === 50)!.used.mean).toBeGreaterThan(0.35);
    expect(stuck.percents.find(({ shown }) => shown === 50)!.used.mean).toBeLessThan(0.65);
    expect(stuck.percentsAtCutOff.every((percent) => percent > 3)).toBe(true);
  });
  test("what the percent follows is told by all its tests together", () => {
    const { counts } = gaugeHistory([1, 2, 3, 4].map((seed) => digest(seed, "metered")), 0)!; // prettier-ignore
    const { charge, energy, volts } = counts!;
    expect(charge + energy + volts).toBeCloseTo(1, 9);
  });
  test("a stored body of another build is no digest", () => {
    expect(isDigest(one)).toBe(true);
    expect(isDigest({ best: 1 })).toBe(false);
    expect(isDigest(null)).toBe(false);
  });
});

describe("a ride's totals", () => {
  test("stand for what no track tells, and count as its climb", () => {
    const { record } = worldTest(5, "part charge");
    const totals = {
      id: "019c0000-0000-7000-8000-00000000ffff",
      seq: 9000,
      at: null,
      supersedes: null,
      body: { kind: "totals" as const, movingS: 5400, topSpeedMps: 11, climbM: 300, avgBpm: 128 },
    };
    const found = analyseTest({
      ...record,
      rides: [{ ...record.rides[0]!, entries: [...record.rides[0]!.entries, totals] }],
    });
    const plain = analyseTest(record);
    if (!found.ok || !plain.ok) throw new Error("not reckoned");
    const { movingS, meanSpeedMps, topSpeedMps, climbM, noted, distance, course } = found.value;
    expect({ movingS, topSpeedMps, climbM, bpm: noted.bpm }).toEqual({ movingS: 5400, topSpeedMps: 11, climbM: 300, bpm: 128 }); // prettier-ignore
    expect(meanSpeedMps).toBeCloseTo(distance.value.mean / 5400, 9);
    expect(course.legs.reduce((sum, { gainM }) => sum + gainM, 0)).toBeCloseTo(300, 6);
    expect(distance.value.mean).toBeCloseTo(plain.value.distance.value.mean, 9);
  });
});
