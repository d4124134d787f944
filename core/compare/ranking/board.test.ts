import { describe, expect, test } from "@jest/globals";
import {
  bikeCells,
  boardOf,
  cheapestOption,
  claimReport,
  verdictText,
  inAir,
  asRidden,
  LEVEL_PLACES,
  MEASURES,
  optionRange,
  packOptions,
  partFor,
  deskDayOf,
  onPack,
  seasonRange,
  statedConditions,
  SEASONS,
  combine,
  type BoardAsk,
  type BoardEntry,
  type ClaimInput,
} from "#core/compare";
import { deskPosterior } from "#core/desk";
import { METRES_PER_MILE, MPS_PER_MPH, renderUnits, spanOf } from "#core/base";
import { bikeSchema, packRecordSchema, riderSchema, setUpSchema, testSchema } from "#core/records";
import { conditionsFor, REFERENCES } from "#core/bike";

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
      riderId: "r",
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
const board = (entries: readonly BoardEntry[], asked: BoardAsk) =>
  boardOf(deskPosterior(entries.flatMap(({ compared }) => deskDayOf(compared) ?? [])), entries, asked);
const only = (over: Partial<BoardAsk>, told: Told = {}) => board([entry(told)], { ...ask, ...over }).rows[0]!;

describe("a board of standings", () => {
  test("as ridden is what was measured, plain beside it", () => {
    const row = only({});
    expect(row.figure.mean * METRES_PER_MILE).toBeCloseTo(12, 9);
    expect(combine(row.figure).sd * METRES_PER_MILE).toBeCloseTo(0.5, 9);
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
    const { rows, left } = board([entry()], { ...ask, level: "highest level" });
    expect(rows).toEqual([]);
    expect(left[0]!.why).toContain("do not tell this part");
    expect(board([entry()], { ...ask, ground: "mud" }).left[0]!.why).toBe("It was not ridden so.");
  });
  test("places mean the bike's own levels; the whole ride means no part", () => {
    const named = (place: string) => bike.levels.find((level) => partFor(bike, place, null)?.(level, "mud"));
    expect(LEVEL_PLACES.map(named)).toEqual([undefined, "low", "mid", "high", undefined]);
    expect(partFor(bike, "whole ride", null)).toBeUndefined();
    expect(partFor(bike, "throttle", "brick")!("throttle", "brick")).toBe(true);
  });
  test("tests of one set-up are pooled, and surer together; of two they are not", () => {
    const entries = [entry({ id: "a" }), entry({ id: "b", whPerMi: 12.4 })];
    const [row, none] = board(entries, { ...ask, by: "set-up" }).rows;
    expect(none).toBeUndefined();
    expect(row!.testIds).toEqual(["a", "b"]);
    expect(combine(row!.figure).sd).toBeLessThan(combine(only({}).figure).sd);
    expect(combine(row!.figure).sd * METRES_PER_MILE).toBeGreaterThan(0.3);
    const apart = [entry({ id: "a" }), entry({ id: "b", setUpId: "other" })];
    expect(board(apart, { ...ask, by: "set-up" }).rows).toHaveLength(2);
  });
  test("under a reference all tests of a bike and set-up are one row, whatever rows are asked for", () => {
    const entries = [entry({ id: "a" }), entry({ id: "b", whPerMi: 12.4 })];
    const { rows } = board(entries, { ...ask, reference: house! });
    expect(rows.map(({ testIds }) => testIds)).toEqual([["a", "b"]]);
    const [lone] = board([entry({ id: "a" })], { ...ask, reference: house! }).rows;
    expect(combine(rows[0]!.figure).sd).toBeLessThan(combine(lone!.figure).sd);
  });
  test("a motor that rests below the reference's speed is brought to what it holds", () => {
    const { heldMps, figure } = only({ reference: flat! });
    expect(heldMps! / MPS_PER_MPH).toBeCloseTo(15.5, 6);
    expect(figure.mean).toBeGreaterThan(0);
    expect(only({ reference: house! }).heldMps).toBeNull();
  });
  test("levels differ as ridden only, a ground may be asked for under a reference too", () => {
    const { left } = board([entry()], { ...ask, reference: house!, level: "lowest level" });
    expect(left[0]!.why).toContain("whatever the level");
    const on = (ground: BoardAsk["ground"]) => only({ reference: house!, ground }).figure.mean;
    expect(on("grass")).toBeGreaterThan(1.3 * on("asphalt"));
    expect(board([entry()], { ...ask, reference: house!, level: "throttle" }).left[0]!.why).toContain(
      "no throttle",
    );
  });
  test("what no reading bears has no figure, and what has nothing to be measured by says why", () => {
    const bare = entry();
    const pencilled = {
      ...bare.compared.ridden.results,
      best: { ...bare.compared.ridden.results.best, pencil: true },
    };
    const compared = { ...bare.compared, ridden: { ...bare.compared.ridden, results: pencilled } };
    expect(board([{ ...bare, compared }], { ...ask, reference: house! }).left[0]!.why).toContain(
      "is assumed, not measured",
    );
    expect(board([entry({ climbM: null })], { ...ask, measure: "whPerClimb" }).left[0]!.why).toContain(
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
      board(entries, { ...ask, measure })
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
    expect(combine(low!.whPerM!).sd * METRES_PER_MILE).toBeLessThan(0.8);
    expect(high).toMatchObject({ level: "high", whPerM: null, tests: [] });
  });
  test("cold air costs more, and a cold pack holds less", () => {
    const at = (tempC: number) => {
      const found = inAir(entry().compared, tempC);
      return found.ok ? found.value : null;
    };
    expect(at(-2)!.mean).toBeGreaterThan(at(22)!.mean);
    const [summer, , frost] = SEASONS.map(({ tempC }) =>
      seasonRange(at(tempC)!, onPack("p", { mean: 560, sd: 15 }), "NMC", tempC),
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
  test("what one costs more than the other is enough, also where it is the smaller one", () => {
    const bare = { ...pack, priceMinor: undefined };
    const dearer = { ...long, priceMinor: undefined, priceMoreMinor: 16_000 };
    expect(packOptions(bare, [dearer], false)).toMatchObject([{ addedMinor: 16_000 }]);
    expect(packOptions(dearer, [bare], false)).toMatchObject([{ addedMinor: -16_000 }]);
    expect(packOptions(dearer, [bare, { ...rail, priceMinor: undefined }], false)).toMatchObject([
      { addedMinor: null },
      { addedMinor: null },
    ]);
    const [less] = packOptions(dearer, [bare], false);
    expect(optionRange(less!, 0.01, 60_000)).toMatchObject({ perMetreMinor: expect.closeTo(0.86, 2) });
    expect(cheapestOption([less!])).toBe(less);
  });
  test("an option's miles and their price; a smaller pack adds none", () => {
    const [more] = packOptions(pack, [long], false);
    expect(optionRange(more!, 0.01, 50_000)).toEqual({
      rangeM: expect.closeTo(68_600, 4),
      addedM: expect.closeTo(18_600, 4),
      perMetreMinor: expect.closeTo((24_000 / 186) * 0.01, 6),
    });
    const [less] = packOptions(pack, [rail], false);
    expect(optionRange(less!, 0.01, 50_000).addedM).toBeLessThan(0);
    expect(optionRange(less!, 0.01, 50_000).perMetreMinor).toBeCloseTo((20_000 / 186) * 0.01, 6);
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
  const range = (miles: number, sd: number) => ({ mean: mi(miles), sd: mi(sd) });
  const input: ClaimInput = {
    labelWh: 612,
    ranges: [
      { under: "as ridden", range: range(54, 1.5) },
      { under: "under House", range: range(39, 1.2) },
    ],
    whPerM: per(14.2, 0.4),
    conditions: conditionsFor(house!, 26),
    bike: {},
  };
  const report = (low: number, high: number, more: Partial<ClaimInput> = {}) =>
    claimReport({ mode: "", lowM: mi(low), highM: mi(high), conditions: "" }, { ...input, ...more });
  const said = (sentences: readonly string[]) => renderUnits(sentences.join(" "), "imperial");
  test("as ridden comes first: a bike ridden a fifth beyond its claim meets it, whatever the reference says", () => {
    const { lines } = report(45, 45);
    expect(lines.map(({ under, verdict }) => [under, verdict])).toEqual([
      ["as ridden", "met"],
      ["under House", "not met"],
    ]);
    expect(said([lines[0]!.sentence])).toBe(
      "As ridden: 51 mi to 57 mi, claimed 45 mi. 45 mi is reached with 99 in 100.",
    );
  });
  test("what it needs of the rider and of the speed, where that is within reason", () => {
    const { high, needs } = report(65, 65);
    expect(high.ratio).toBeCloseTo(1.5082, 4);
    expect(said(needs)).toMatch(
      /^65 mi needs 1[0-2]\d W from the rider at 15 mph, or no more than 1[12]\.\d mph\.$/,
    );
    expect(report(400, 400).needs).toEqual([]);
    expect(report(30, 30).needs).toEqual([]);
  });
  test("a range is a span above zero, however unsure", () => {
    const unsure = [{ under: "under House", range: range(15, 10) }];
    const [line] = report(31, 31, { ranges: unsure }).lines;
    expect(spanOf(line!.range).low).toBeGreaterThan(0);
    expect(spanOf(line!.range).high).toBeGreaterThan(mi(31));
    expect([line!.verdict, verdictText(line!)]).toEqual(["not met", "likely not met"]);
    expect(line!.chanceLow).toBeGreaterThan(0.05);
  });
  test("a span is met at its lower end, and exceeded only beyond its upper", () => {
    const [ridden] = report(45, 70).lines;
    expect(ridden).toMatchObject({ verdict: "met" });
    expect(ridden!.chanceHigh).toBeLessThan(0.01);
    expect(said([ridden!.sentence])).toContain("45 mi is reached with 99 in 100, 70 mi with 1 in 100");
    expect(report(40, 45).lines[0]!.verdict).toBe("exceeded");
  });
  test.each([
    ["70 kg rider, flat road, 25 km/h", { carriedKg: 70, gainMPerMi: 0, speedMps: 25 / 3.6 }],
    ["165 lb rider", { carriedKg: 165 * 0.45359237 }],
    ["at 12 mph, no wind, 68 F", { speedMps: 12 * MPS_PER_MPH, headwindMps: 0, tempC: 20 }],
  ])("the conditions “%s” are read", (words, wanted) => {
    const { carriedKg, conditions } = statedConditions(words, house!)!;
    for (const [key, value] of Object.entries(wanted))
      expect({ carriedKg, ...conditions }[key as "carriedKg"]).toBeCloseTo(value, 6);
  });
  test("words that say nothing of how it was ridden are no conditions", () =>
    expect(statedConditions("eco mode, new battery", house!)).toBeNull());
});
