import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { Matrix, QrDecomposition } from "ml-matrix";
import {
  answerLedger,
  budgetOf,
  ledgerInputSchema,
  metresOf,
  rideFigure,
  settingOf,
  solveLedger,
  estimateOf,
  usedBetween,
  energyFigure,
  type LedgerInput,
} from "#core/estimation";
import { assuming, METRES_PER_MILE } from "#core/base";
import { usableEnergy } from "#core/battery";
import { rowOf } from "#core/battery/readings";

/** The first model's assumptions, under which the figures of its worked cases stand. */
const assume = JSON.parse(readFileSync("tests/fixtures/first-model.json", "utf8")) as Record<string, number>;

const base = {
  pack: { chemistry: "NMC", labelWh: 612, seriesCells: 13, packTempC: 20 },
  gauge: { percentStep: 1, counts: "charge" },
  cells: ["steady"],
  legs: [
    { miles: { steady: 5 } },
    { miles: { steady: 5 } },
    { miles: { steady: 5 } },
    { miles: { steady: 4.2 } },
  ],
  readings: [
    { kind: "fullStart", mark: 0 },
    { kind: "percent", mark: 0, percent: 99 },
    { kind: "percent", mark: 1, percent: 88 },
    { kind: "percent", mark: 2, percent: 76 },
    { kind: "percent", mark: 3, percent: 66 },
    { kind: "percent", mark: 4, percent: 56 },
  ],
} as const;

const read = (input: unknown): LedgerInput => ledgerInputSchema.parse(input);
/** What a function gives under the first model's assumptions. */
const first = <T>(work: () => T): T => assuming(assume, work);
const answer = (input: unknown) => {
  const result = answerLedger(read(input));
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
};

describe("the budget", () => {
  const source = (input: unknown) => {
    const solved = solveLedger(read(input));
    if (!solved.ok) throw new Error("not solved");
    return Object.fromEntries(
      budgetOf(solved.value, rideFigure(solved.value, 0)).map(({ source: name, variance }) => [
        name,
        variance * METRES_PER_MILE ** 2,
      ]),
    );
  };
  test("of six percents: gauge, capacity, start, road", () => {
    const budget = first(() => source(base));
    expect(budget["gauge smooth"]).toBeCloseTo(0.39015, 4);
    expect(budget["capacity"]).toBeCloseTo(0.30718, 4);
    expect(budget["full at start"]).toBeCloseTo(0.057142, 5);
    expect(budget["road scatter"]).toBeCloseTo(0.034235, 5);
  });
  test("of bars to cut-off", () => {
    const input = {
      pack: { chemistry: "NMC", labelWh: 480, seriesCells: 10, packTempC: 6 },
      gauge: { bars: 5 },
      cells: ["low", "high"],
      legs: [
        { miles: { low: 6.8 } },
        { miles: { low: 3.1, high: 1.4 } },
        { miles: { high: 4.2 } },
        { miles: { high: 1.8, low: 3 } },
        { miles: { low: 4.9 } },
      ],
      readings: [
        { kind: "fullStart", mark: 0 },
        ...[5, 4, 3, 2].map((bar, i) => ({ kind: "barLost", mark: i + 1, bar })),
        { kind: "cutOff", mark: 5 },
      ],
    };
    const budget = first(() => source(input));
    expect(budget["capacity"]).toBeCloseTo(0.44392, 4);
    expect(budget["cut-off"]).toBeCloseTo(0.061283, 5);
    expect(budget["full at start"]).toBeCloseTo(0.029522, 5);
    expect(budget["bar thresholds"]).toBeCloseTo(0.0042882, 5);
  });
});

