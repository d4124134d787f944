import { describe, expect, test } from "@jest/globals";
import { analyseTest, cutRecord, lengthOf } from "#core/analysis";
import { KINDS, type KindName } from "#core/world";
import { brokenIdentities } from "#tests/identities";
import { worldTest } from "#tests/world";

const KIND_NAMES = Object.keys(KINDS) as readonly KindName[];

describe.each(KIND_NAMES)("one answer each quantity: %s", (kind) => {
  test.each([0.6, 1])("at %s of the way", (along) => {
    const { record } = worldTest(1, kind);
    const found = analyseTest(along < 1 ? cutRecord(record, along * lengthOf(record)) : record);
    expect(found.ok ? brokenIdentities(found.value) : []).toEqual([]);
  });
});

test("what disagrees is named", () => {
  const found = analyseTest(worldTest(1, "run-down").record);
  if (!found.ok) throw new Error("not analysed");
  const { best, rangeTotal } = found.value;
  const off = <T extends { readonly value: { readonly mean: number; readonly sd: number } }>(
    figure: T,
  ): T => ({
    ...figure,
    value: { ...figure.value, mean: 1.01 * figure.value.mean },
  });
  expect(brokenIdentities({ ...found.value, best: off(best) })).toContain("headline x miles = energy");
  expect(brokenIdentities({ ...found.value, rangeTotal: off(rangeTotal!) })).toEqual([
    expect.stringContaining("range"),
  ]);
});
