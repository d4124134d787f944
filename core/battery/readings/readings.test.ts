import { describe, expect, test } from "@jest/globals";
import { curveOf, type Pack } from "#core/battery";
import {
  barThreshold,
  checkReading,
  percentSays,
  readingSchema,
  rowOf,
  type Reading,
  type Setting,
} from "#core/battery/readings";

const pack: Pack = { chemistry: "NMC", labelWh: 612, seriesCells: 13 };
const setting: Setting = { pack, curve: curveOf(pack), percentStep: 1, counts: "charge", bars: 5 };
const problems = (reading: Reading, on: Setting = setting) =>
  checkReading(reading, on).map(({ code }) => code);

describe("what a reading says", () => {
  test("40 % in steps of 5 on a charge gauge", () => {
    const { f, sd } = percentSays(40, 5, "charge", setting.curve);
    expect(f).toBeCloseTo(0.6278, 4);
    expect(sd).toBeCloseTo(0.014137, 6);
  });
  test("an energy gauge counts straight", () => {
    expect(percentSays(40, 1, "energy", setting.curve)).toEqual({
      f: 0.6,
      sd: 0.01 / Math.sqrt(12),
      slope: 1,
    });
  });
  test("rest volts are surer after ten minutes", () => {
    const sd = (restMin: number) =>
      rowOf({ kind: "restVolts", mark: 0, packVolts: 48, restMin, meterStepV: 0.1 }, setting).errors[0]!.sd;
    expect(sd(9.9)).toBeGreaterThan(2 * sd(10));
  });
  test("loaded volts are put back to rest, and less sure than rest volts", () => {
    const loaded = rowOf(
      { kind: "loadedVolts", mark: 0, packVolts: 46.9, amps: 10, resistanceOhm: 0.11, meterStepV: 0.1 },
      setting,
    );
    const rest = rowOf({ kind: "restVolts", mark: 0, packVolts: 48, restMin: 1, meterStepV: 0.1 }, setting);
    expect(loaded.value).toBeCloseTo(rest.value, 9);
    expect(loaded.errors[0]!.sd).toBeGreaterThan(rest.errors[0]!.sd);
  });
  test("a steady look at bars lies between two thresholds", () => {
    const row = rowOf({ kind: "bars", mark: 2, bars: 3 }, setting);
    expect(row.unknowns.map(({ unknown, coefficient }) => [unknown.key, coefficient])).toEqual([
      ["bar 4", -0.5],
      ["bar shift", -0.5],
      ["bar bow", -0.5 * 4 * 0.4 * 0.6],
      ["bar 3", -0.5],
      ["bar shift", -0.5],
      ["bar bow", -0.5 * 4 * 0.6 * 0.4],
    ]);
    expect(row.errors[0]!.sd).toBeCloseTo(0.2 / Math.sqrt(12), 12);
  });
  test("the ends of the bars are fixed: full above, empty below", () => {
    const own = ({ unknowns }: ReturnType<typeof rowOf>) =>
      unknowns.map(({ unknown }) => unknown.key).filter((key) => /\d/.test(key));
    expect(own(rowOf({ kind: "bars", mark: 0, bars: 5 }, setting))).toEqual(["bar 5"]);
    const one = rowOf({ kind: "bars", mark: 0, bars: 1 }, setting);
    expect([one.value, own(one)]).toEqual([0.5, ["bar 2"]]);
  });
  test("a percent has a look of its own beside its rounding, and its gauge's scale in common", () => {
    const row = rowOf({ kind: "percent", mark: 0, percent: 40 }, setting);
    expect(row.errors.map(({ source }) => source)).toEqual(["gauge rounding", "gauge look"]);
    expect(row.unknowns).toMatchObject([
      { unknown: { key: "gauge scale", sd: 0.03 }, coefficient: row.value },
    ]);
  });
  test("in the cold a gauge counts less than is used, by as much as it does not know of it", () => {
    const cold = { ...setting, pack: { ...pack, packTempC: -10 } };
    const row = rowOf({ kind: "percent", mark: 0, percent: 40 }, cold);
    const shared = row.unknowns.find(({ unknown }) => unknown.key === "gauge in the cold")!;
    // 0.78 of the energy at -10 C, 0.9833 at 20 C: 20.7 % are lost.
    expect(shared.coefficient).toBeCloseTo((row.value * 0.2068) / 0.7932, 3);
    expect(shared.unknown).toMatchObject({ mean: -0.5, sd: 0.4 });
  });
  test("under a tenth a percent may stand still: more may be used than it shows, never less", () => {
    const row = rowOf({ kind: "percent", mark: 0, percent: 8 }, setting);
    const { f } = percentSays(8, 1, "charge", setting.curve);
    expect(row.value).toBeGreaterThan(f);
    expect(row.errors.map(({ source }) => source)).toContain("gauge at the bottom");
    const above = rowOf({ kind: "percent", mark: 0, percent: 11 }, setting);
    expect(above.value).toBeCloseTo(percentSays(11, 1, "charge", setting.curve).f, 12);
  });
  test("a percent that was mistyped was likely meant for one with a digit off, or swapped", () => {
    const meant = rowOf({ kind: "percent", mark: 0, percent: 63 }, setting).alternatives!;
    expect(meant.map(({ text }) => text)).toEqual(["73 %", "53 %", "36 %"]);
    expect(meant[2]!.value).toBeCloseTo(percentSays(36, 1, "charge", setting.curve).f, 12);
    const full = rowOf({ kind: "percent", mark: 0, percent: 100 }, setting).alternatives!;
    expect(full.map(({ text }) => text)).toEqual(["90 %", "1 %"]);
    const bar = rowOf({ kind: "barLost", mark: 0, bar: 5 }, setting).alternatives!;
    expect(bar.map(({ text, value }) => [text, Number(value.toFixed(9))])).toEqual([["bar 4", 0.2]]);
  });
  test("no bars left means all used", () =>
    expect(rowOf({ kind: "bars", mark: 0, bars: 0 }, setting)).toMatchObject({ value: 1, unknowns: [] }));
  test("equal bars until learned", () => expect(barThreshold(4, 5)).toMatchObject({ mean: 0.4, sd: 0.06 }));
});

