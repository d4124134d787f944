import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { Matrix, inverse } from "ml-matrix";
import { METRES_PER_MILE } from "#core/base";
import { ledgerInputSchema, solveLedger, type LedgerInput } from "#core/estimation";
import { fractionRow, type Row } from "../battery/readings/row.ts";
import { eliminate, forwardSubstitute, planElimination } from "./chain.ts";
import { layColumns } from "./columns.ts";
import { dequantised } from "./dequantised.ts";
import { isLocal, marginalsOf } from "./marginals.ts";
import { rowSd, type LedgerRow } from "./rows.ts";
import { scatterSd, travelRows } from "./travel.ts";
import { absorb, covarianceOf, forward, isSolvable, openTriangle, solveTriangle } from "./triangle.ts";

const numbers = (count: number) =>
  fc.array(fc.double({ min: -4, max: 4, noNaN: true }), { minLength: count, maxLength: count });
const someRows = fc.array(numbers(4), { minLength: 3, maxLength: 8 });

describe("the triangle", () => {
  const built = (rows: readonly (readonly number[])[]) => {
    const triangle = openTriangle(3, 3);
    for (const row of rows) absorb(triangle, Float64Array.from(row));
    return triangle;
  };
  test("holds the least squares of its rows and of its standard normals, in any order", () => {
    fc.assert(
      fc.property(someRows, (rows) => {
        const a = new Matrix([...rows.map((row) => row.slice(0, 3)), [1, 0, 0], [0, 1, 0], [0, 0, 1]]);
        const b = Matrix.columnVector([...rows.map((row) => row[3]!), 0, 0, 0]);
        const normal = inverse(a.transpose().mmul(a));
        const x = normal.mmul(a.transpose()).mmul(b).to1DArray();
        const residual = Matrix.sub(a.mmul(Matrix.columnVector(x)), b).to1DArray();
        for (const order of [rows, [...rows].reverse()]) {
          const triangle = built(order);
          [...solveTriangle(triangle)].forEach((value, i) => expect(value).toBeCloseTo(x[i]!, 8));
          expect(triangle.rss).toBeCloseTo(
            residual.reduce((sum, value) => sum + value * value, 0),
            7,
          );
          covarianceOf(triangle).forEach((row, i) =>
            [...row].forEach((value, j) => expect(value).toBeCloseTo(normal.get(i, j), 8)),
          );
        }
      }),
      { numRuns: 40 },
    );
  });
  test("a half-solved unit has the variance as its square", () => {
    const triangle = built([[1, 2, 0, 3], [0, 1, -1, 2]]); // prettier-ignore
    const half = forward(triangle, Float64Array.of(0, 1, 0));
    expect(half.reduce((sum, value) => sum + value * value, 0)).toBeCloseTo(
      covarianceOf(triangle)[1]![1]!,
      12,
    );
  });
  test("that knows nothing of a column, or holds what is no number, cannot be solved", () => {
    expect(isSolvable(openTriangle(2, 1))).toBe(false);
    const broken = openTriangle(1, 1);
    absorb(broken, Float64Array.of(NaN, 1));
    expect(isSolvable(broken)).toBe(false);
    expect(isSolvable(built([]))).toBe(true);
  });
});

describe("a row's sd", () => {
  const row: LedgerRow = {
    form: new Map(),
    value: 0,
    errors: [
      { source: "gauge look", sd: 3 },
      { source: "bar width", sd: 4 },
    ],
    floor: 0.1,
  };
  test("adds its errors in quadrature, less one taken as known, and never below its floor", () => {
    expect(rowSd(row)).toBe(5);
    expect(rowSd(row, { without: "gauge look" })).toBe(4);
    expect(rowSd({ ...row, errors: [row.errors[0]!] }, { without: "gauge look" })).toBe(0.1);
  });
});

describe("the sweep and the half-solve", () => {
  test("read the same variance of neighbouring marks and unknowns", () => {
    const solved = solveLedger(
      ledgerInputSchema.parse({
        pack: { chemistry: "NMC", labelWh: 600, seriesCells: 13 },
        gauge: { bars: 5 },
        cells: ["a"],
        legs: [3, 4, 5, 2, 6].map((miles) => ({ miles: { a: miles } })),
        readings: [
          { kind: "fullStart", mark: 0 },
          { kind: "barLost", mark: 1, bar: 5 },
          { kind: "percent", mark: 3, percent: 60 },
          { kind: "energyCounter", fromMark: 0, toMark: 4, wh: 210 },
        ],
      }),
    );
    if (!solved.ok) throw new Error("not solved");
    const { columns, travel, evidence } = solved.value;
    const layout = planElimination(columns.marks, [...columns.unknowns.list], [...travel.rows, ...evidence]);
    const factor = eliminate(layout, [...travel.rows, ...evidence])!;
    const sweep = marginalsOf(factor);
    const forms = [0, 1, 2, 3, 4].flatMap((mark) => [
      new Map([[mark, 1]]),
      new Map([[mark, -1], [mark + 1, 1]]), // prettier-ignore
      new Map([[mark, 2], [columns.capacity["only"]!, 0.01]]), // prettier-ignore
    ]);
    for (const form of forms) {
      expect(isLocal(layout, form)).toBe(true);
      const { chain, edge } = forwardSubstitute(factor, form);
      const square = [...chain, ...edge].reduce((sum, value) => sum + value * value, 0);
      expect(sweep.variance(form)).toBeCloseTo(square, 12);
    }
    expect(isLocal(layout, new Map([[1, 1], [4, 1]]))).toBe(false); // prettier-ignore
  });
});

