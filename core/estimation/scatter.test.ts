import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { assuming } from "#core/base";
import {
  answerLedger,
  judgeReadings,
  ledgerInputSchema,
  rideFigure,
  solveLedger,
  estimateOf,
} from "#core/estimation";
import { mixtureOf, type Part } from "./mixture.ts";
import type { GaussianPosterior } from "./posterior.ts";
import { SCATTER_SCALES } from "./scatter.ts";

interface ScatterCase {
  readonly id: string;
  readonly input: object;
  readonly expected: {
    readonly whPerMi: number;
    readonly whPerMiSd: number;
    readonly scaleWeights: readonly number[];
    readonly slipLogOdds: readonly (number | null)[];
  };
}

const read = (file: string) => JSON.parse(readFileSync(`tests/fixtures/${file}`, "utf8")) as unknown;
/** Worked by independent code under the first model's assumptions, the scatter alone learned. */
const { cases, scales, lnScaleSd } = read("scatter-cases.json") as {
  readonly cases: readonly ScatterCase[];
  readonly scales: readonly number[];
  readonly lnScaleSd: number;
};
const assume = { ...(read("first-model.json") as object), scatterLnSd: lnScaleSd };
const close = (mine: number, theirs: number, share = 0.01) =>
  expect(Math.abs(mine - theirs)).toBeLessThanOrEqual(share * Math.abs(theirs));

describe.each(cases.map((each) => [each.id, each] as const))("%s", (_id, { input, expected }) => {
  const result = assuming(assume, () => answerLedger(ledgerInputSchema.parse(input)));
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  const { whPerMi, whPerMiSd, scatter, slipLogOdds } = result.value;
  test("its Wh/mi and sd", () => {
    close(whPerMi[0]!, expected.whPerMi);
    close(whPerMiSd[0]!, expected.whPerMiSd);
  });
  test("the probability of each scale of the scatter", () => {
    expect(scatter.map(([scale]) => scale)).toEqual(scales);
    scatter.forEach(([, weight], i) => close(weight, expected.scaleWeights[i]!));
  });
  test("the log odds that each reading is a slip", () =>
    expected.slipLogOdds.forEach((odds, i) => {
      if (odds !== null) expect(Math.abs(slipLogOdds[i]! - odds)).toBeLessThanOrEqual(0.03);
    }));
});

const pack = { chemistry: "NMC", labelWh: 612, seriesCells: 13, packTempC: 20 };
const solved = (percents: readonly number[], miles: readonly number[]) => {
  const result = solveLedger(
    ledgerInputSchema.parse({
      pack,
      cells: ["a"],
      legs: miles.map((each) => ({ miles: { a: each } })),
      readings: [
        { kind: "fullStart", mark: 0 },
        ...percents.map((percent, mark) => ({ kind: "percent", mark, percent })),
      ],
    }),
  );
  if (!result.ok) throw new Error(result.problems[0]!.sentence);
  return result.value;
};

describe("the scatter of the road", () => {
  const scaleOf = (percents: readonly number[]) =>
    Math.sqrt(
      solved(
        percents,
        percents.slice(1).map(() => 5),
      ).scatterSquared,
    );
  test("is small on an even ride and large on one of hills and flats", () => {
    expect(scaleOf([100, 88, 76, 64, 52, 40, 28])).toBeLessThan(1);
    expect(scaleOf([100, 96, 74, 71, 49, 45, 28])).toBeGreaterThan(2);
  });
  test("on an uneven ride no honest reading is questioned", () => {
    const ride = solved([100, 83, 78, 77, 62, 41, 22, 20, 9, 5], [9, 4.5, 4.3, 9.2, 8.2, 7.8, 1.1, 6.9, 3.6]);
    expect(judgeReadings(ride).flags).toEqual([]);
  });
  test("without doubt of it the usual scale stands alone", () => {
    const { parts } = assuming({ scatterLnSd: 0 }, () => solved([100, 80], [9]));
    expect(parts.map(({ scatter, weight }) => [scatter, weight])).toEqual([[1, 1]]);
  });
  test("its probabilities sum to one, whatever is read", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 100 }), { minLength: 2, maxLength: 9 }), (percents) => {
        const { parts } = solved(percents, percents.slice(1).map(() => 4)); // prettier-ignore
        expect(parts.map(({ scatter }) => scatter)).toEqual([...SCATTER_SCALES]);
        expect(parts.reduce((sum, { weight }) => sum + weight, 0)).toBeCloseTo(1, 9);
      }),
      { numRuns: 40 },
    );
  });
});

