import { describe, expect, test } from "@jest/globals";
import { testRecordSchema } from "#core/records";
import { analyseTest } from "#core/analysis";
import { HARD_KINDS, makeHardTest, type HardKindName } from "#core/simulator";

const KINDS = Object.keys(HARD_KINDS) as readonly HardKindName[];
const bodiesOf = (seed: number, kind: HardKindName) =>
  makeHardTest(seed, kind).record.rides.flatMap(({ entries }) => entries.map(({ body }) => body));

describe.each(KINDS)("a test of the kind %s", (kind) => {
  const { record, truth } = makeHardTest(5, kind);
  test("can be kept, and gets a figure", () => {
    expect(testRecordSchema.safeParse(record).success).toBe(true);
    expect(analyseTest(record).ok).toBe(true);
  });
  test("has a truth that holds together", () => {
    expect(truth.whPerMi).toBeGreaterThan(2);
    expect(truth.whPerMi).toBeLessThan(80);
    expect(truth.energyWh / truth.miles).toBeCloseTo(truth.whPerMi, 9);
    expect(truth.rangeMi).toBeGreaterThanOrEqual(truth.miles - 1e-9);
    expect(truth.capacityWh).toBeLessThan(1.1 * record.pack.labelWh!);
  });
  test("is the same from the same seed", () =>
    expect(JSON.stringify(makeHardTest(5, kind)) === JSON.stringify({ record, truth })).toBe(true));
});

describe("what goes wrong on real days", () => {
  test("is typed as the kind says, once", () => {
    const typed = (kind: HardKindName) => makeHardTest(5, kind).truth.slip;
    expect(Math.abs(typed("slip of ten")!.typed - typed("slip of ten")!.meant)).toBe(10);
    const digits = typed("digits swapped")!;
    expect(String(digits.typed).padStart(2, "0")).toBe(
      [...String(digits.meant).padStart(2, "0")].reverse().join(""),
    );
    expect(typed("miles mistyped")).toMatchObject({ field: "distanceM" });
    expect(Math.abs(typed("wrong bar")!.typed - typed("wrong bar")!.meant)).toBe(1);
    expect(typed("part charge")).toBeNull();
  });
  test("a percent that is stuck stands still to the end", () => {
    const shown = bodiesOf(3, "stuck").flatMap((body) => ("percent" in body && body.percent !== undefined ? [body.percent] : [])); // prettier-ignore
    expect(Math.min(...shown)).toBeGreaterThan(4);
  });
  test("typed in the evening there are no times, and some looks have no miles", () => {
    const looks = [1, 2, 3, 4].flatMap((seed) => makeHardTest(seed, "loose").record.rides[0]!.entries);
    expect(looks.every(({ at }) => at === null)).toBe(true);
    const placed = looks.filter(({ body }) => "distanceM" in body && body.distanceM !== undefined);
    expect(placed.length).toBeLessThan(looks.length);
    expect(placed.length).toBeGreaterThan(looks.length / 2);
  });
  test("packs, wheels and bars lie beyond what is assumed", () => {
    const seeds = Array.from({ length: 25 }, (_, i) => i + 1);
    const shares = seeds.map((seed) => {
      const { record, truth } = makeHardTest(seed, "aged");
      return truth.capacityWh / record.pack.labelWh!;
    });
    expect(Math.min(...shares)).toBeLessThan(0.7);
    expect(Math.max(...shares)).toBeGreaterThan(0.85);
    const wheels = seeds.map((seed) => {
      const { record, truth } = makeHardTest(seed, "wheel unchecked");
      const { body } = record.rides[0]!.entries.at(-1)!;
      return ("displayM" in body ? body.displayM! : NaN) / 1609.344 / truth.miles;
    });
    expect(wheels.some((factor) => Math.abs(factor - 1) > 0.1)).toBe(true);
    expect(wheels.filter((factor) => Math.abs(factor - 1) < 0.06).length).toBeGreaterThan(12);
  });
  test("a ridge makes some stretches take many times what others do", () => {
    const reckoned = analyseTest(makeHardTest(2, "ridges").record);
    if (!reckoned.ok) throw new Error("not reckoned");
    const uses = reckoned.value.stretches.map(({ whPerM }) => whPerM.mean);
    expect(Math.max(...uses)).toBeGreaterThan(1.6 * Math.min(...uses));
  });
});