describe("what a bike cannot have shown", () => {
  test("percent over 100", () =>
    expect(problems({ kind: "percent", mark: 0, percent: 104 })).toEqual(["percent-range"]));
  test("bars over the display's count", () =>
    expect(problems({ kind: "bars", mark: 0, bars: 6 })).toEqual(["bars-range"]));
  test("bar 0 cannot go out", () =>
    expect(problems({ kind: "barLost", mark: 0, bar: 0 })).toEqual(["bars-range"]));
  test("bars on a display without any", () =>
    expect(problems({ kind: "bars", mark: 0, bars: 1 }, { ...setting, bars: 0 })).toEqual(["no-bars"]));
  test("volts impossible for the cells, with the span that would do", () => {
    const [problem] = checkReading(
      { kind: "restVolts", mark: 0, packVolts: 84, restMin: 0, meterStepV: 0.1 },
      setting,
    );
    expect(problem).toMatchObject({
      code: "volts-range",
      sentence: "84 V cannot be for 13 NMC cells in series: type 29 to 56 V.",
    });
  });
  test("volts without known cells say nothing", () => {
    expect(
      problems(
        { kind: "restVolts", mark: 0, packVolts: 48, restMin: 0, meterStepV: 0.1 },
        { ...setting, pack: { chemistry: "NMC" } },
      ),
    ).toEqual(["no-cells"]);
  });
  test("a span of marks must run forward", () => {
    expect(problems({ kind: "energyCounter", fromMark: 3, toMark: 3, wh: 1, stepWh: 1, meter: "m" })).toEqual(
      ["span-order"],
    );
  });
  test("an unknown kind is named with the known ones", () => {
    const parsed = readingSchema.safeParse({ kind: "smell", mark: 0 });
    expect(!parsed.success && parsed.error.issues[0]!.message).toContain("fullStart, percent, restVolts");
  });
});
