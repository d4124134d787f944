import { describe, expect, test } from "@jest/globals";
import { analyseTest, cutRecord, digestOf, lengthOf, type TestResults } from "#core/analysis";
import { liveView } from "#core/live";
import { spanOf } from "#core/base";
import { KINDS, type KindName } from "#core/world";
import { headlineFigures } from "./sheet/testSheet.ts";
import { worldTest } from "#tests/world";

const KIND_NAMES = Object.keys(KINDS) as readonly KindName[];
const figuresOf = (seed: number, kind: KindName, along = 1): TestResults | null => {
  const { record } = worldTest(seed, kind);
  const found = analyseTest(along < 1 ? cutRecord(record, along * lengthOf(record)) : record);
  return found.ok ? found.value : null;
};

describe.each(KIND_NAMES)("one answer each quantity: %s", (kind) => {
  test.each([0.6, 1])("at %s of the way", (along) => {
    const results = figuresOf(1, kind, along);
    if (!results) return;
    const { best, energy, distance, rangeTotal, parts, stretches, quarters, course } = results;
    const wh = energy.value.mean;
    // The headline is the energy over the way, and so are its stretches and its parts by their miles.
    expect((best.value.mean * distance.value.mean) / wh).toBeCloseTo(1, 6);
    const byStretch = stretches.reduce((sum, { fromM, toM, whPerM }) => sum + whPerM.mean * (toM - fromM), 0);
    expect(byStretch / wh).toBeCloseTo(1, 3);
    const isFlat = !course.legs.some(({ gainM, lossM }) => gainM + lossM > 0);
    if (isFlat && parts.every(({ whPerM }) => whPerM !== null)) {
      const byPart = parts.reduce((sum, { distanceM, whPerM }) => sum + whPerM!.mean * distanceM, 0);
      expect(byPart / wh).toBeCloseTo(1, 6);
    }
    // A range is what was ridden and what is left.
    const left = liveView(results)?.toEnd;
    const isFull = results.curve[0]!.used.mean < 0.03 && !course.legs.some(({ charged }) => charged);
    if (left && rangeTotal?.pencil && isFull) {
      expect(rangeTotal.value.mean).toBeCloseTo(distance.value.mean + left.mean, 3);
      expect(spanOf(rangeTotal.value).low).toBeGreaterThanOrEqual(distance.value.mean);
    }
    if (rangeTotal && !rangeTotal.pencil) expect(rangeTotal.value.mean).toBe(distance.value.mean);
    // Quarters of a ride from full to the end are all of it.
    if (quarters && rangeTotal && !rangeTotal.pencil && quarters.quarters.length === 4) {
      const sum = quarters.quarters.reduce((metres, { distanceM }) => metres + distanceM, 0);
      expect(sum / distance.value.mean).toBeCloseTo(1, 2);
    }
    // What lists, boards and sheets read is the same object.
    const digest = digestOf(results);
    expect([digest.best, digest.rangeTotal, digest.energy]).toEqual([best, rangeTotal, energy]);
    const sheet = new Map(headlineFigures(results).map(({ key, value }) => [key, value]));
    expect(sheet.get("use")).toBe(best.value);
    if (rangeTotal) expect(sheet.get("range")).toBe(rangeTotal.value);
  });
});
