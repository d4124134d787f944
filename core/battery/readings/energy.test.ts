import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { curveOf, packResistance, type Pack } from "#core/battery";
import { checkReading, rowOf, sumTelemetry, type Reading, type Setting } from "#core/battery/readings";

const pack: Pack = { chemistry: "NMC", labelWh: 612, seriesCells: 13 };
const setting: Setting = { pack, curve: curveOf(pack), percentStep: 1, counts: "charge", bars: 5 };
const energy = (reading: Reading) => rowOf(reading, setting).energy!;

describe("telemetry", () => {
  test("is summed by trapezoids", () =>
    expect(sumTelemetry([0, 1, 2], [50, 50, 50], [7.2, 7.2, 7.2])).toEqual({ wh: 0.2, sdWh: 0, gapS: 0 }));
  test("bridges a gap of over 5 s at the mean of both sides, 30 % of it as error", () => {
    const { wh, sdWh, gapS } = sumTelemetry([0, 1, 61], [50, 50, 50], [6, 6, 12]);
    expect(wh).toBeCloseTo((300 + 60 * 450) / 3600, 9);
    expect(sdWh).toBeCloseTo((0.3 * 60 * 450) / 3600, 9);
    expect(gapS).toBe(60);
  });
  test("counts what comes back as negative", () =>
    expect(sumTelemetry([0, 2], [52, 52], [-4, -4]).wh).toBeLessThan(0));
  test("adds over any cut that is no gap", () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: -9, max: 20, noNaN: true }), { minLength: 3, maxLength: 40 }),
        (amps) => {
          const times = amps.map((_, i) => i);
          const volts = amps.map((current) => 50 - current / 10);
          const cut = Math.floor(amps.length / 2);
          const part = (from: number, to: number) =>
            sumTelemetry(times.slice(from, to), volts.slice(from, to), amps.slice(from, to)).wh;
          expect(part(0, cut + 1) + part(cut, amps.length)).toBeCloseTo(
            sumTelemetry(times, volts, amps).wh,
            9,
          );
        },
      ),
    );
  });
  test("nothing, or one sample, is no energy", () => {
    expect(sumTelemetry([], [], []).wh).toBe(0);
    expect(sumTelemetry([3], [50], [6]).wh).toBe(0);
  });
});

describe("what energy readings say", () => {
  test("an energy counter its Wh, with 1.6 % of the meter's", () => {
    const said = energy({ kind: "energyCounter", fromMark: 0, toMark: 2, wh: 200, stepWh: 1, meter: "m" });
    expect([said.wh(0, 0.3), said.gain(200)]).toEqual([200, 3.2]);
    expect(said.gainUnknown).toMatchObject({ key: "gain meter m", of: "device" });
  });
  test("a charge counter its Ah at the mean volts between the marks", () => {
    const said = energy({ kind: "chargeCounter", fromMark: 0, toMark: 2, ah: 4, stepAh: 0.01, meter: "m" });
    const early = said.wh(0, 0.1);
    expect(early).toBeGreaterThan(said.wh(0.7, 0.9));
    expect(early / 4 / 13).toBeGreaterThan(4.0);
    // At the terminals: what 6 A take of the rest volts for minutes is not there.
    const sagV = 6 * 2 * packResistance(setting.pack);
    const restV = 13 * setting.curve.voltsAt(setting.curve.chargeAtFraction(0.4));
    expect(said.wh(0.4, 0.4) / 4).toBeCloseTo(restV - sagV, 9);
  });
  test("a refill 86 % of its wall energy, from full", () => {
    const said = energy({ kind: "wallRefill", mark: 2, wallWh: 300, stepWh: 1, charger: "c" });
    expect([said.from, said.to, said.wh(0, 0)]).toEqual([undefined, 2, 258]);
    expect(said.gain(258)).toBeCloseTo(9, 9);
  });
  test("a charge in between the same, coming back", () => {
    const said = energy({ kind: "wallCharge", fromMark: 1, toMark: 2, wallWh: 100, stepWh: 1, charger: "c" });
    expect(said.wh(0, 0)).toBeCloseTo(-86, 9);
  });
});

test("a charge counter without known cells asks for them", () => {
  const problems = checkReading(
    { kind: "chargeCounter", fromMark: 0, toMark: 1, ah: 1, stepAh: 0.01, meter: "m" },
    { ...setting, pack: { chemistry: "NMC", labelWh: 500 } },
  );
  expect(problems.map(({ code }) => code)).toEqual(["no-cells"]);
});