describe("travel rows", () => {
  const rowsOf = (more: object) => {
    const input: LedgerInput = ledgerInputSchema.parse({
      pack: { chemistry: "NMC", labelWh: 600, packTempC: 25, seriesCells: 13 },
      cells: ["a", "b"],
      readings: [],
      ...more,
    });
    const columns = layColumns(input);
    if (!columns.ok) throw new Error("no columns");
    return { columns: columns.value, travel: travelRows(input, columns.value) };
  };
  test("one a leg and one a start; the scatter grows with the root of the miles", () => {
    const { travel } = rowsOf({ legs: [{ miles: { a: 1 } }, { miles: { a: 4 } }] });
    expect(travel.rows).toHaveLength(3);
    expect(rowSd(travel.rows[1]!)).toBeCloseTo((0.25 * 15) / 558, 12);
    expect(rowSd(travel.rows[2]!)).toBeCloseTo(2 * rowSd(travel.rows[1]!), 12);
    expect(scatterSd(0, 558)).toBeCloseTo(scatterSd(0.01 * METRES_PER_MILE, 558), 15);
  });
  test("a leg of two cells splits its scatter by distance", () => {
    const { travel } = rowsOf({ legs: [{ miles: { a: 3, b: 1 } }] });
    const use = travel.cellUse[0]!;
    const whole = rowSd(travel.rows[1]!) ** 2;
    expect(use.get("a")!.variance).toBeCloseTo(whole * 0.75 * 0.25, 12);
    expect(use.get("b")!.variance).toBeCloseTo(whole * 0.25 * 0.75, 12);
  });
  test("runs of a section have a shared part; a section ridden once has none", () => {
    const legs = [{ miles: { a: 2 }, section: "levee" }];
    const keys = (input: object) => rowsOf(input).columns.unknowns.list.map(({ key }) => key);
    const twice = { rides: [{ legs, readings: [] }, { legs, readings: [] }] }; // prettier-ignore
    expect(keys(twice).filter((key) => key.startsWith("section"))).toEqual(["section levee/0/0"]);
    expect(keys({ legs }).filter((key) => key.startsWith("section"))).toEqual([]);
    expect(rowSd(rowsOf(twice).travel.rows[1]!)).toBeCloseTo(
      scatterSd(2 * METRES_PER_MILE, 558) * Math.sqrt(0.3),
      12,
    );
  });
  test("a charge leaves the next mark as open as a start", () => {
    const { travel } = rowsOf({ legs: [{ miles: { a: 2 } }, { charged: true }, { miles: { a: 2 } }] });
    expect(travel.rows.filter(({ value }) => value === 0.5)).toHaveLength(2);
  });
  test("climb is charged to the hill by the mass that is lifted", () => {
    const lift = (massKg: number) => {
      const { travel, columns } = rowsOf({ massKg, legs: [{ miles: { a: 2 }, gainM: 50, lossM: 20 }] });
      return [...travel.rows[1]!.form].filter(([column]) => column >= columns.marks).map(([, by]) => by);
    };
    const [rate, up, down] = lift(100);
    expect(rate).toBeCloseTo(-2 * METRES_PER_MILE, 9);
    expect(up).toBeCloseTo((-50 * 100 * 9.80665) / (3600 * 0.75) / 558, 9);
    expect(down! / up!).toBeCloseTo(-0.5 * (20 / 50), 9);
    expect(lift(200)[1]! / up!).toBeCloseTo(2, 9);
  });
});

describe("a display that stands still", () => {
  const rounded = (step: number) => [{ source: "gauge rounding", sd: step / Math.sqrt(12) } as const];
  const percent = (mark: number, f: number, step = 0.1): Row =>
    fractionRow(mark, f, rounded(step), { process: "gauge", f });
  const legs = Array.from({ length: 8 }, () => ({ metres: { a: 1 } }));
  const places = (rows: readonly Row[]) => dequantised(rows, { legs }).map(({ smooth }) => smooth!.f);
  test("has its slow error spread from the middle of one run to the middle of the next", () => {
    const rows = [0.1, 0.1, 0.1, 0.2, 0.2, 0.2].map((f, mark) => percent(mark, f));
    expect(places(rows).map((f) => Number(f.toFixed(4)))).toEqual([0.1, 0.1, 0.1333, 0.1667, 0.2, 0.2]);
  });
  test("stays within half a step of what it showed", () => {
    const rows = [0.1, 0.1, 0.1, 0.5].map((f, mark) => percent(mark, f, 0.01));
    expect(places(rows)[2]! - 0.1).toBeCloseTo(0.005, 9);
  });
  test("keeps single figures where they are, and what the rows say", () => {
    const rows = [0.1, 0.2, 0.35].map((f, mark) => percent(mark, f));
    expect(places(rows)).toEqual([0.1, 0.2, 0.35]);
    const still = [0.1, 0.2, 0.2, 0.3].map((f, mark) => percent(mark, f));
    expect(dequantised(still, { legs }).map(({ value }) => value)).toEqual([0.1, 0.2, 0.2, 0.3]);
  });
  test("never turns back: a falling display stays falling", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 2 }), { minLength: 2, maxLength: 8 }), (drops) => {
        let f = 0;
        const rows = drops.map((drop, mark) => percent(mark, (f += drop * 0.05)));
        const found = places(rows);
        found.forEach((place, i) => expect(i === 0 || place >= found[i - 1]! - 1e-12).toBe(true));
      }),
    );
  });
});
