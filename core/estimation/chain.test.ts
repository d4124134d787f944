import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { CholeskyDecomposition, Matrix, QrDecomposition, inverse } from "ml-matrix";
import {
  answerLedger,
  ledgerInputSchema,
  linearFigure,
  rideFigure,
  solveLedger,
  estimateOf,
  usedBetween,
  varianceOf,
  standingsOf,
  type SolvedLedger,
} from "#core/estimation";
import { DEFAULTS } from "#core/base";
import { planElimination, MOST_HUBS } from "./chain.ts";
import { combine, valueAt, type LinearForm } from "./linearForm.ts";
import { ROAD, rowSd, type LedgerRow } from "./rows.ts";
import { gpCorrelation, gpWeights } from "./gpBasis.ts";

/** Log of a positive matrix's determinant, by its Cholesky factor. */
const logDeterminantOf = (matrix: Matrix) =>
  2 *
  new CholeskyDecomposition(matrix).lowerTriangularMatrix.diagonal().reduce((sum, d) => sum + Math.log(d), 0);

/** The plain dense form: every row and every unknown's prior stacked, whitened, by QR and an inverse; under one weighing of them. */
function dense({ columns, travel, evidence }: SolvedLedger, scatter: number, meterOff?: string) {
  const { marks, unknowns } = columns;
  const width = marks + unknowns.list.length;
  const rows: LedgerRow[] = [...travel.rows, ...evidence];
  const a = Matrix.zeros(rows.length + unknowns.list.length, width);
  const b = Matrix.zeros(rows.length + unknowns.list.length, 1);
  // Unknowns in their own sds, so that the matrix is well scaled.
  const scale = (column: number) => {
    if (column < marks) return 1;
    const { key, sd, source } = unknowns.list[column - marks]!;
    if (key === meterOff) return sd * DEFAULTS.meterOffTimes;
    return source === ROAD ? sd * scatter : sd;
  };
  let logSds = 0;
  rows.forEach((row, i) => {
    const sd = rowSd(row, { scatter });
    logSds += Math.log(sd);
    for (const [column, coefficient] of row.form) a.set(i, column, (coefficient * scale(column)) / sd);
    b.set(i, 0, row.value / sd);
  });
  unknowns.list.forEach(({ mean }, u) => {
    a.set(rows.length + u, marks + u, 1);
    b.set(rows.length + u, 0, mean / scale(marks + u));
  });
  const normal = a.transpose().mmul(a);
  const x = new QrDecomposition(a).solve(b);
  const covariance = inverse(normal);
  const chi2 = Matrix.sub(a.mmul(x), b)
    .to1DArray()
    .reduce((sum, residual) => sum + residual * residual, 0);
  return {
    chi2,
    logDensity: -chi2 / 2 - logSds - logDeterminantOf(normal) / 2,
    mean: x.to1DArray().map((value, column) => value * scale(column)),
    variance: (form: LinearForm) => {
      const g = Matrix.zeros(width, 1);
      for (const [column, coefficient] of form) g.set(column, 0, coefficient * scale(column));
      return g.transpose().mmul(covariance).mmul(g).get(0, 0);
    },
  };
}

const solved = (input: unknown): SolvedLedger => {
  const result = solveLedger(ledgerInputSchema.parse(input));
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
};

const pack = { chemistry: "NMC", labelWh: 748, seriesCells: 14, packTempC: 12 };

