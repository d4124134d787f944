import type { BudgetLine } from "#core/estimation";
import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { jointPair, neededFor, orderWarning, type JointPair, type PairedTest } from "#core/compare";
import type { Side } from "#core/fields";
import type { EntryBody } from "#core/ride/log";
import { certaintyOf, METRES_PER_MILE, renderUnits } from "#core/base";
import { analyseTest } from "#core/analysis";
import { testRecordSchema, type TestRecord } from "#core/records";

const mi = (miles: number) => miles * METRES_PER_MILE;

interface Look {
  readonly miles: number;
  readonly percent: number;
  readonly counterWh?: number;
  readonly section?: string;
  readonly side?: Side;
}

/** A test of check-ins, the first of them its start. */
function record(
  looks: readonly Look[],
  over: { day?: string; packTempC?: number; course?: string } = {},
): TestRecord {
  const entries = looks.map(({ miles, ...rest }, i) => ({
    id: `019a0000-0000-7000-8000-${i.toString(16).padStart(12, "0")}`,
    seq: i,
    body: { kind: i === 0 ? "start" : "checkIn", distanceM: mi(miles), ...rest } as EntryBody,
  }));
  return testRecordSchema.parse({
    test: {
      title: "t",
      day: over.day ?? "2026-10-18",
      airTempC: over.packTempC ?? 20,
      course: over.course ?? "",
      firstLevel: "mid",
    },
    bike: { name: "Reed", levels: ["mid"] },
    pack: { name: "p", chemistry: "NMC", labelWh: 500, seriesCells: 13 },
    rides: [{ entries }],
  });
}
let made = 0;
const paired = (side: Side | null, looks: readonly Look[], over = {}): PairedTest => ({
  id: `t${(made += 1)}`,
  bikeId: "b",
  packId: "p",
  secondPackId: null,
  record: record(looks, over),
  side,
});
function joint(...tests: readonly PairedTest[]): JointPair {
  const found = jointPair(tests);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
}
const whPerMi = ({ mean, sd }: { mean: number; sd: number }) => ({
  mean: mean * METRES_PER_MILE,
  sd: sd * METRES_PER_MILE,
});
const falling = (from: number, to: number): readonly Look[] => [
  { miles: 0, percent: from },
  { miles: 3, percent: Math.round((from + to) / 2) },
  { miles: 6, percent: to },
];

