import { describe, expect, test } from "@jest/globals";
import {
  bikeCells,
  boardOf,
  cheapestOption,
  claimReport,
  inAir,
  asRidden,
  LEVEL_PLACES,
  MEASURES,
  optionRange,
  packOptions,
  partFor,
  seasonRange,
  SEASONS,
  untraced,
  type BoardAsk,
  type BoardEntry,
  type ClaimInput,
} from "#core/compare";
import { METRES_PER_MILE, MPS_PER_MPH, spoken } from "#core/quantities";
import { bikeSchema, packRecordSchema, riderSchema, setUpSchema, testSchema } from "#core/records";
import { conditionsFor, REFERENCES } from "#core/roadload";

const [house, flat, hill] = REFERENCES;
const mi = (miles: number) => miles * METRES_PER_MILE;
const per = (whPerMi: number, sd: number) => ({ mean: whPerMi / METRES_PER_MILE, sd: sd / METRES_PER_MILE });
const pack = packRecordSchema.parse({ name: "Frame", labelWh: 600, seriesCells: 13, priceMinor: 60_000 });
const bike = bikeSchema.parse({
  name: "Reed",
  levels: ["low", "mid", "high"],
  massKg: 26,
  assistToMps: 15.5 * MPS_PER_MPH,
});

interface Told {
  readonly id?: string;
  readonly setUpId?: string;
  readonly whPerMi?: number;
  readonly climbM?: number | null;
  readonly plain?: number | null;
}

/** A test of 20 miles: 12 on low, told apart; 8 on high, not. */
function entry({ id = "t", setUpId = "s", whPerMi = 12, climbM = 200, plain = 13 }: Told = {}): BoardEntry {
  const value = (v: { mean: number; sd: number }) => ({ value: v, because: "", pencil: false, how: [] });
  const digest = {
    best: value(per(whPerMi, 0.5)),
    plain: plain === null ? null : { whPerM: plain / METRES_PER_MILE, energyWh: 0, rangeM: 0, because: "" },
    distance: value({ mean: mi(20), sd: 100 }),
    capacity: value({ mean: 550, sd: 15 }),
    packLearned: { before: { mean: 560, sd: 20 }, after: { mean: 560, sd: 15 }, learned: true },
    meanSpeedMps: 13 * MPS_PER_MPH,
    climbM,
    slopes: null,
    noted: {
      stops: 15,
      bpm: null,
      windMps: 2,
      unassistedShare: null,
      clockSpeedMps: null,
      levelSpeedMps: {},
      climbM: null,
      guesses: [],
    },
    parts: [
      { level: "low", ground: "asphalt", distanceM: mi(12), whPerM: per(10, 0.8) },
      { level: "high", ground: "brick", distanceM: mi(8), whPerM: null },
    ],
    budget: [{ source: "capacity", variance: (0.3 / METRES_PER_MILE) ** 2, share: 1 }],
    questions: 0,
  };
  return {
    compared: {
      id,
      bikeId: "b",
      packId: "p",
      bikeKg: 26,
      fitted: null,
      ridden: {
        bike,
        setUp: setUpSchema.parse({ name: "plain" }),
        rider: riderSchema.parse({ name: "Maren", massKg: 70 }),
        test: testSchema.parse({ title: id, day: "2026-10-18", airTempC: 20, effort: "easy" }),
        results: digest as never,
      },
    },
    digest: digest as never,
    setUpId,
    pack,
    option: { name: "Rail", way: "beside", addedWh: 400, addedMinor: 40_000 },
  };
}
const ask: BoardAsk = {
  reference: null,
  measure: "whPerMi",
  level: "whole ride",
  ground: null,
  by: "test",
  commonWh: 500,
};
const only = (over: Partial<BoardAsk>, told: Told = {}) =>
  boardOf([entry(told)], { ...ask, ...over }).rows[0]!;

