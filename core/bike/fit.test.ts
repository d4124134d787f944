import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import type { Ground } from "#core/fields";
import { MPS_PER_MPH } from "#core/base";
import {
  findReference,
  fitRoad,
  newestReferences,
  predicted,
  referenceKey,
  referenceName,
  REFERENCES,
  steadyWhPerM,
  type RoadRow,
} from "#core/bike";

const TRUE = { cdA: 0.62, etaM: 0.76, crrBy: { asphalt: 0.0085, brick: 0.0108, "fine gravel": 0.0155 } };

/** A row as the true bike would give it; the fit starts from the assumptions. */
function row(mph: number, ground: Ground, over: Partial<RoadRow> = {}, off = 1): RoadRow {
  const assumed = {
    massKg: 125,
    speedMps: mph * MPS_PER_MPH,
    ground,
    riderW: 0,
    cdA: 0.55,
    crr: 0.007,
    etaM: 0.78,
  };
  const mean = steadyWhPerM({ ...assumed, ...TRUE }) * off;
  return {
    name: `${mph} mph on ${ground}`,
    state: assumed,
    measured: { mean, sd: 0.02 * mean },
    oneWay: false,
    riderSdW: 0,
    ...over,
  };
}
const grid = (["asphalt", "brick", "fine gravel"] as const).flatMap((ground) =>
  [8, 11, 14, 17, 20, 24].map((mph) => row(mph, ground)),
);
function fit(rows: readonly RoadRow[]) {
  const found = fitRoad(rows);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
}
const parameter = (rows: readonly RoadRow[], name: string) =>
  fit(rows).parameters.find((each) => each.name === name)!;

describe("a bike's road load fitted to steady rows", () => {
  test("goes most of the way from the assumptions to the truth, within its doubt", () => {
    for (const [name, truth] of [
      ["rolling on brick", TRUE.crrBy.brick],
      ["rolling on fine gravel", TRUE.crrBy["fine gravel"]],
      ["drag", TRUE.cdA],
    ] as const) {
      const { value, assumed } = parameter(grid, name);
      expect(Math.abs(value.mean - truth)).toBeLessThan(Math.abs(assumed.mean - truth) + 1e-9);
      expect(Math.abs(value.mean - truth)).toBeLessThan(2 * value.sd);
      expect(value.sd / value.mean).toBeLessThan(0.8 * (assumed.sd / assumed.mean));
    }
  });
  test("foretells what was not ridden to a few percent", () => {
    const found = fit(grid);
    const state = { ...row(22, "brick").state, massKg: 150 };
    const truth = steadyWhPerM({ ...state, ...TRUE });
    const said = predicted(found, state);
    expect(Math.abs(said.mean / truth - 1)).toBeLessThan(0.04);
    expect(Math.abs(said.mean - truth)).toBeLessThan(2.5 * said.sd);
  });
  test("with nothing off stays at the assumptions", () => {
    const { state } = row(15, "asphalt");
    const found = fit([{ ...row(15, "asphalt"), measured: { mean: steadyWhPerM(state), sd: 1e-3 } }]);
    for (const z of found.z) expect(Math.abs(z)).toBeLessThan(1e-3);
  });
  test("says what was never tested and what is hardly surer", () => {
    const brick = fit(grid.filter(({ state }) => state.ground === "brick"));
    expect(brick.words).toContain("Rolling on asphalt was never tested: it is as assumed, to 20 %.");
    expect(brick.words.some((sentence) => /^Rolling on brick is known to \d+ %\.$/.test(sentence))).toBe(
      true,
    );
    const slow = fit([row(6, "asphalt")]);
    expect(
      slow.words.some((sentence) =>
        /^Drag is known to \d+ %, \d+ % before: the tests taught little/.test(sentence),
      ),
    ).toBe(true);
  });
  test("rows ridden one way count for less and are named", () => {
    const oneWay = grid.map((each) => ({ ...each, oneWay: true }));
    expect(parameter(oneWay, "drag").value.sd).toBeGreaterThan(parameter(grid, "drag").value.sd);
    expect(fit(oneWay).words).toContain("18 rows were ridden one way only: wind and slope may be in them.");
  });
  test("a row far off is named and widens the rest", () => {
    const slip = [...grid, row(15, "brick", { name: "the slip" }, 1.6)];
    const found = fit(slip);
    expect(found.rows.at(-1)).toMatchObject({ outlier: true });
    expect(
      found.words.some(
        (sentence) =>
          sentence.startsWith("the slip is clearly too ") || sentence.startsWith("the slip is far too "),
      ),
    ).toBe(true);
    expect(found.chi2PerRow).toBeGreaterThan(1.5);
  });
  test("more rows never make a parameter less sure, where they agree", () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: grid.length - 1 }), (n) => {
        const sd = (rows: readonly RoadRow[]) => fit(rows).covariance.at(-2)!.at(-2)!;
        expect(sd(grid.slice(0, n + 1))).toBeLessThanOrEqual(sd(grid.slice(0, n)) + 0.02);
      }),
      { numRuns: 10 },
    ));
  test("without rows there is nothing to fit", () =>
    expect(fitRoad([])).toMatchObject({ problems: [{ code: "no-rows" }] }));
});

describe("references by name and version", () => {
  const own = { ...REFERENCES[0]!, version: 2, carriedKg: 90 };
  const all = [...REFERENCES, own, { ...own, name: "Ours", version: 1 }];
  test("a name means its newest version, with a version that one", () => {
    expect(findReference(all, "House")).toBe(own);
    expect(findReference(all, "House@1")).toBe(REFERENCES[0]);
    // An address may hold anything, line breaks among it.
    for (const key of ["", "@", "House@", "a\r\nb", "a\u2028@1", "House\n@1"])
      expect(findReference(all, key)).toBeNull();
    expect(findReference(all, "House@7")).toBeNull();
    expect(findReference(all, "Nowhere")).toBeNull();
    expect(findReference(all, referenceKey(own))).toBe(own);
  });
  test("each name is listed once, and a later version is told in its name", () => {
    expect(newestReferences(all).map(referenceName)).toEqual([
      "House, version 2",
      "Throttle flat",
      "Hill day",
      "Freezing commute",
      "Ours",
    ]);
  });
});
