import { describe, expect, test } from "@jest/globals";
import { steadyRows, withoutOne, type PairedTest } from "#core/compare";
import type { Side } from "#core/fields";
import type { EntryBody } from "#core/ride/log";
import { METRES_PER_MILE } from "#core/base";
import { bikeSchema, setUpSchema, testRecordSchema, testSchema, type TestRecord } from "#core/records";
import { prepareTest } from "#core/analysis";
import { fitRoad } from "#core/bike";
import { inOrder, orderOf } from "./order.ts";
import { jointInput, shareUpPacks, sideRuns } from "./runs.ts";

const mi = (miles: number) => miles * METRES_PER_MILE;

interface Look {
  readonly miles: number;
  readonly percent: number;
  readonly side?: Side;
  readonly section?: string;
  readonly counterWh?: number;
}

function record(looks: readonly Look[], { tempC = 20, day = "2026-10-18", course = "" } = {}): TestRecord {
  return testRecordSchema.parse({
    test: { title: "t", day, airTempC: tempC, firstLevel: "mid", course },
    bike: { name: "Reed", levels: ["mid"] },
    pack: { name: "p", chemistry: "NMC", labelWh: 500, seriesCells: 13 },
    rides: [
      {
        entries: looks.map(({ miles, ...rest }, i) => ({
          id: `019a0000-0000-7000-8000-${i.toString(16).padStart(12, "0")}`,
          seq: i,
          body: { kind: i === 0 ? "start" : "checkIn", distanceM: mi(miles), ...rest } as EntryBody,
        })),
      },
    ],
  });
}
const paired = (id: string, side: Side | null, made: TestRecord): PairedTest => ({
  id,
  bikeId: "b",
  packId: "p",
  secondPackId: null,
  record: made,
  side,
});
function laid(...tests: readonly PairedTest[]) {
  return shareUpPacks(
    tests.map((test) => {
      const found = prepareTest(test.record);
      if (!found.ok) throw new Error(found.problems[0]!.sentence);
      return { test, laid: found.value };
    }),
  );
}
const looks: readonly Look[] = [
  { miles: 0, percent: 100 },
  { miles: 5, percent: 88 },
  { miles: 10, percent: 76 },
];

describe("the runs of a pair", () => {
  test("a cold pack shares its name, and is told by its warmth", () => {
    const { packs, runs } = laid(
      paired("warm", "A", record(looks)),
      paired("cold", "B", record(looks, { tempC: -10 })),
    );
    expect(Object.keys(packs)).toEqual(["p"]);
    expect(runs[0]!.warmth).toBe(1);
    expect(runs[1]!.warmth).toBeLessThan(0.85);
  });
  test("a second pack beside the first is another pack", () => {
    const both = { ...paired("both", "B", record(looks)), secondPackId: "q" };
    expect(Object.keys(laid(paired("one", "A", record(looks)), both).packs)).toEqual(["p", "p+q"]);
  });
  test("miles and counted energy are scaled alike, so that a rate stays what it is", () => {
    const metered = [
      { miles: 0, percent: 100, counterWh: 0 },
      { miles: 10, percent: 70, counterWh: 140 },
    ];
    const { packs, runs } = laid(
      paired("warm", "A", record(metered)),
      paired("cold", "B", record(metered, { tempC: -10 })),
    );
    const [warm, cold] = jointInput(packs, runs).rides;
    const metres = (ride: typeof warm) => Object.values(ride!.legs[0]!.metres)[0]!;
    const wh = (ride: typeof warm) =>
      ride!.readings.flatMap((reading) => (reading.kind === "energyCounter" ? [reading.wh] : []))[0]!;
    expect(wh(cold) / metres(cold)).toBeCloseTo(wh(warm) / metres(warm), 9);
    expect(metres(cold)).toBeGreaterThan(metres(warm));
  });
  test("each side has cells of its own; legs of neither belong to neither", () => {
    const named: readonly Look[] = [
      { miles: 0, percent: 100 },
      { miles: 2, percent: 95, side: "A" },
      { miles: 6, percent: 85, side: "B" },
      { miles: 10, percent: 75 },
    ];
    const { packs, runs } = laid(paired("log", null, record(named)));
    expect(jointInput(packs, runs).cells.map((cell) => cell.split(" | ")[0])).toEqual(["neither", "A", "B"]);
    expect(sideRuns(runs).map(({ side, fromMark, toMark }) => [side, fromMark, toMark])).toEqual([
      ["A", 1, 2],
      ["B", 2, 3],
    ]);
  });
  test("legs are of one section only on the same road in the same legs", () => {
    const sectionsOf = (...tests: readonly PairedTest[]) => {
      const { packs, runs } = laid(...tests);
      return jointInput(packs, runs).rides.map(({ legs }) => legs[0]!.section);
    };
    const on = (course: string, of = looks) => record(of, { course });
    expect(sectionsOf(paired("a", "A", on("levee")), paired("b", "B", on("levee")))).toEqual([
      "levee",
      "levee",
    ]);
    expect(sectionsOf(paired("a", "A", on("levee")), paired("b", "B", on("hill")))).toEqual([
      undefined,
      undefined,
    ]);
    const longer = looks.map((look) => ({ ...look, miles: look.miles * 1.3 }));
    expect(sectionsOf(paired("a", "A", on("levee")), paired("b", "B", on("levee", longer)))).toEqual([
      undefined,
      undefined,
    ]);
  });
  test("runs lie in the order they were ridden, by day where no time was noted", () => {
    const { runs } = laid(
      paired("late", "A", record(looks, { day: "2026-10-20" })),
      paired("early", "B", record(looks, { day: "2026-10-18" })),
    );
    const ordered = inOrder(runs, sideRuns(runs));
    expect(ordered.map(({ side }) => side)).toEqual(["B", "A"]);
    expect(orderOf(ordered)).toEqual(["B", "A"]);
  });
});

describe("leaving one test out", () => {
  const tests = [
    paired("a1", "A", record(looks)),
    paired("b", "B", record(looks.map((look) => ({ ...look, percent: 100 - 1.5 * (100 - look.percent) })))),
    paired("a2", "A", record(looks)),
  ];
  test("solves the rest", () => {
    const { difference } = withoutOne(tests, "a2");
    expect(difference!.mean).toBeLessThan(0);
  });
  test("a side without a run has no difference", () =>
    expect(withoutOne(tests, "b")).toEqual({ id: "b", difference: null, chanceA: 0.5 }));
});

test("a logger's steady stretches become rows of the fit, one way where they are few", () => {
  const bike = bikeSchema.parse({ name: "Reed", levels: ["mid"], massKg: 26 });
  const riding = { bike, setUp: setUpSchema.parse({ name: "s", lightsOn: true }), rider: null };
  const use = (windows: number) => ({
    level: "mid",
    ground: "brick",
    speedMps: 5,
    whPerM: { mean: 0.008, sd: 0.0004 },
    windows,
    manyWays: windows > 11,
  });
  const rows = steadyRows(testSchema.parse({ title: "t", day: "2026-10-18", riderW: 80 }), riding, [
    use(4),
    use(20),
  ]);
  expect(rows.map(({ oneWay }) => oneWay)).toEqual([true, false]);
  expect(rows[0]!.state).toMatchObject({ riderW: 80, lightsOn: true, ground: "brick", speedMps: 5 });
  expect(rows[0]!.riderSdW).toBeCloseTo(20, 9);
  expect(fitRoad(rows).ok).toBe(true);
});
