import { describe, expect, test } from "@jest/globals";
import { METRES_PER_MILE, scale } from "#core/base";
import fc from "#tests/property";
import {
  answerLedger,
  influences,
  singleSourceEstimates,
  ledgerInputSchema,
  rankMeasurements,
  judgeReadings,
  rideFigure,
  solveLedger,
  estimateOf,
  type LedgerInput,
  type SolvedLedger,
} from "#core/estimation";

const base = {
  pack: { chemistry: "NMC", labelWh: 612, seriesCells: 13, packTempC: 20 },
  gauge: { percentStep: 1, counts: "charge", bars: 5 },
  cells: ["steady"],
  legs: [5, 5, 5, 4.2].map((miles) => ({ miles: { steady: miles } })),
  readings: [
    { kind: "fullStart", mark: 0 },
    ...[99, 88, 76, 66, 56].map((percent, mark) => ({ kind: "percent", mark, percent })),
  ],
};
const { legs: _legs, readings: _readings, ...common } = base;
const read = (more: object = {}): LedgerInput => ledgerInputSchema.parse({ ...base, ...more });
const solved = (more: object = {}): SolvedLedger => {
  const result = solveLedger(read(more));
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
};
const answer = (more: object = {}) => {
  const result = answerLedger(read(more));
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
};
const sdOf = (ledger: SolvedLedger) => estimateOf(ledger, rideFigure(ledger, 0)).sd;

describe("readings in question", () => {
  const slipped = {
    readings: [
      ...base.readings.slice(0, 3),
      { kind: "percent", mark: 2, percent: 92 },
      ...base.readings.slice(4),
    ],
  };
  test("a slip of sixteen points is the one questioned, in a sentence", () => {
    const { flags, withoutFlagged, whPerMi } = answer(slipped);
    expect(flags).toHaveLength(1);
    expect(flags[0]).toMatchObject({ ride: 0, reading: 3 });
    expect(flags[0]!.sentence).toMatch(
      /^92 % at 10\.0 mi is far too high for the other readings(: a typing slip\?|\. Either it is a slip, or \d\.\d mi beside it took .+ the usual\.)$/,
    );
    expect(Math.abs(withoutFlagged!.whPerMi[0]! - 13.4)).toBeLessThan(0.3);
    expect(whPerMi[0]).not.toBeCloseTo(withoutFlagged!.whPerMi[0]!, 2);
  });
  test("none is questioned when all agree, and then there is no second answer", () => {
    expect(answer().flags).toEqual([]);
    expect(answer().withoutFlagged).toBeUndefined();
  });
  test("two slips are found one after the other", () => {
    const readings = [
      ...base.readings.slice(0, 2),
      { kind: "percent", mark: 1, percent: 58 },
      { kind: "percent", mark: 2, percent: 76 },
      { kind: "percent", mark: 3, percent: 96 },
      ...base.readings.slice(5),
    ];
    const { flags, without } = judgeReadings(solved({ readings }));
    expect(flags.map(({ reading }) => reading).sort()).toEqual([2, 4]);
    expect(without.posterior.chi2PerReading).toBeLessThan(2);
  });
  test("a counted energy that is too large stands above", () => {
    const readings = [
      ...base.readings,
      { kind: "energyCounter", fromMark: 0, toMark: 4, wh: 420, meter: "m" },
    ];
    const flagged = answer({ readings }).flags.find(({ reading }) => reading === 6);
    expect(flagged!.sentence).toContain("420 Wh counted at 19.2 mi is far too high");
    expect(flagged!.sentence).toContain("high");
  });
});

describe("how a reading bears on the answer", () => {
  test("the answer without it is the answer solved without it", () => {
    const whole = solved();
    const found = influences(whole, rideFigure(whole, 0));
    found.forEach(({ without }, i) => {
      const rest = whole.keeping(base.readings.map((_, j) => j).filter((j) => j !== i))!;
      const again = estimateOf(rest, rideFigure(rest, 0));
      expect(Math.abs(without.mean / again.mean - 1)).toBeLessThan(1e-5);
      // The sd is taken at the whole answer, not at the one without it.
      expect(Math.abs(without.sd / again.sd - 1)).toBeLessThan(0.02);
    });
  });
  test("shares add up to one", () => {
    const whole = solved();
    const sum = influences(whole, rideFigure(whole, 0)).reduce((total, { share }) => total + share, 0);
    expect(sum).toBeCloseTo(1, 9);
  });
});

