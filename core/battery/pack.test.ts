import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import {
  cellCurve,
  curveOf,
  defaultResistance,
  fractionFromVolts,
  labelEnergy,
  OCV,
  packSchema,
  straightLineCharge,
  temperatureFactor,
  usableEnergy,
  voltsLimits,
} from "#core/battery";

const chemistry = fc.constantFrom("NMC" as const, "LFP" as const);
const share = fc.double({ min: 0, max: 1, noNaN: true });

describe("the cell curve", () => {
  test("runs from nothing used when full to all used when empty", () => {
    for (const table of [OCV.NMC, OCV.LFP]) {
      expect(cellCurve(table).fractionAt(1)).toBeCloseTo(0, 12);
      expect(cellCurve(table).fractionAt(0)).toBe(1);
    }
  });
  test("charge and fraction are each other's inverse", () => {
    fc.assert(
      fc.property(chemistry, share, (name, f) => {
        const curve = curveOf({ chemistry: name });
        expect(curve.fractionAt(curve.chargeAtFraction(f))).toBeCloseTo(f, 9);
      }),
    );
  });
  test("phi is the integral of volts", () => {
    const curve = cellCurve(OCV.NMC);
    const steps = 20_000;
    let sum = 0;
    for (let i = 0; i < steps; i += 1) sum += curve.voltsAt(((i + 0.5) / steps) * 0.83) * (0.83 / steps);
    expect(curve.phi(0.83)).toBeCloseTo(sum, 6);
  });
  test("more charge is always less used", () => {
    fc.assert(
      fc.property(chemistry, share, share, (name, a, b) => {
        const curve = curveOf({ chemistry: name });
        if (a < b) expect(curve.fractionAt(a)).toBeGreaterThanOrEqual(curve.fractionAt(b));
      }),
    );
  });
  test("volts over a full cell still leave an error", () => {
    const { f, sd } = fractionFromVolts(curveOf({ chemistry: "NMC" }), 4.25, 0.02);
    expect(f).toBeCloseTo(0, 12);
    expect(sd).toBeGreaterThan(0.01);
  });
  test("iron phosphate volts say little in the middle", () => {
    const sdOf = (name: "NMC" | "LFP", volts: number) =>
      fractionFromVolts(curveOf({ chemistry: name }), volts, 0.02).sd;
    expect(sdOf("LFP", 3.3)).toBeGreaterThan(3 * sdOf("NMC", 3.72));
  });
  test("a pack's own curve overrides the table", () => {
    const ocv = { q: [0, 1], volts: [3, 4] };
    expect(curveOf({ chemistry: "NMC", ocv }).voltsAt(0.5)).toBe(3.5);
  });
  test("the straight-line school reads 45.1 V otherwise than the curve", () => {
    expect(straightLineCharge(45.1, 39, 54.6)).toBeCloseTo(0.39103, 5);
    expect(curveOf({ chemistry: "NMC" }).chargeAt(45.1 / 13)).toBeCloseTo(0.15769, 5);
  });
});

describe("usable energy", () => {
  test("a measurement beats the label and keeps at least 1.5 %", () => {
    const usable = usableEnergy({
      chemistry: "NMC",
      labelWh: 504,
      measuredWh: 471,
      measuredSdWh: 4,
      packTempC: 25,
    });
    expect(usable).toMatchObject({ ok: true, value: { mean: 471, from: "measured", labelWh: 504 } });
    expect(usable.ok && usable.value.sd).toBeCloseTo(7.065, 6);
  });
  test("cold takes its share, and 25 C nothing", () => {
    expect(temperatureFactor("NMC", 25)).toBe(1);
    expect(temperatureFactor("NMC", 40)).toBe(1);
    expect(temperatureFactor("NMC", -5)).toBeCloseTo(0.83, 10);
    expect(temperatureFactor("LFP", -30)).toBe(0.5);
  });
  test("a label without Wh needs Ah and cells", () => {
    expect(labelEnergy({ chemistry: "LFP", seriesCells: 16, ampHours: 15 })).toEqual({
      ok: true,
      value: 768,
    });
    expect(labelEnergy({ chemistry: "LFP", ampHours: 15 })).toMatchObject({
      ok: false,
      problems: [{ path: "labelWh" }],
    });
  });
  test("the default resistance: 13 cells, 15 Ah", () =>
    expect(defaultResistance(13, 15)).toBeCloseTo(0.0312, 10));
  test("volts that cannot be", () =>
    expect(voltsLimits({ chemistry: "NMC", seriesCells: 13 })).toMatchObject({ high: 55.9 }));
  test.each([
    [{ chemistry: "lead" }, "Chemistry is NMC or LFP."],
    [{ chemistry: "NMC", labelWh: -3 }, "Label energy must be more than zero."],
    [
      { chemistry: "NMC", ocv: { q: [0, 0.5, 0.4, 1], volts: [3, 3.5, 3.6, 4] } },
      "The curve must rise: charges and volts in increasing order.",
    ],
    [
      { chemistry: "NMC", ocv: { q: [0.1, 1], volts: [3, 4] } },
      "The curve must run from charge 0 to charge 1.",
    ],
  ])("%j is refused", (pack, sentence) => {
    const parsed = packSchema.safeParse(pack);
    expect(!parsed.success && parsed.error.issues[0]!.message).toBe(sentence);
  });
});