describe("a board of standings", () => {
  test("as ridden is what was measured, plain beside it", () => {
    const row = only({});
    expect(row.figure.mean * METRES_PER_MILE).toBeCloseTo(12, 9);
    expect(untraced(row.figure).sd * METRES_PER_MILE).toBeCloseTo(0.5, 9);
    expect(row.plain! * METRES_PER_MILE).toBeCloseTo(13, 9);
    expect(only({}, { plain: null }).plain).toBeNull();
  });
  test("every measure has a row, in Wh/km the same as in Wh/mi", () => {
    for (const measure of MEASURES)
      expect(only({ measure, reference: hill! }).figure.mean).toBeGreaterThan(0);
    expect(only({ measure: "whPerKm" }).figure).toEqual(only({}).figure);
  });
  test("a level is chosen by its place, a ground by its name; what is not told apart is left out, with why", () => {
    expect(only({ level: "lowest level" }).figure.mean * METRES_PER_MILE).toBeCloseTo(10, 9);
    expect(only({ ground: "asphalt" }).figure.mean * METRES_PER_MILE).toBeCloseTo(10, 9);
    const { rows, left } = boardOf([entry()], { ...ask, level: "highest level" });
    expect(rows).toEqual([]);
    expect(left[0]!.why).toContain("do not tell this part");
    expect(boardOf([entry()], { ...ask, ground: "mud" }).left[0]!.why).toBe("It was not ridden so.");
  });
  test("places mean the bike's own levels; the whole ride means no part", () => {
    const named = (place: string) => bike.levels.find((level) => partFor(bike, place, null)?.(level, "mud"));
    expect(LEVEL_PLACES.map(named)).toEqual([undefined, "low", "mid", "high", undefined]);
    expect(partFor(bike, "whole ride", null)).toBeUndefined();
    expect(partFor(bike, "throttle", "brick")!("throttle", "brick")).toBe(true);
  });
  test("tests of one set-up are pooled, and surer together; of two they are not", () => {
    const entries = [entry({ id: "a" }), entry({ id: "b", whPerMi: 12.4 })];
    const [row, none] = boardOf(entries, { ...ask, by: "set-up" }).rows;
    expect(none).toBeUndefined();
    expect(row!.testIds).toEqual(["a", "b"]);
    expect(untraced(row!.figure).sd).toBeLessThan(untraced(only({}).figure).sd);
    expect(untraced(row!.figure).sd * METRES_PER_MILE).toBeGreaterThan(0.3);
    const apart = [entry({ id: "a" }), entry({ id: "b", setUpId: "other" })];
    expect(boardOf(apart, { ...ask, by: "set-up" }).rows).toHaveLength(2);
  });
  test("what cannot be brought to a reference, or has nothing to be measured by, says why", () => {
    expect(boardOf([entry()], { ...ask, reference: flat! }).left[0]!.why).toContain("The motor rests above");
    expect(boardOf([entry({ climbM: null })], { ...ask, measure: "whPerClimb" }).left[0]!.why).toContain(
      "Nobody measured its climb",
    );
  });
  test("units change no verdict: places are the same in every measure of energy", () => {
    const entries = [
      entry({ id: "a", whPerMi: 14 }),
      entry({ id: "b", whPerMi: 11 }),
      entry({ id: "c", whPerMi: 12 }),
    ];
    const order = (measure: BoardAsk["measure"], sign: number) =>
      boardOf(entries, { ...ask, measure })
        .rows.map(({ id, figure }) => [id, sign * figure.mean] as const)
        .sort((x, y) => x[1] - y[1])
        .map(([id]) => id);
    for (const [measure, sign] of [
      ["whPerKm", 1],
      ["milesPerKwh", -1],
      ["rangeCommon", -1],
      ["rangeOwn", -1],
    ] as const)
      expect(order(measure, sign)).toEqual(["b", "c", "a"]);
  });
});

