import { describe, expect, test } from "@jest/globals";
import { inverse, Matrix } from "ml-matrix";
import {
  byDifferences,
  covarianceWith,
  deskPosterior,
  sdWith,
  type DeskDay,
  type SharedUnknown,
} from "./index.ts";

const shared: readonly SharedUnknown[] = [
  { key: "rolling:b", kind: "rolling" },
  { key: "drag:b", kind: "drag" },
  { key: "motor:b", kind: "motor" },
];
const weights = [0.5, 0.3, -0.2];

const dayOf = (id: string, whPerM: number): DeskDay => ({
  id,
  home: "b",
  shared,
  own: ["wind"],
  measured: [{ mean: whPerM, sd: 0.5 }],
  linearise: byDifferences(([a, b, c], [own]) => [
    10 + weights[0]! * a! + weights[1]! * b! + weights[2]! * c! + 0.4 * own!,
  ]),
});

const desk = deskPosterior([dayOf("1", 10.6), dayOf("2", 9.9)]);
const unit = (key: string) =>
  desk.figure(
    shared.filter((each) => each.key === key),
    (z) => z[0]!,
  ).effects;
const units = shared.map(({ key }) => unit(key));
const now = Matrix.zeros(3, 3);
units.forEach((a, i) =>
  units.forEach((b, j) =>
    now.set(
      i,
      j,
      Object.keys(a).reduce((sum, key) => sum + a[key]! * (b[key] ?? 0), 0),
    ),
  ),
);
const reading = (slopes: readonly number[], variance: number) => ({ day: dayOf("x", 10), slopes, variance });
/** Information of one row. */
const row = (slopes: readonly number[], variance: number) => {
  const column = Matrix.columnVector([...slopes]);
  return column.mmul(column.transpose()).div(variance);
};
const expectAll = (varies: ReturnType<typeof covarianceWith>, dense: Matrix) =>
  units.forEach((a, i) => units.forEach((b, j) => expect(varies(a, b)).toBeCloseTo(dense.get(i, j), 9)));

describe("a reading that was not taken", () => {
  test("changes the posterior as one row more does, by a plain inverse", () =>
    expectAll(
      covarianceWith(desk, { added: reading([0.4, 0.9, 0.1], 0.3) }),
      inverse(inverse(now).add(row([0.4, 0.9, 0.1], 0.3))),
    ));
  test("in the place of another, as one row for another", () =>
    expectAll(
      covarianceWith(desk, { added: reading(weights, 0.1), instead: reading(weights, 0.6) }),
      inverse(inverse(now).add(row(weights, 0.1)).sub(row(weights, 0.6))),
    ));
  test("in its own place, leaves all as it is", () => {
    const same = reading(weights, 0.6);
    for (const each of units)
      expect(sdWith(desk, each, { added: same, instead: same })).toBeCloseTo(
        Math.sqrt(Object.values(each).reduce((sum, effect) => sum + effect ** 2, 0)),
        12,
      );
  });
});
