import { describe, expect, test } from "@jest/globals";
import {
  expectedShare,
  packHealth,
  packResistance,
  resistanceFromPairs,
  resistanceFromSteps,
  straightLineCharge,
  usableEnergy,
  labelEnergy,
  packSchema,
} from "#core/battery";

describe("resistance", () => {
  test("of the worked pairs is their median", () => {
    const pairs = [
      [50.1, 48.6, 6],
      [49.2, 46.4, 12],
      [47.8, 45.5, 9],
    ].map(([restVolts, loadVolts, amps]) => ({ restVolts: restVolts!, loadVolts: loadVolts!, amps: amps! }));
    const found = resistanceFromPairs(pairs);
    expect(found.ok && found.value).toBeCloseTo(0.25, 9);
    const even = resistanceFromPairs(pairs.slice(0, 2));
    expect(even.ok && even.value).toBeCloseTo((0.25 + 2.8 / 12) / 2, 9);
  });
  test("from volts that rose under load is refused in a sentence", () =>
    expect(resistanceFromPairs([{ restVolts: 48, loadVolts: 49, amps: 5 }])).toMatchObject({
      ok: false,
      problems: [{ code: "no-sag" }],
    }));
  test("from the steps of a logger", () => {
    const amps = [0, 8, 8, 1, 12, 3, 9, 2, 2.5];
    const volts = amps.map((current) => 50 - 0.12 * current);
    const found = resistanceFromSteps(
      amps.map((_, i) => i),
      volts,
      amps,
    );
    expect(found.ok && found.value).toBeCloseTo(0.12, 9);
    expect(resistanceFromSteps([0, 1], [50, 49], [0, 8]).ok).toBe(false);
  });
  test("by default 13 cells of 15 Ah have 0.0312 ohm; a second pack beside halves it", () => {
    const pack = { chemistry: "NMC", seriesCells: 13, ampHours: 15 } as const;
    expect(packResistance(pack)).toBeCloseTo(0.0312, 9);
    expect(packResistance({ ...pack, beside: [pack] })).toBeCloseTo(0.0156, 9);
  });
});

test("the straight-line school at 45.1 V between 39 and 54.6", () =>
  expect(straightLineCharge(45.1, 39, 54.6)).toBeCloseTo(0.39103, 5));

describe("two packs side by side", () => {
  const pack = { chemistry: "NMC", labelWh: 600, seriesCells: 13, packTempC: 25 } as const;
  test("add, with independent errors", () => {
    const both = usableEnergy({ ...pack, beside: [{ chemistry: "NMC", labelWh: 400 }] });
    expect(both.ok && both.value).toMatchObject({ mean: 930, labelWh: 1000, from: "label" });
    expect(both.ok && both.value.sd).toBeCloseTo(Math.hypot(558, 372) * 0.066, 9);
    expect(labelEnergy({ ...pack, beside: [{ chemistry: "NMC" }] }).ok).toBe(false);
  });
  test("a pack known to be new yields more of its label, and surer; one of some years less", () => {
    const share = (known: object) => {
      const usable = usableEnergy({ ...pack, ...known });
      if (!usable.ok) throw new Error("no pack");
      return [usable.value.mean / 600, usable.value.sd / usable.value.mean].map((each) =>
        Number(each.toFixed(4)),
      );
    };
    expect(share({})).toEqual([0.93, 0.066]);
    expect(share({ ageYears: 0, cycles: 0 })).toEqual([0.95, 0.04]);
    expect(share({ ageYears: 2, cycles: 150 })[0]).toBeCloseTo(0.95 * (1 - 0.05 - 0.06), 4);
    expect(share({ ageYears: 6 })[1]).toBeGreaterThan(0.07);
    expect(share({ cycles: 500 })[0]).toBeLessThan(0.75);
  });
  test("what cold takes is doubtful itself", () => {
    const at = (packTempC: number) => {
      const usable = usableEnergy({ ...pack, packTempC });
      return usable.ok ? usable.value.sd / usable.value.mean : NaN;
    };
    expect(at(25)).toBeCloseTo(0.066, 9);
    expect(at(-10)).toBeCloseTo(Math.hypot(0.066, (0.4 * 0.22) / 0.78), 9);
  });
  test("count as measured only when both were", () => {
    const one = usableEnergy({ ...pack, measuredWh: 560, beside: [{ chemistry: "NMC", labelWh: 400 }] });
    const both = usableEnergy({ ...pack, measuredWh: 560, beside: [{ chemistry: "NMC", measuredWh: 380 }] });
    expect([one.ok && one.value.from, both.ok && both.value.from]).toEqual(["label", "measured"]);
  });
  test("must be alike", () => {
    const parsed = packSchema.safeParse({ ...pack, beside: [{ chemistry: "LFP", labelWh: 400 }] });
    expect(parsed.error!.issues[0]!.message).toContain("the same chemistry");
  });
});

describe("health", () => {
  test("a pack two years and 150 cycles old is expected at 85 % of its label", () => {
    const { mean, sd } = expectedShare(2, 150);
    expect(mean).toBeCloseTo(0.95 * (1 - 0.05 - 0.06), 9);
    expect(sd).toBeGreaterThan(0.038);
  });
  test.each([
    [540, "inside"],
    [430, "below"],
    [650, "above"],
  ] as const)("%p of 600 Wh after two years is %s", (wh, verdict) => {
    const point = { day: "2026-05-01", wh: { mean: wh, sd: 8 }, from: "bench" } as const;
    expect(packHealth(point, 600, "2024-05-01", 100).verdict).toBe(verdict);
  });
  test("without an age there is a share and no verdict", () => {
    const point = { day: "2026-05-01", wh: { mean: 540, sd: 8 }, from: "ride" } as const;
    expect(packHealth(point, 600, undefined, undefined)).toMatchObject({
      share: { mean: 0.9 },
      verdict: null,
    });
  });
});