describe("what to measure next", () => {
  const left = (measure: string, more: object = {}) =>
    rankMeasurements(solved(more)).find((step) => step.measure === measure)?.sdLeft;
  test("a refill promises the sd that a refill then leaves", () => {
    const promised = left("refill")!;
    const wallWh = Math.round((0.47 * 571.7) / 0.86);
    const kept = solved({ readings: [...base.readings, { kind: "wallRefill", mark: 4, wallWh }] });
    expect(Math.abs(promised / sdOf(kept) - 1)).toBeLessThan(0.03);
  });
  test("a bench promises the sd of a measured pack", () => {
    const measured = solved({ pack: { ...base.pack, measuredWh: 581, measuredTempC: 20 } });
    expect(Math.abs(left("bench")! / sdOf(measured) - 1)).toBeLessThan(0.05);
  });
  test("rest volts promise the sd that they then leave", () => {
    const kept = solved({
      readings: [...base.readings, { kind: "restVolts", mark: 4, packVolts: 49.1, restMin: 12 }],
    });
    expect(Math.abs(left("restVolts")! / sdOf(kept) - 1)).toBeLessThan(0.05);
  });
  test("ten more miles promise the sd of a longer ride", () => {
    const longer = solved({
      legs: [...base.legs, { miles: { steady: 10 } }],
      readings: [...base.readings, { kind: "percent", mark: 5, percent: 33 }],
    });
    expect(Math.abs(left("tenMiles")! / sdOf(longer) - 1)).toBeLessThan(0.1);
  });
  test("what is there already is not proposed, nor miles the pack would not last", () => {
    const more = { readings: [...base.readings, { kind: "wallRefill", mark: 4, wallWh: 310 }] };
    expect(left("refill", more)).toBeUndefined();
    const nearEmpty = {
      readings: [
        { kind: "fullStart", mark: 0 },
        { kind: "percent", mark: 4, percent: 6 },
      ],
    };
    expect(left("tenMiles", nearEmpty)).toBeUndefined();
    expect(left("bench", { pack: { ...base.pack, measuredWh: 590 } })).toBeUndefined();
  });
  test("the list runs by gain per minute", () => {
    const gains = rankMeasurements(solved()).map(({ gainPerMinute }) => gainPerMinute);
    expect(gains).toEqual([...gains].sort((a, b) => b - a));
    expect(gains.length).toBeGreaterThan(3);
  });
});

describe("each kind of evidence alone", () => {
  test("a kind is solved on its own readings only", () => {
    const metered = read({
      readings: [
        ...base.readings,
        { kind: "energyCounter", fromMark: 0, toMark: 4, wh: 300 },
        { kind: "barLost", mark: 2, bar: 5 },
      ],
    });
    const alone = Object.fromEntries(
      singleSourceEstimates(metered).map(({ evidence, whPerM }) => [
        evidence,
        scale(whPerM, METRES_PER_MILE),
      ]),
    );
    expect(alone["counter"]!.mean).toBeCloseTo(300 / 19.2, 1);
    expect(Math.abs(alone["percent"]!.mean - 13.3)).toBeLessThan(0.3);
    expect(alone["bars"]!.sd).toBeGreaterThan(alone["percent"]!.sd);
    expect(alone["refill"]).toBeUndefined();
  });
  test("one reading that says nothing by itself is left out", () => {
    expect(singleSourceEstimates(read({ readings: [{ kind: "percent", mark: 0, percent: 99 }] }))).toEqual(
      [],
    );
  });
});

describe("rides that share something", () => {
  const ride = (more: object = {}) => ({ legs: base.legs, readings: base.readings, ...more });
  test("two rides of one pack are surer of the pack's part than each alone", () => {
    const counted = {
      readings: [...base.readings, { kind: "energyCounter", fromMark: 0, toMark: 4, wh: 268 }],
    };
    const result = answerLedger(ledgerInputSchema.parse({ ...common, rides: [ride(counted), ride()] }));
    if (!result.ok) throw new Error("not answered");
    expect(result.value.whPerMiSd[1]!).toBeLessThan(answer().whPerMiSd[0]!);
  });
  test("a meter's gain is learned on one bike and serves on another", () => {
    const packs = {
      known: { chemistry: "NMC", labelWh: 600, seriesCells: 13, measuredWh: 560, measuredSdWh: 1 },
      other: { chemistry: "NMC", labelWh: 500, seriesCells: 13 },
    };
    const count = (pack: string, wh: number) =>
      ride({ pack, readings: [{ kind: "fullStart", mark: 0 }, { kind: "cutOff", mark: 4 }, { kind: "energyCounter", fromMark: 0, toMark: 4, wh }] }); // prettier-ignore
    const rides = [count("known", 575), count("other", 480)];
    const result = answerLedger(ledgerInputSchema.parse({ packs, gauges: {}, cells: ["steady"], rides }));
    if (!result.ok) throw new Error(result.problems[0]!.sentence);
    const { known, other } = result.value.capacities!;
    // The meter reads high on the known pack, so the other pack holds less than it counted.
    expect(other![0]).toBeLessThan(480);
    expect(known![1]).toBeLessThan(12);
  });
  test("a ride that names no pack of the list is told the names", () => {
    const parsed = ledgerInputSchema.safeParse({ ...common, rides: [ride({ pack: "spare" })] });
    expect(parsed.success).toBe(false);
    expect(parsed.error!.issues[0]!.message).toContain("There is no pack “spare”: it is one of only.");
  });
});

