import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { plainFromAmps, plainFromPercent, plainFromVolts } from "#core/analysis/plain";

const miles = fc.double({ min: 0.5, max: 200, noNaN: true });
const label = fc.double({ min: 100, max: 2000, noNaN: true });
const drop = fc
  .tuple(fc.integer({ min: 1, max: 100 }), fc.integer({ min: 0, max: 99 }))
  .filter(([start, end]) => start > end);

describe("plain from percent", () => {
  test("energy over distance is the rate, and the range is what the whole charge would reach", () => {
    fc.assert(
      fc.property(drop, label, miles, ([startPercent, endPercent], labelWh, distanceMi) => {
        const plain = plainFromPercent({ startPercent, endPercent, labelWh, distanceMi });
        if (!plain.ok) throw new Error(plain.problems[0]!.sentence);
        expect(plain.value.whPerMi * distanceMi).toBeCloseTo(plain.value.energyWh, 6);
        expect(plain.value.whPerMi * plain.value.projectedRangeMi).toBeCloseTo(labelWh, 6);
      }),
    );
  });
  test("twice the label is twice the energy, and the same range", () => {
    fc.assert(
      fc.property(drop, label, miles, ([startPercent, endPercent], labelWh, distanceMi) => {
        const [one, two] = [labelWh, 2 * labelWh].map((wh) =>
          plainFromPercent({ startPercent, endPercent, labelWh: wh, distanceMi }),
        );
        if (!one!.ok || !two!.ok) throw new Error("not reckoned");
        expect(two!.value.energyWh).toBeCloseTo(2 * one!.value.energyWh, 6);
        expect(two!.value.projectedRangeMi).toBeCloseTo(one!.value.projectedRangeMi, 9);
      }),
    );
  });
  test.each([
    [{ startPercent: 50, endPercent: 50, labelWh: 600, distanceMi: 10 }, "endPercent"],
    [{ startPercent: 40, endPercent: 60, labelWh: 600, distanceMi: 10 }, "endPercent"],
    [{ startPercent: 90, endPercent: 60, labelWh: 600, distanceMi: 0 }, "distanceMi"],
    [{ startPercent: 90, endPercent: 60, labelWh: 600, distanceMi: NaN }, "distanceMi"],
  ])("%j is refused at %s", (input, path) => {
    expect(plainFromPercent(input)).toMatchObject({ ok: false, problems: [{ path }] });
  });
});

describe("plain from volts", () => {
  const base = { chemistry: "NMC", seriesCells: 13, labelWh: 612, distanceMi: 24.8 } as const;
  test("a full pack to an empty one uses the whole label", () => {
    expect(plainFromVolts({ ...base, startVolts: 54.6, endVolts: 39 })).toMatchObject({
      ok: true,
      value: { energyWh: 612, projectedRangeMi: 24.8 },
    });
  });
  test("volts over a full cell count as full", () => {
    const over = plainFromVolts({ ...base, startVolts: 58, endVolts: 46 });
    const full = plainFromVolts({ ...base, startVolts: 54.6, endVolts: 46 });
    expect(over).toEqual(full);
  });
  test("volts that rise over the ride are refused", () => {
    expect(plainFromVolts({ ...base, startVolts: 46, endVolts: 50 }).ok).toBe(false);
  });
});

describe("plain from amps", () => {
  test("range times rate is the pack's energy at those volts", () => {
    const amount = fc.double({ min: 1, max: 60, noNaN: true });
    fc.assert(
      fc.property(amount, amount, amount, amount, (ampHours, speedMph, amps, packVolts) => {
        const plain = plainFromAmps({ ampHours, speedMph, amps, packVolts });
        if (!plain.ok) throw new Error("not reckoned");
        expect(plain.value.rangeMi * plain.value.whPerMi).toBeCloseTo(ampHours * packVolts, 6);
      }),
    );
  });
  test.each([
    [{ ampHours: 14, speedMph: 15, amps: 0, packVolts: 48 }, "amps"],
    [{ ampHours: 14, speedMph: 0, amps: 5, packVolts: 48 }, "speedMph"],
    [{ ampHours: 14, speedMph: 15, amps: -2, packVolts: 48 }, "amps"],
  ])("%j is refused at %s", (input, path) => {
    expect(plainFromAmps(input)).toMatchObject({ ok: false, problems: [{ path }] });
  });
});