/** Rides of every kind of row: percents, bars, volts, spans short and long, sections, climb, a charge in between. */
const anyLedger = fc
  .array(
    fc.record({
      miles: fc.integer({ min: 1, max: 60 }),
      high: fc.boolean(),
      gain: fc.integer({ min: 0, max: 80 }),
      read: fc.constantFrom("none", "percent", "volts", "bar", "short span", "long span", "blink"),
      section: fc.boolean(),
      charged: fc.integer({ min: 0, max: 9 }).map((n) => n === 0),
      off: fc.integer({ min: -3, max: 3 }),
    }),
    { minLength: 3, maxLength: 12 },
  )
  .chain((stages) => fc.record({ stages: fc.constant(stages), rides: fc.constantFrom(1, 2) }))
  .map(({ stages, rides }) => {
    let [left, since] = [96, 0];
    const readings: object[] = [{ kind: "fullStart", mark: 0 }];
    const legs = stages.map(({ miles, high, gain, read, section, charged, off }, i) => {
      const mark = i + 1;
      if (charged && i > 0) {
        left = 90;
        since = mark;
        return { charged: true };
      }
      left = Math.max(4, left - miles / 8);
      const percent = Math.round(left + off);
      if (read === "percent") readings.push({ kind: "percent", mark, percent });
      if (read === "volts") readings.push({ kind: "restVolts", mark, packVolts: 44 + left / 8, restMin: 12 });
      if (read === "bar")
        readings.push({ kind: "barLost", mark, bar: Math.min(5, Math.max(2, Math.ceil(left / 20))) });
      if (read === "blink") readings.push({ kind: "lastBarBlinking", mark });
      if (read === "short span")
        readings.push({ kind: "telemetry", fromMark: i, toMark: mark, wh: miles + off, sdWh: 1 });
      if (read === "long span" && mark > since)
        readings.push({
          kind: "energyCounter",
          fromMark: since,
          toMark: mark,
          wh: 20 * (mark - since) + off,
        });
      return {
        miles: high ? { high: miles / 10, low: 0.4 } : { low: miles / 10 },
        gainM: gain,
        lossM: 10,
        ...(section && { section: "levee" }),
      };
    });
    const ride = { legs: [...legs, { miles: { low: 1 } }], readings };
    return {
      pack,
      gauge: { percentStep: 1, counts: "charge", bars: 5 },
      massKg: 110,
      cells: ["low", "high"],
      rides: Array.from({ length: rides }, () => ride),
    };
  });

/** To a millionth of the value, or of a thousandth where it is tiny. */
const close = (mine: number, theirs: number) =>
  expect(Math.abs(mine - theirs)).toBeLessThanOrEqual(1e-6 * Math.max(Math.abs(theirs), 1e-3));

describe("the chain and the plain dense form agree to 1e-6, under each scale of the scatter", () => {
  test("in every mean, in chi-square, in the sds of figures", () => {
    fc.assert(
      fc.property(anyLedger, (input) => {
        const ride = solved(input);
        const figures = [
          rideFigure(ride, 0),
          linearFigure(ride, usedBetween(ride, 0, 1, 3).form),
          linearFigure(ride, new Map([[2, 1]])),
        ];
        const books = ride.parts.map(({ scatter, meterOff }) => dense(ride, scatter, meterOff));
        ride.parts.forEach(({ posterior }, p) => {
          const book = books[p]!;
          book.mean.forEach((value, column) => close(posterior.mean[column]!, value));
          close(posterior.chi2PerReading * ride.evidence.length, book.chi2);
          close(
            posterior.logDensity - ride.parts[0]!.posterior.logDensity,
            book.logDensity - books[0]!.logDensity,
          );
          for (const figure of figures)
            close(
              Math.sqrt(varianceOf(posterior, figure)),
              Math.sqrt(book.variance(figure.gradient) + figure.extra),
            );
        });
      }),
      { numRuns: 25, seed: 20261124 },
    );
  });
  test("in each reading against the answer without it, solved again", () => {
    const input = {
      pack,
      cells: ["low"],
      legs: [{ miles: { low: 6 } }, { miles: { low: 5 } }, { miles: { low: 7 } }],
      readings: [
        { kind: "fullStart", mark: 0 },
        { kind: "percent", mark: 1, percent: 88 },
        { kind: "restVolts", mark: 2, packVolts: 53.9, restMin: 12 },
        { kind: "percent", mark: 3, percent: 61 },
      ],
    };
    const whole = solved(input);
    standingsOf(whole).forEach(({ standing }, i) => {
      const row = whole.evidence[i]!;
      const rest = whole.keeping([0, 1, 2, 3].filter((each) => each !== i))!;
      const sd = Math.sqrt(rowSd(row) ** 2 + rest.posterior.variance(row.form));
      // To what the least likely scales weigh, which figures leave out.
      expect(Math.abs(standing - (row.value - valueAt(row.form, rest.posterior.mean)) / sd)).toBeLessThan(
        2e-3,
      );
    });
  });
  test("with a source taken as known", () => {
    const ride = solved({
      pack,
      cells: ["low"],
      legs: [{ miles: { low: 6 } }, { miles: { low: 5 } }],
      readings: [
        { kind: "fullStart", mark: 0 },
        { kind: "percent", mark: 2, percent: 70 },
      ],
    });
    const figure = rideFigure(ride, 0);
    const known = ride.without("capacity")!.variance(figure.gradient);
    const most = varianceOf(ride.posterior, figure) - known;
    const capacity = estimateOf(ride, linearFigure(ride, new Map([[ride.columns.capacity["only"]!, 1]])));
    // Percents say nothing of C: what they leave is the gradient's own part of it, but for the least likely scales.
    expect(most / (figure.mean * (capacity.sd / capacity.mean)) ** 2).toBeCloseTo(1, 3);
  });
});