describe("a charge in between", () => {
  const charged = (readings: readonly object[]) => ({
    legs: [{ miles: { steady: 12 } }, { charged: true }, { miles: { steady: 9 } }],
    readings,
  });
  const both = [
    { kind: "fullStart", mark: 0 },
    { kind: "percent", mark: 1, percent: 64 },
    { kind: "percent", mark: 2, percent: 92 },
    { kind: "percent", mark: 3, percent: 66 },
  ];
  test("what came back is no part of what was used", () => {
    const { whPerMi, energyWh } = answer(charged(both));
    expect(whPerMi[0]! * 21).toBeCloseTo(energyWh[0]!, 6);
    expect(Math.abs(energyWh[0]! / (0.62 * 572) - 1)).toBeLessThan(0.08);
  });
  test("its wall energy makes the pack or the ride surer, never less sure", () => {
    const wall = [...both, { kind: "wallCharge", fromMark: 1, toMark: 2, wallWh: 190 }];
    expect(answer(charged(wall)).whPerMiSd[0]!).toBeLessThan(answer(charged(both)).whPerMiSd[0]!);
  });
  test("a counter may not run through it", () => {
    const result = answerLedger(
      read(charged([...both, { kind: "energyCounter", fromMark: 0, toMark: 3, wh: 300 }])),
    );
    expect(result).toMatchObject({ ok: false, problems: [{ code: "span-charge", path: "readings.4" }] });
  });
});

describe("parts", () => {
  const two = (readings: readonly object[]) => ({
    cells: ["low", "high"],
    legs: [{ miles: { low: 4, high: 4 } }, { miles: { low: 4, high: 4 } }],
    readings,
  });
  test("levels always ridden together are not told apart", () => {
    const readings = [0, 1, 2].map((mark) => ({ kind: "percent", mark, percent: 98 - 18 * mark }));
    expect(answer(two(readings)).notToldApart).toEqual(["low", "high"]);
  });
  test("a cell's energy and the others' add to the ride's", () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 30, max: 80 }), (miles, percent) => {
        const input = {
          cells: ["low", "high"],
          legs: [{ miles: { low: miles } }, { miles: { low: 2, high: 6 } }],
          readings: [
            { kind: "fullStart", mark: 0 },
            { kind: "percent", mark: 2, percent },
          ],
        };
        const { cellWhPerMi, energyWh } = answer(input);
        expect(cellWhPerMi["low"]![0] * (miles + 2) + cellWhPerMi["high"]![0] * 6).toBeCloseTo(
          energyWh[0]!,
          6,
        );
      }),
      { numRuns: 25 },
    );
  });
});

test("two packs side by side add their energies", () => {
  const beside = answer({ pack: { ...base.pack, beside: [{ chemistry: "NMC", labelWh: 480 }] } });
  expect(beside.whPerMi[0]! / answer().whPerMi[0]!).toBeCloseTo(1092 / 612, 1);
});
test("an iron-phosphate pack's volts say little in the middle, and the ledger knows", () => {
  const volts = (chemistry: string, seriesCells: number, packVolts: readonly number[]) =>
    answer({
      pack: { chemistry, labelWh: 612, seriesCells },
      readings: packVolts.map((value, i) => ({
        kind: "restVolts",
        mark: 4 * i,
        packVolts: value,
        restMin: 5,
      })),
    }).whPerMiSd[0]!;
  expect(volts("LFP", 15, [49.95, 49.35])).toBeGreaterThan(1.6 * volts("NMC", 13, [52.5, 48.5]));
});