describe("the model", () => {
  test("the order of the readings changes nothing", () => {
    fc.assert(
      fc.property(fc.shuffledSubarray([...base.readings], { minLength: 6 }), (readings) => {
        const [mine, first] = [answer({ ...base, readings }), answer(base)];
        expect(mine.whPerMi[0]).toBeCloseTo(first.whPerMi[0]!, 9);
        expect(mine.whPerMiSd[0]).toBeCloseTo(first.whPerMiSd[0]!, 9);
      }),
      { numRuns: 30 },
    );
  });
  test("the slow error by its exact kernel gives the same answer as by its nodes", () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 3, max: 97 })), {
          minLength: 2,
          maxLength: 6,
          selector: ([, percent]) => percent,
        }),
        (stages) => {
          const percents = stages.map(([, percent]) => percent).sort((a, b) => b - a);
          const input = read({
            ...base,
            legs: stages.map(([miles]) => ({ miles: { steady: miles } })),
            readings: [
              { kind: "fullStart", mark: 0 },
              ...percents.map((percent, i) => ({ kind: "percent", mark: i + 1, percent })),
            ],
          });
          const solved = first(() => solveLedger(input));
          if (!solved.ok) throw new Error("not solved");
          const mine = estimateOf(solved.value, rideFigure(solved.value, 0));
          const theirs = first(() => stackedAnswer(input)) / METRES_PER_MILE;
          expect(Math.abs(mine.mean / theirs - 1)).toBeLessThan(1e-5);
        },
      ),
      { numRuns: 40 },
    );
  });
  test("a display read far more often than it steps does not drag the answer down", () => {
    const often = (marks: number) =>
      answer({
        ...base,
        legs: Array.from({ length: marks - 1 }, () => ({ miles: { steady: 40 / (marks - 1) } })),
        readings: [
          { kind: "fullStart", mark: 0 },
          ...Array.from({ length: marks }, (_, mark) => ({
            kind: "percent",
            mark,
            percent: Math.round(100 - (92 * mark) / (marks - 1)),
          })),
        ],
      }).whPerMi[0]!;
    const seldom = often(12);
    for (const marks of [120, 600, 1500]) expect(Math.abs(often(marks) / seldom - 1)).toBeLessThan(0.03);
  });
  test("energy adds over stretches", () => {
    const solved = solveLedger(read(base));
    if (!solved.ok) throw new Error("not solved");
    const between = (from: number, to: number) =>
      energyFigure(solved.value, 0, usedBetween(solved.value, 0, from, to)).mean;
    expect(between(0, 1) + between(1, 3) + between(3, 4)).toBeCloseTo(between(0, 4), 9);
  });
  test("another reading never makes the answer less sure", () => {
    const without = answer({ ...base, readings: base.readings.slice(0, 5) });
    expect(answer(base).whPerMiSd[0]).toBeLessThan(without.whPerMiSd[0]!);
  });
  test("no reading at all leaves what was believed, very unsure", () => {
    const none = answer({ ...base, readings: [] });
    expect(none.whPerMi[0]).toBeCloseTo(15, 6);
    expect(none.whPerMiSd[0]).toBeGreaterThan(14);
  });
  test("one reading alone is answered with a wide error", () =>
    expect(
      answer({ ...base, readings: [{ kind: "percent", mark: 4, percent: 56 }] }).whPerMiSd[0],
    ).toBeGreaterThan(3));
  test("a reading that contradicts the others is the likeliest slip, and the headline hardly holds it", () => {
    const slip = answer({
      ...base,
      readings: [...base.readings.slice(0, 4), { kind: "percent", mark: 3, percent: 96 }, base.readings[5]],
    });
    expect(slip.slipLogOdds[4]).toBeGreaterThan(5);
    expect(Math.abs(slip.headline[0]![0] - slip.withoutFlagged!.whPerMi[0]!)).toBeLessThan(0.02);
    const worst = slip.looStandardised.map(Math.abs);
    expect(worst.indexOf(Math.max(...worst))).toBe(4);
  });
  test("all readings at one mark still give an answer", () => {
    expect(
      answer({ ...base, readings: [70, 71, 70].map((percent) => ({ kind: "percent", mark: 2, percent })) })
        .whPerMiSd[0],
    ).toBeGreaterThan(2);
  });
  test("climb is charged to the hill, not to the level", () => {
    const flat = answer({ ...base, massKg: 110 });
    const hilly = answer({
      ...base,
      massKg: 110,
      legs: base.legs.map((leg) => ({ ...leg, gainM: 60, lossM: 20 })),
    });
    expect(hilly.cellWhPerMi["steady"]![0]).toBeLessThan(flat.cellWhPerMi["steady"]![0] - 1);
  });
});