describe("the slow error's nodes", () => {
  test("keep every correlation within 1e-6", () => {
    for (let a = -0.02; a <= 1.02; a += 0.0173)
      for (let b = -0.02; b <= 1.02; b += 0.0391) {
        const [wa, wb] = [gpWeights(a), gpWeights(b)];
        const product = wa.reduce((sum, weight, j) => sum + weight * wb[j]!, 0);
        expect(Math.abs(product - gpCorrelation(a, b))).toBeLessThan(1e-6);
      }
  });
});

describe("long rides and odd ones", () => {
  const long = (marks: number) => ({
    pack: { chemistry: "NMC", labelWh: 1000, seriesCells: 13 },
    cells: ["low", "high"],
    legs: Array.from({ length: marks - 1 }, (_, i) => ({
      miles: { [i % 20 < 10 ? "low" : "high"]: 60 / marks },
    })),
    readings: Array.from({ length: marks }, (_, mark) => ({
      kind: "percent",
      mark,
      percent: Math.round(100 - (92 * mark) / marks),
    })),
  });
  test("5,000 marks are answered", () => {
    const { posterior } = solved(long(5000));
    expect(posterior.mean.every(Number.isFinite)).toBe(true);
    expect(posterior.mean[4999]! - posterior.mean[0]!).toBeCloseTo(0.92, 1);
  }, 60_000);
  test("a running counter from one reset widens the border by one mark only", () => {
    const rows = [5, 9, 14].map((to) => ({ form: new Map([[0, -1], [to, 1]]), value: 0, errors: [], floor: 1 })); // prettier-ignore
    expect(planElimination(20, [], rows).border).toBe(1);
  });
  test("spans from hundreds of different marks are refused with what to do", () => {
    const input = long(2 * MOST_HUBS + 40);
    const spans = Array.from({ length: MOST_HUBS + 5 }, (_, i) => ({
      kind: "energyCounter",
      fromMark: 2 * i,
      toMark: 2 * i + 2,
      wh: 3,
    }));
    const result = solveLedger(ledgerInputSchema.parse({ ...input, readings: spans }));
    expect(result).toMatchObject({ ok: false, problems: [{ code: "many-spans" }] });
  });
  test("figures beyond all measure get a sentence, not an answer", () => {
    const input = { ...long(4), pack: { chemistry: "NMC", labelWh: 1e-320, seriesCells: 13 } };
    const result = answerLedger(ledgerInputSchema.parse(input));
    expect(result).toMatchObject({ ok: false, problems: [{ code: "singular" }] });
  });
  test("two exact readings that contradict each other widen, and are questioned", () => {
    const result = answerLedger(
      ledgerInputSchema.parse({
        ...long(4),
        readings: [310, 350, 312, 311].map((wh) => ({
          kind: "telemetry",
          fromMark: 0,
          toMark: 3,
          wh,
          sdWh: 0,
        })),
      }),
    );
    if (!result.ok) throw new Error("not answered");
    expect(result.value.chi2PerReading).toBeGreaterThan(100);
    expect(result.value.flags[0]).toMatchObject({ reading: 1 });
  });
});

test("sums of forms leave their terms alone", () => {
  const form = new Map([[0, 1], [7, 2]]); // prettier-ignore
  expect([...combine([[form, 2], [form, -1]])]).toEqual([[0, 1], [7, 2]]); // prettier-ignore
  expect(valueAt(form, Float64Array.of(3, 0, 0, 0, 0, 0, 0, 5))).toBe(13);
});