describe("a joint pair", () => {
  test("two copies of one test differ by nothing", () =>
    fc.assert(
      fc.property(fc.integer({ min: 60, max: 100 }), fc.integer({ min: 8, max: 40 }), (from, drop) => {
        const looks = falling(from, from - drop);
        const { whole } = joint(paired("A", looks), paired("B", looks));
        expect(Math.abs(whole.difference.mean)).toBeLessThan(1e-9 * whole.a.mean);
        expect(whole.chanceA).toBeCloseTo(0.5, 6);
      }),
      { numRuns: 25 },
    ));
  test("what the log noted of each side stands beside it; what nobody noted is not known", () => {
    const noted = (bpm: number, minutes: number): TestRecord => {
      const { rides, ...rest } = record(falling(98, 76));
      const [ride] = rides;
      const entries = ride!.entries.map((entry, i) => ({
        ...entry,
        at: new Date(Date.UTC(2026, 9, 18, 10, i * minutes)).toISOString(),
        body: { ...entry.body, ...(i > 0 && { bpm: bpm + i }) } as EntryBody,
      }));
      return { ...rest, rides: [{ ...ride!, entries }] };
    };
    const of = (side: Side, each: TestRecord) => ({ ...paired(side, falling(98, 76)), record: each });
    const { whole } = joint(of("A", noted(120, 12)), of("B", record(falling(98, 76))));
    expect(whole.noted.A.bpm).toBeCloseTo(121.5, 9);
    expect(whole.noted.A.speedMps).toBeCloseTo(mi(6) / (24 * 60), 3);
    expect(whole.noted.B).toEqual({ speedMps: null, bpm: null, airTempC: null });
  });
  test("a side that ends in its last bar by bars alone is told of; with volts or a cut-off it is not", () => {
    const twin = (side: Side, last: Record<string, number | boolean | string>): PairedTest => {
      const { rides, bike, ...rest } = record(falling(98, 76));
      const [ride] = rides;
      const entries = ride!.entries.map((entry, i) => {
        const { percent: _, ...body } = entry.body as {
          kind: "checkIn";
          distanceM: number;
          percent?: number;
        };
        return { ...entry, body: { ...body, ...([{ bars: 5 }, { bars: 3 }, last][i] ?? {}) } as EntryBody };
      });
      return {
        ...paired(side, []),
        record: { ...rest, bike: { ...bike, bars: 5 }, rides: [{ ...ride!, entries }] },
      };
    };
    const [short, sound] = [twin("A", { bars: 1 }), twin("B", { bars: 2 })];
    expect(joint(short, sound).lastBar).toMatch(/^A ends in the last bar/);
    expect(joint(short, twin("B", { bars: 1 })).lastBar).toMatch(/^A and B end in the last bar/);
    expect(joint(twin("A", { bars: 1, packVolts: 44.1 }), sound).lastBar).toBeNull();
    expect(joint(twin("A", { bars: 2 }), sound).lastBar).toBeNull();
  });
  test("its two figures are those of the tests themselves, whatever was slipped in one of them", () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 70, max: 100 }),
        fc.integer({ min: 8, max: 30 }),
        fc.integer({ min: 8, max: 30 }),
        fc.boolean(),
        (from, dropA, dropB, slips) => {
          const looks = [
            ...falling(from, from - dropA),
            { miles: 9, percent: from - Math.round(1.5 * dropA) },
          ];
          if (slips) looks[2] = { ...looks[2]!, percent: looks[2]!.percent - 10 };
          const tests = [paired("A", looks), paired("B", falling(from, from - dropB))];
          const { whole } = joint(...tests);
          const own = tests.map((test) => {
            const results = analyseTest(test.record);
            if (!results.ok) throw new Error("no figure");
            return results.value.best.value;
          });
          [whole.a, whole.b].forEach(({ mean, sd }, i) => {
            expect(mean / own[i]!.mean).toBeCloseTo(1, 9);
            expect(sd / own[i]!.sd).toBeCloseTo(1, 9);
          });
          expect(whole.difference.mean).toBeCloseTo(whole.a.mean - whole.b.mean, 12);
        },
      ),
      { numRuns: 20 },
    ));
  test("turned round it is the same verdict with the other sign", () => {
    const [a, b] = [falling(98, 76), falling(96, 80)];
    const [there, back] = [joint(paired("A", a), paired("B", b)), joint(paired("A", b), paired("B", a))];
    expect(there.whole.difference.mean).toBeCloseTo(-back.whole.difference.mean, 10);
    expect(there.whole.chanceA).toBeCloseTo(1 - back.whole.chanceA, 9);
  });
  test("what the runs share cancels: surer together than apart", () => {
    const pair = joint(paired("A", falling(98, 70)), paired("B", falling(98, 78)));
    expect(pair.whole.difference.sd).toBeLessThan(0.9 * pair.sdApart);
    expect(whPerMi(pair.whole.difference).mean).toBeGreaterThan(3);
  });
  test("a cold pack is the same pack with less in it", () => {
    // A counter says the same energy on both days; the percent falls farther in the cold.
    const looks = (wh: number, to: number): readonly Look[] => [
      { miles: 0, percent: 98, counterWh: 0 },
      { miles: 6, percent: to, counterWh: wh },
    ];
    const warm = paired("A", looks(90, 79), { packTempC: 25 });
    const cold = paired("B", looks(90, 73), { packTempC: -10 });
    const { whole } = joint(warm, cold);
    expect(whPerMi(whole.a).mean).toBeCloseTo(15, 0);
    expect(Math.abs(whPerMi(whole.difference).mean)).toBeLessThan(0.5);
  });
  test("runs named in one log are told apart, section by section", () => {
    const looks: readonly Look[] = [
      { miles: 0, percent: 99, side: "A", section: "lower" },
      { miles: 3, percent: 89, section: "upper" },
      { miles: 6, percent: 77, side: "B", section: "lower" },
      { miles: 9, percent: 69, section: "upper" },
      { miles: 12, percent: 60, section: "lower" },
      { miles: 15, percent: 52, section: "upper" },
      { miles: 18, percent: 43, side: "A", section: "lower" },
      { miles: 21, percent: 33, section: "upper" },
      { miles: 24, percent: 20 },
    ];
    const pair = joint(paired(null, looks));
    expect(pair.order).toEqual(["A", "B", "B", "A"]);
    expect(pair.orderWarning).toBeNull();
    expect(pair.sections.map(({ section }) => section)).toEqual(["lower", "upper"]);
    const { whole, sections } = pair;
    const mean = sections.reduce((sum, each) => sum + each.difference.mean, 0) / 2;
    expect(mean).toBeCloseTo(whole.difference.mean, 9);
    expect(whPerMi(whole.difference).mean).toBeGreaterThan(1);
    expect(sections.every(({ difference }) => difference.sd > whole.difference.sd)).toBe(true);
  });
  test("runs of one road, leg by leg, share its hills", () => {
    const run = (side: Side, course: string) => paired(side, falling(98, 76), { course });
    const same = joint(run("A", "levee"), run("B", "levee")).whole.difference.sd;
    expect(same).toBeLessThan(joint(run("A", "levee"), run("B", "tramway")).whole.difference.sd);
  });
  test("says what rounding can do, what would settle it, and what a meter would leave", () => {
    const pair = joint(paired("A", falling(98, 85)), paired("B", falling(98, 86)));
    expect(certaintyOf(pair.whole.chanceA)).not.toBe("sure");
    expect(renderUnits(pair.rounding.sentence, "imperial")).toMatch(
      /^Of the 0\.\d\d Wh\/mi between them, up to 1\.\d\d Wh\/mi can be rounding of what was read\.$/,
    );
    expect(pair.needed.runs === null || pair.needed.runs > 1).toBe(true);
    expect(pair.sdMetered!).toBeLessThan(pair.whole.difference.sd / 2);
  });
  test("one run each, or A A B B, is warned of", () => {
    expect(joint(paired("A", falling(98, 80)), paired("B", falling(80, 60))).orderWarning).toContain(
      "One run each",
    );
    expect(orderWarning(["A", "A", "B", "B"])).toContain("A A B B");
    expect(orderWarning(["A", "B", "B", "A"])).toBeNull();
    expect(orderWarning(["B", "A", "A", "B"])).toBeNull();
  });
  test("twins ridden at one time need no order, one after the other they do", () => {
    const timed = (side: Side, startS: number) => {
      const test = paired(side, falling(98, 80));
      const [ride] = test.record.rides;
      const at = (i: number) => new Date(Date.UTC(2026, 9, 18, 9) + 1000 * (startS + 600 * i)).toISOString();
      const entries = ride!.entries.map((entry, i) => ({ ...entry, at: at(i) }));
      return {
        ...test,
        bikeId: `bike ${side}`,
        packId: `pack ${side}`,
        record: { ...test.record, rides: [{ ...ride!, entries }] },
      };
    };
    const twins = joint(timed("A", 0), timed("B", 40));
    expect(twins).toMatchObject({ together: true, orderWarning: null });
    expect(joint(timed("A", 0), timed("B", 20_000))).toMatchObject({ together: false });
    expect(joint(timed("A", 0), timed("B", 20_000)).orderWarning).toContain("One run each");
  });
  test("where volts at rest are all that was read, their last digit is what rounds", () => {
    const volts = (side: Side, from: number, to: number) => {
      const looks = [0, 6].map((miles, i) => ({ miles, packVolts: i ? to : from, restMin: 20 }));
      return paired(side, looks as never);
    };
    const pair = joint(volts("A", 53, 50.1), volts("B", 53, 49.8));
    expect(pair.rounding.whPerM * METRES_PER_MILE).toBeGreaterThan(0.2);
    expect(pair.rounding.whPerM * METRES_PER_MILE).toBeLessThan(4);
  });
  test("a side without a run is refused, and so is a test with nothing to reckon", () => {
    expect(jointPair([paired("A", falling(98, 80))])).toMatchObject({ problems: [{ code: "no-side" }] });
    expect(jointPair([paired("A", falling(98, 80)), paired("B", [{ miles: 0, percent: 90 }])])).toMatchObject(
      {
        problems: [{ code: "no-distance" }],
      },
    );
  });
});

describe("what would resolve a difference", () => {
  const budget = (road: number, gauge: number, capacity: number): readonly BudgetLine[] => [
    { source: "road scatter", variance: road },
    { source: "gauge rounding", variance: gauge },
    { source: "capacity", variance: capacity },
  ];
  test("four times the runs halve the doubt", () =>
    expect(neededFor({ mean: 1, sd: 1 }, budget(1, 0, 0), 2).runs).toBe(8));
  test("rounding falls with the length, scatter with its root", () => {
    expect(neededFor({ mean: 1, sd: 1 }, budget(0, 1, 0), 1).length! - 2).toBeLessThan(0.11);
    expect(neededFor({ mean: 1, sd: 1 }, budget(1, 0, 0), 1).length! - 4).toBeLessThan(0.11);
  });
  test("no length helps against what stays, and nothing resolves no difference", () => {
    expect(neededFor({ mean: 1, sd: 1 }, budget(0, 0, 1), 1).length).toBeNull();
    expect(neededFor({ mean: 0, sd: 1 }, budget(1, 1, 1), 1)).toEqual({ runs: null, length: null });
    expect(neededFor({ mean: 0.01, sd: 1 }, budget(1, 1, 0), 1)).toEqual({ runs: null, length: null });
  });
});