/** The same model written the other way: every prior and evidence row stacked, whitened, and solved by QR. Percent and full start only. */
function stackedAnswer(input: LedgerInput): number {
  const usable = usableEnergy(input.packs["only"]!);
  if (!usable.ok) throw new Error("no pack");
  const c0 = usable.value.mean;
  const { legs, readings } = input.rides[0]!;
  const marks = legs.length + 1;
  const columns = marks + 1; // V_0..V_n, w
  const rows: number[][] = [];
  const values: number[] = [];
  const push = (coefficients: readonly (readonly [number, number])[], value: number, sd: number) => {
    const row = new Array<number>(columns).fill(0);
    for (const [at, coefficient] of coefficients) row[at] = coefficient / sd;
    rows.push(row);
    values.push(value / sd);
  };
  push([[0, 1]], 0.5, 1);
  push([[marks, 1]], 15 / c0, 15 / c0);
  legs.forEach(({ metres }, i) => {
    const d = metres["steady"]! / METRES_PER_MILE;
    push([[i + 1, 1], [i, -1], [marks, -d]], 0, (0.25 * 15 * Math.sqrt(d)) / c0); // prettier-ignore
  });
  const setting = settingOf(input, input.rides[0]!);
  const said = readings.map((reading) => rowOf(reading, setting));
  const covariance = Matrix.zeros(said.length, said.length);
  said.forEach((a, i) => {
    covariance.set(
      i,
      i,
      a.errors.reduce((sum, { sd }) => sum + sd * sd, 0),
    );
    said.forEach((b, j) => {
      if (a.smooth && b.smooth)
        covariance.set(
          i,
          j,
          covariance.get(i, j) + 0.0004 * Math.exp(-((a.smooth.f - b.smooth.f) ** 2) / 0.08),
        );
    });
  });
  const whitened = lowerInverse(covariance);
  for (let i = 0; i < said.length; i += 1) {
    const row = new Array<number>(columns).fill(0);
    let value = 0;
    for (let j = 0; j <= i; j += 1) {
      const mark = said[j]!.fractions[0]!.mark;
      row[mark] = row[mark]! + whitened.get(i, j);
      value += whitened.get(i, j) * said[j]!.value;
    }
    rows.push(row);
    values.push(value);
  }
  const x = new QrDecomposition(new Matrix(rows)).solve(Matrix.columnVector(values));
  const miles = legs.reduce((sum, leg) => sum + leg.metres["steady"]! / METRES_PER_MILE, 0);
  return (c0 * (x.get(marks - 1, 0) - x.get(0, 0))) / miles;
}

/** Inverse of the Cholesky factor, by forward substitution. */
function lowerInverse(covariance: Matrix): Matrix {
  const n = covariance.rows;
  const lower = Matrix.zeros(n, n);
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = covariance.get(i, j);
      for (let k = 0; k < j; k += 1) sum -= lower.get(i, k) * lower.get(j, k);
      lower.set(i, j, i === j ? Math.sqrt(sum) : sum / lower.get(j, j));
    }
  const inverse = Matrix.zeros(n, n);
  for (let column = 0; column < n; column += 1)
    for (let i = column; i < n; i += 1) {
      let sum = i === column ? 1 : 0;
      for (let k = column; k < i; k += 1) sum -= lower.get(i, k) * inverse.get(k, column);
      inverse.set(i, column, sum / lower.get(i, i));
    }
  return inverse;
}

describe("bad input is said with its place", () => {
  const problem = (input: unknown) => {
    const result = answerLedger(read(input));
    return result.ok ? null : result.problems[0];
  };
  test("no distance", () =>
    expect(problem({ ...base, legs: [{ miles: { steady: 0 } }], readings: [] })).toMatchObject({
      code: "no-distance",
      path: "legs",
    }));
  test("a mark that is not there", () =>
    expect(problem({ ...base, readings: [{ kind: "percent", mark: 9, percent: 50 }] })).toMatchObject({
      path: "readings.0.mark",
      sentence: "There is no mark 9: 4 legs have marks 0 to 4.",
    }));
  test("a cell nobody named", () =>
    expect(problem({ ...base, legs: [{ miles: { other: 3 } }], readings: [] })).toMatchObject({
      path: "legs.0.miles.other",
    }));
  test("a percent over 100, in the second ride", () => {
    const ride = { legs: base.legs, readings: [{ kind: "percent", mark: 1, percent: 130 }] };
    const { legs: _legs, readings: _readings, ...common } = base;
    expect(problem({ ...common, rides: [{ ...ride, readings: [] }, ride] })).toMatchObject({
      path: "rides.1.readings.0.percent",
    });
  });
  test("a pack without a label", () =>
    expect(problem({ ...base, pack: { chemistry: "NMC" } })).toMatchObject({ path: "pack.labelWh" }));
  test("negative miles", () =>
    expect(ledgerInputSchema.safeParse({ ...base, legs: [{ miles: { steady: -2 } }] }).success).toBe(false));
});

test("metres are counted by ride and by cell", () => {
  const [ride] = read(base).rides;
  expect(
    [metresOf(ride!), metresOf(ride!, "steady"), metresOf(ride!, "none")].map((metres) =>
      Number((metres / METRES_PER_MILE).toFixed(9)),
    ),
  ).toEqual([19.2, 19.2, 0]);
});
