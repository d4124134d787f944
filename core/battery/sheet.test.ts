import { describe, expect, test } from "@jest/globals";
import { packSheet, temperatureFactor } from "#core/battery";

const pack = { chemistry: "NMC", labelWh: 672, firstUsedOn: "2024-03-11", cycles: 190 } as const;
const bench = { on: "2026-02-20", wh: 600, sdWh: 9, startTempC: 25 };

describe("a bench sheet", () => {
  test("says label, measured and percent of label", () => {
    const sheet = packSheet(pack, bench)!;
    expect(sheet.labelWh).toBe(672);
    expect(sheet.measured.mean).toBe(600);
    expect(sheet.health.share.mean).toBeCloseTo(600 / 672, 9);
  });
  test("brings a cool pack's result to 25 C", () => {
    const cool = packSheet(pack, { ...bench, startTempC: 10 })!;
    expect(cool.measured.mean).toBeCloseTo(600 / temperatureFactor("NMC", 10), 9);
  });
  test("gives the span its age lets expect, and the verdict", () => {
    const { expected, health } = packSheet(pack, bench)!;
    expect(expected!.low).toBeLessThan(expected!.mean);
    expect(health.verdict).toBe("inside");
    expect(packSheet(pack, { ...bench, wh: 420 })!.health.verdict).toBe("below");
  });
  test("without a first day there is no such span", () =>
    expect(packSheet({ ...pack, firstUsedOn: undefined }, bench)).toMatchObject({ expected: null }));
  test("trusts no tester closer than 1.5 %", () =>
    expect(packSheet(pack, { ...bench, sdWh: 1 })!.measured.sd).toBeCloseTo(9, 9));
  test("without a label there is no sheet", () => expect(packSheet({ chemistry: "NMC" }, bench)).toBeNull());
});