describe("a mixture by its moments", () => {
  const part = (weight: number, mean: number, variance: number): Part => ({
    weight,
    scatter: 1,
    posterior: {
      mean: Float64Array.of(mean),
      logDensity: 0,
      chi2PerReading: mean,
      count: 3,
      variance: (form) => variance * form.get(0)! ** 2,
      covarianceWith: (form) => Float64Array.of(variance * form.get(0)!),
      residuals: () => [],
    } satisfies GaussianPosterior,
  });
  const both = mixtureOf([part(0.25, 2, 1), part(0.75, 6, 3)]);
  test("has the mean of its parts and their variance within and between", () => {
    const form = new Map([[0, 2]]);
    expect(both.mean[0]).toBe(5);
    expect(both.variance(form)).toBeCloseTo(4 * (0.25 * (1 + 9) + 0.75 * (3 + 1)), 12);
    expect(both.covarianceWith(form)[0]).toBeCloseTo(2 * (0.25 * (1 + 9) + 0.75 * (3 + 1)), 12);
    expect(both.chi2PerReading).toBeCloseTo(5, 12);
  });
  test("leaves out what is hardly there, and one part is itself", () => {
    expect(mixtureOf([part(1, 2, 1), part(1e-9, 90, 1)]).mean[0]).toBe(2);
  });
});

describe("a reading in question", () => {
  const even = [100, 88, 76, 64, 52, 40, 28];
  const miles = even.slice(1).map(() => 5);
  const off = (points: number) => even.map((percent, i) => (i === 3 ? percent + points : percent));
  test("is held by its odds: the headline moves from with it to without it as it is further off", () => {
    const shares = [2, 6, 10, 14, 20].map((points) => {
      const ride = solved(off(points), miles);
      const { without, headline } = judgeReadings(ride);
      const [all, less, told] = [ride, without, headline].map((each) => rideFigure(each, 0).mean);
      return all === less ? 0 : (told! - all!) / (less! - all!);
    });
    expect(shares[0]).toBe(0);
    expect(shares.at(-1)).toBeGreaterThan(0.99);
    shares.forEach((share, i) => expect(i === 0 || share >= shares[i - 1]! - 1e-9).toBe(true));
  });
  test("never makes the answer surer than both stories allow", () => {
    for (const points of [8, 10, 12]) {
      const ride = solved(off(points), miles);
      const { without, headline } = judgeReadings(ride);
      const sd = (each: Parameters<typeof estimateOf>[0]) => estimateOf(each, rideFigure(each, 0)).sd;
      expect(sd(headline)).toBeGreaterThanOrEqual(Math.min(sd(ride), sd(without)) - 1e-9);
    }
  });
  test("table and alert tell one standing", () => {
    const { flags, standings } = judgeReadings(solved(off(20), miles));
    const [flag] = flags;
    expect(flag).toMatchObject({ reading: 4 });
    expect(standings[4]).toMatchObject({ standing: flag!.standing, logOdds: flag!.logOdds });
    standings.forEach(({ standing }, i) => expect(i === 4 || Math.abs(standing) < 3).toBe(true));
  });
  test("that looks like a digit off is told with what would fit", () =>
    expect(judgeReadings(solved(off(10), miles)).flags[0]).toMatchObject({ reading: 4, meant: "64 %" }));
  test("when every reading is a slip, some answer stands and says so", () => {
    const { flags, headline } = judgeReadings(solved([3, 97, 8, 92, 4], [5, 5, 5, 5]));
    expect(Number.isFinite(rideFigure(headline, 0).mean)).toBe(true);
    expect(flags.length).toBeGreaterThan(0);
  });
});