describe("cells of a bike over its tests", () => {
  test("are pooled where told apart, and honest where not", () => {
    const cells = bikeCells([entry({ id: "a" }).compared, entry({ id: "b" }).compared], asRidden);
    const [low, high] = cells;
    expect(low).toMatchObject({ level: "low", ground: "asphalt", tests: ["a", "b"] });
    expect(low!.metres).toBeCloseTo(mi(24), 6);
    expect(untraced(low!.whPerM!).sd * METRES_PER_MILE).toBeLessThan(0.8);
    expect(high).toMatchObject({ level: "high", whPerM: null, tests: [] });
  });
  test("cold air costs more, and a cold pack holds less", () => {
    const at = (tempC: number) => {
      const found = inAir(entry().compared, tempC);
      return found.ok ? found.value : null;
    };
    expect(at(-2)!.mean).toBeGreaterThan(at(22)!.mean);
    const [summer, , frost] = SEASONS.map(({ tempC }) =>
      seasonRange(at(tempC)!, "p", { mean: 560, sd: 15 }, "NMC", tempC),
    );
    expect(frost!.total.mean).toBeLessThan(0.9 * summer!.total.mean);
    expect(summer!.fullPower.mean / summer!.total.mean).toBeCloseTo(0.92, 9);
    expect(summer!.withReserve.mean / summer!.total.mean).toBeCloseTo(0.8, 9);
  });
});

describe("other packs", () => {
  const rail = packRecordSchema.parse({ name: "Rail", labelWh: 400, seriesCells: 13, priceMinor: 40_000 });
  const long = packRecordSchema.parse({ name: "Long", labelWh: 800, seriesCells: 13, priceMinor: 84_000 });
  test("instead of the own one, and beside it where the bike runs two", () => {
    expect(packOptions(pack, [long], false)).toEqual([
      { name: "Long", way: "instead", addedWh: expect.closeTo(186, 6), addedMinor: 24_000 },
    ]);
    expect(packOptions(pack, [rail], true).map(({ way, addedWh }) => [way, Math.round(addedWh)])).toEqual([
      ["instead", -186],
      ["beside", 372],
    ]);
  });
  test("an option's miles and their price; a smaller pack adds none", () => {
    const [more] = packOptions(pack, [long], false);
    expect(optionRange(more!, 0.01)).toEqual({
      addedM: expect.closeTo(18_600, 4),
      perMetreMinor: expect.closeTo((24_000 / 186) * 0.01, 6),
    });
    const [less] = packOptions(pack, [rail], false);
    expect(optionRange(less!, 0.01).addedM).toBeLessThan(0);
    expect(optionRange(less!, 0.01).perMetreMinor).toBeNull();
  });
  test("the cheapest energy is the one that counts; without a price there is none", () => {
    expect(cheapestOption(packOptions(pack, [long, rail], true))).toMatchObject({
      name: "Rail",
      way: "beside",
    });
    expect(cheapestOption(packOptions(pack, [{ ...long, priceMinor: undefined }], false))).toBeNull();
  });
});

describe("a claim against what was measured", () => {
  const input: ClaimInput = {
    labelWh: 612,
    whPerM: per(14.2, 0.4),
    range: { mean: mi(39), sd: mi(1.2) },
    lambda: 1,
    reference: "House",
    conditions: conditionsFor(house!, 26),
    bike: {},
  };
  const report = (low: number, high: number) => {
    const found = claimReport({ mode: "", lowM: mi(low), highM: mi(high), conditions: "" }, input);
    if (!found.ok) throw new Error(found.problems[0]!.sentence);
    return found.value;
  };
  test("the worked case: what it needs of the rider and of the speed", () => {
    const { high, verdict, sentences } = report(65, 65);
    expect(verdict).toBe("short");
    expect(high.ratio).toBeCloseTo(1.5082, 4);
    expect(high.riderW).toBeCloseTo(115.05, 2);
    expect(spoken(sentences.join(" "), "imperial")).toBe(
      "The claim of 65 mi is not met: 37 mi to 41 mi under House, 26 mi short of its lower end. 65 mi needs 115 W from the rider at 15 mph, or no more than 12.1 mph.",
    );
  });
  test("holds below the span, is not ruled out inside it; each end needs its own", () => {
    expect(report(30, 34).verdict).toBe("holds");
    expect(report(39, 60).verdict).toBe("within reach");
    expect(report(50, 60).sentences).toHaveLength(3);
    expect(report(20, 25).sentences).toHaveLength(1);
  });
});
