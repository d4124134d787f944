import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import type { Entry, EntryBody } from "#core/ride/log";
import { METRES_PER_MILE } from "#core/base";
import { testRecordSchema } from "#core/records";
import { headlineOf, analyseTest } from "#core/analysis";
import { KINDS, type KindName } from "#core/world";
import { worldTest } from "#tests/world";

const mi = (miles: number) => miles * METRES_PER_MILE;
const entriesOf = (bodies: readonly EntryBody[]): Entry[] =>
  bodies.map((body, seq) => ({
    id: `019a0000-0000-7000-8000-${seq.toString(16).padStart(12, "0")}`,
    ...{ seq, at: null, body, supersedes: null },
  }));
const reckon = (bodies: readonly EntryBody[], more: object = {}) =>
  analyseTest(
    testRecordSchema.parse({
      test: { title: "t", day: "2026-10-18", airTempC: 20, firstLevel: "steady" },
      bike: { name: "b", levels: ["steady"], percentStep: 1, bars: 5 },
      pack: { name: "p", chemistry: "NMC", labelWh: 612, seriesCells: 13 },
      rides: [{ name: "r", entries: entriesOf(bodies) }],
      ...more,
    }),
  );
const valueOf = (...args: Parameters<typeof reckon>) => {
  const result = reckon(...args);
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
};
const start: EntryBody = { kind: "start", distanceM: 0, chargerDone: true };
const at = (miles: number, more: object): EntryBody => ({ kind: "checkIn", distanceM: mi(miles), ...more });

describe("best never leaves its data", () => {
  test("it lies between the least and the most that its kinds of evidence alone allow", () => {
    const kinds = Object.keys(KINDS) as KindName[];
    fc.assert(
      fc.property(fc.constantFrom(...kinds), fc.integer({ min: 1, max: 4000 }), (kind, seed) => {
        const analysed = analyseTest(worldTest(seed, kind).record);
        if (!analysed.ok) throw new Error(analysed.problems[0]!.sentence);
        const { best, alone } = analysed.value;
        if (alone.length === 0) return;
        const edges = alone.flatMap(({ whPerM: { mean, sd } }) => [mean - 3 * sd, mean + 3 * sd]);
        expect(best.value.mean).toBeGreaterThanOrEqual(Math.min(...edges));
        expect(best.value.mean).toBeLessThanOrEqual(Math.max(...edges));
      }),
      { numRuns: 30, seed: 20261127 },
    );
  });
  test("a part charge with an odd reading is what everybody would say, and both stories are told", () => {
    const { best, flags } = valueOf(
      [
        { kind: "start", distanceM: 0, percent: 84 },
        at(6.4, { percent: 80 }),
        at(10.9, { percent: 63 }),
        { kind: "end", reason: "byChoice", distanceM: mi(21.3), percent: 37 },
      ],
      { pack: { name: "p", chemistry: "NMC", labelWh: 2184, seriesCells: 13, ampHours: 45 } },
    );
    const whPerMi = best.value.mean * METRES_PER_MILE;
    expect(whPerMi).toBeGreaterThan(42);
    expect(whPerMi).toBeLessThan(48);
    expect(1.96 * best.value.sd * METRES_PER_MILE).toBeLessThan(9);
    expect(flags).toHaveLength(1);
    expect(flags[0]!.sentence).toMatch(
      /^80 % at .* Either it is a slip, of 70 %, or .* beside it took \d+ % of the usual\.$/,
    );
  });
  test("readings that do not agree with one another give no bold figure", () => {
    const bodies = [20, 90, 15, 80, 30, 95, 10, 85, 25, 70, 12].map((percent, i) =>
      at(3 * (i + 1), { percent, bars: 5 - (i % 5) }),
    );
    const { best, flags } = valueOf([start, ...bodies]);
    expect(Number.isFinite(best.value.mean)).toBe(true);
    expect(best.pencil || flags.length > 0).toBe(true);
    expect(best.because).toMatch(/in question|does not agree/);
  });
});

describe("a figure needs a reading", () => {
  const bare = [start, at(12, { note: "windy" })];
  test("a distance and a full start give none, and say what would", () => {
    const result = reckon(bare);
    expect(result).toMatchObject({ ok: false, problems: [{ code: "no-reading" }] });
    const { whPerM, waits } = headlineOf(result);
    expect(whPerM).toBeNull();
    expect(waits).toContain("note a percent, bars, volts, a counter or how it ended");
  });
  test("one reading more, or an end that tells, and there is one", () => {
    expect(reckon([...bare, at(20, { percent: 60 })]).ok).toBe(true);
    expect(reckon([...bare, { kind: "end", reason: "cannotHoldSpeed", distanceM: mi(30) }]).ok).toBe(true);
    expect(reckon([...bare, { kind: "end", reason: "byChoice", distanceM: mi(30) }]).ok).toBe(false);
  });
  test("all set aside leaves none", () => {
    const bodies = [start, at(20, { percent: 60 })];
    const strike: EntryBody = { kind: "strike", target: entriesOf(bodies)[1]!.id, field: "percent" };
    expect(reckon([...bodies, strike])).toMatchObject({ ok: false, problems: [{ code: "no-reading" }] });
  });
});

describe("the end is evidence", () => {
  const ridden = [start, at(10, { percent: 70 }), at(20, { percent: 41 })];
  const ended = (reason: "cutOff" | "cannotHoldSpeed" | "gaugeZero") =>
    valueOf([...ridden, { kind: "end", reason, distanceM: mi(33) }]);
  test("a crawl uses nearly all, gauge zero a little more, a cut-off all", () => {
    const used = (["cannotHoldSpeed", "gaugeZero", "cutOff"] as const).map(
      (reason) => ended(reason).end.used.mean,
    );
    expect(used[0]).toBeGreaterThan(0.93);
    expect(used[1]).toBeGreaterThan(used[0]!);
    expect(used[2]).toBeGreaterThan(used[1]!);
    expect(used[2]).toBeCloseTo(1, 1);
  });
  test("full power never reaches beyond it", () => {
    for (const reason of ["cutOff", "cannotHoldSpeed", "gaugeZero"] as const) {
      const { rangeFullPower, rangeTotal } = ended(reason);
      expect(rangeFullPower!.value.mean).toBeLessThanOrEqual(rangeTotal!.value.mean);
    }
    const late = valueOf([...ridden, { kind: "end", reason: "cutOff", distanceM: mi(33) }, { kind: "fullPowerEnd", distanceM: mi(36) }]); // prettier-ignore
    expect(late.rangeFullPower!.value.mean).toBeLessThanOrEqual(mi(33));
  });
});
