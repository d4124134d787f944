import { describe, expect, test } from "@jest/globals";
import { inverse, Matrix } from "ml-matrix";
import {
  answerLedger,
  energyFigure,
  ledgerInputSchema,
  linearFigure,
  rideFigure,
  solveLedger,
  usedBetween,
  withSds,
  type Solved,
} from "#core/ledger";
import { errorCovariance } from "./evidence.ts";
import { addInto, combine, dot, lastEntry } from "./forms.ts";

const input = (more: object = {}) =>
  ledgerInputSchema.parse({
    pack: { chemistry: "NMC", labelWh: 748, seriesCells: 14, packTempC: 12 },
    gauge: { percentStep: 1, counts: "charge", bars: 5 },
    massKg: 110,
    cells: ["low", "high"],
    legs: [
      { miles: { low: 6 }, gainM: 40, lossM: 10 },
      { miles: { high: 5 }, gainM: 10, lossM: 60 },
      { miles: { low: 3, high: 3 } },
      { miles: { high: 6.5 } },
    ],
    readings: [
      { kind: "fullStart", mark: 0 },
      { kind: "percent", mark: 1, percent: 90 },
      { kind: "barLost", mark: 2, bar: 5 },
      { kind: "restVolts", mark: 2, packVolts: 54.9, restMin: 12, meterStepV: 0.1 },
      { kind: "percent", mark: 4, percent: 44 },
      { kind: "energyCounter", fromMark: 0, toMark: 4, wh: 371, stepWh: 1, meter: "m1" },
    ],
    ...more,
  });
function solved(more: object = {}): Solved {
  const result = solveLedger(input(more));
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
}
const answer = (more: object = {}) => {
  const result = answerLedger(input(more));
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
};

/** The textbook posterior, written with full matrices and an inverse: D - D H' (H D H' + R)^-1 H D. */
function textbook({ prior, evidence }: Solved) {
  const d = Matrix.diag([...prior.variance]);
  const h = new Matrix(evidence.forms.map((form) => [...form]));
  const v = h.mmul(d).mmul(h.transpose()).add(errorCovariance(evidence.rows));
  const gain = d.mmul(h.transpose()).mmul(inverse(v));
  const residual = Matrix.columnVector(
    evidence.values.map((value, i) => value - dot(evidence.forms[i]!, prior.mean)),
  );
  return {
    mean: Matrix.columnVector([...prior.mean])
      .add(gain.mmul(residual))
      .to1DArray(),
    covariance: d.sub(gain.mmul(h).mmul(d)),
    inverse: inverse(v),
    residual,
  };
}

describe("the solve agrees with the textbook", () => {
  const ride = solved();
  const book = textbook(ride);
  test("in every mean", () => {
    book.mean.forEach((value, i) => expect(ride.posterior.mean[i]).toBeCloseTo(value, 8));
  });
  test("in the variance of figures", () => {
    const figures = [
      rideFigure(ride, 0),
      linearFigure(ride, usedBetween(ride, 0, 1, 3)),
      energyFigure(ride, usedBetween(ride, 0, 2, 4), 9.5),
    ];
    withSds(ride, figures).forEach(({ sd }, i) => {
      const g = Matrix.columnVector([...figures[i]!.gradient]);
      expect(sd).toBeCloseTo(Math.sqrt(g.transpose().mmul(book.covariance).mmul(g).get(0, 0)), 8);
    });
  });
  test("in chi-square and in each reading against the rest", () => {
    const weights = book.inverse.mmul(book.residual);
    expect(ride.posterior.chi2PerReading).toBeCloseTo(
      book.residual.transpose().mmul(weights).get(0, 0) / 6,
      8,
    );
    ride.posterior.looStandardised().forEach((z, i) => {
      expect(z).toBeCloseTo(weights.get(i, 0) / Math.sqrt(book.inverse.get(i, i)), 8);
    });
  });
});

describe("what energy readings bring", () => {
  const percents = {
    readings: [
      { kind: "fullStart", mark: 0 },
      { kind: "percent", mark: 4, percent: 44 },
    ],
  };
  const metered = {
    readings: [...percents.readings, { kind: "energyCounter", fromMark: 0, toMark: 4, wh: 371 }],
  };
  test("a counter halves the doubt or better, and measures the pack", () => {
    expect(answer(metered).whPerMiSd[0]!).toBeLessThan(answer(percents).whPerMiSd[0]! / 2);
    expect(answer(metered).capacitySdWh).toBeLessThan(answer(percents).capacitySdWh);
  });
  test("a second reading of one meter shares its gain; another meter's does not", () => {
    const again = (meter: string) =>
      answer({
        readings: [...metered.readings, { kind: "energyCounter", fromMark: 0, toMark: 4, wh: 371, meter }],
      }).whPerMiSd[0]!;
    expect(again("another")).toBeLessThan(0.85 * again("meter"));
  });
  test("a refill at the wall says less than a counter, more than nothing", () => {
    const refill = answer({ readings: [...percents.readings, { kind: "wallRefill", mark: 4, wallWh: 431 }] })
      .whPerMiSd[0]!;
    expect(refill).toBeGreaterThan(answer(metered).whPerMiSd[0]!);
    expect(refill).toBeLessThan(answer(percents).whPerMiSd[0]!);
  });
});

describe("runs of one section", () => {
  const rides = (section?: string) => ({
    legs: undefined,
    readings: undefined,
    rides: ["low", "high"].map((cell, i) => ({
      legs: [{ miles: { [cell]: 5 }, ...(section && { section }) }],
      readings: [
        { kind: "fullStart", mark: 0 },
        { kind: "percent", mark: 1, percent: 88 - 4 * i },
      ],
    })),
  });
  test("share their scatter, so that their difference is surer", () => {
    expect(answer(rides("levee")).differenceSdWhPerMi!).toBeLessThan(answer(rides()).differenceSdWhPerMi!);
  });
  test("each ride has its own figure", () => expect(answer(rides()).whPerMi).toHaveLength(2));
});

describe("linear forms", () => {
  const form = Float64Array.of(1, 0, 2, 0);
  test("value, over all or some variables", () => {
    expect(dot(form, Float64Array.of(3, 5, 7, 9))).toBe(17);
    expect(dot(form, Float64Array.of(3, 5, 7, 9), 2)).toBe(3);
  });
  test("where the last entry lies", () => {
    expect(lastEntry(form)).toBe(3);
    expect(lastEntry(new Float64Array(3))).toBe(0);
  });
  test("sums leave their terms alone", () => {
    const sum = combine(4, [
      [form, 2],
      [form, -1],
    ]);
    expect([...sum]).toEqual([...form]);
    addInto(sum, form, 1);
    expect([...sum]).toEqual([2, 0, 4, 0]);
    expect([...form]).toEqual([1, 0, 2, 0]);
  });
});
