import { describe, expect, test } from "@jest/globals";
import { analyseTest } from "#core/analysis";
import { KINDS, type KindName } from "#core/world";
import { worldTest } from "#tests/world";
import { rngFrom } from "./chance.ts";
import { drawMotor, electricW, mostAt } from "./motor.ts";
import { availableAh, draw, drawPack, restedVolts } from "./pack.ts";

const NAMES = Object.keys(KINDS) as readonly KindName[];
const bodiesOf = (seed: number, kind: KindName) =>
  worldTest(seed, kind).record.rides.flatMap(({ entries }) => entries.map(({ body }) => body));

describe.each(NAMES)("a test of the kind %s", (kind) => {
  const { record, truth } = worldTest(5, kind);
  test("gets a figure", () => expect(analyseTest(record).ok).toBe(true));
  test("has a truth that holds together", () => {
    expect(truth.whPerMi).toBeGreaterThan(2);
    expect(truth.whPerMi).toBeLessThan(80);
    expect(truth.energyWh / truth.miles).toBeCloseTo(truth.whPerMi, 9);
    expect(truth.rangeMi).toBeGreaterThanOrEqual(truth.miles - 1e-9);
    expect(truth.capacityWh).toBeLessThan(1.1 * record.pack.labelWh!);
  });
  test("is the same from the same seed", () =>
    expect(JSON.stringify(worldTest(5, kind)) === JSON.stringify({ record, truth })).toBe(true));
});

describe("what goes wrong on real days", () => {
  test("is typed as the kind says, once", () => {
    const typed = (kind: KindName) => worldTest(5, kind).truth.slip;
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
    const looks = [1, 2, 3, 4].flatMap((seed) => worldTest(seed, "loose").record.rides[0]!.entries);
    expect(looks.every(({ at }) => at === null)).toBe(true);
    const placed = looks.filter(({ body }) => "distanceM" in body && body.distanceM !== undefined);
    expect(placed.length).toBeLessThan(looks.length);
    expect(placed.length).toBeGreaterThan(looks.length / 2);
  });
  test("packs, wheels and bars lie beyond what is assumed", () => {
    const seeds = Array.from({ length: 25 }, (_, i) => i + 1);
    const shares = seeds.map((seed) => {
      const { record, truth } = worldTest(seed, "aged");
      return truth.capacityWh / record.pack.labelWh!;
    });
    expect(Math.min(...shares)).toBeLessThan(0.7);
    expect(Math.max(...shares)).toBeGreaterThan(0.85);
    const wheels = seeds.map((seed) => {
      const { record, truth } = worldTest(seed, "wheel unchecked");
      const { body } = record.rides[0]!.entries.at(-1)!;
      return ("displayM" in body ? body.displayM! : NaN) / 1609.344 / truth.miles;
    });
    expect(wheels.some((factor) => Math.abs(factor - 1) > 0.1)).toBe(true);
    expect(wheels.filter((factor) => Math.abs(factor - 1) < 0.06).length).toBeGreaterThan(12);
  });
  test("a ridge makes some stretches take many times what others do", () => {
    const analysed = analyseTest(worldTest(3, "ridges").record);
    if (!analysed.ok) throw new Error("no figure");
    const uses = analysed.value.stretches.map(({ whPerM }) => whPerM.mean);
    expect(Math.max(...uses)).toBeGreaterThan(1.6 * Math.min(...uses));
  });
});

describe("a motor", () => {
  const motor = drawMotor(rngFrom(3));
  const efficiency = (watts: number, mps: number) => watts / electricW(motor, watts, mps);
  test("is best where it was built to work, and wastes most of little and much of a slow climb", () => {
    expect(efficiency(motor.ratedW, motor.ratedMps)).toBeCloseTo(motor.peak, 6);
    expect(efficiency(20, motor.ratedMps)).toBeLessThan(0.6 * motor.peak);
    const hub = { ...motor, hasGears: false };
    expect(300 / electricW(hub, 300, 2)).toBeLessThan(0.8 * (300 / electricW(hub, 300, motor.ratedMps)));
  });
  test("gives no more than its torque allows where it turns slowly", () =>
    expect(mostAt({ ...motor, hasGears: false }, 1)).toBeLessThan(0.4 * motor.mostW));
});

describe("a pack", () => {
  const { pack } = drawPack(rngFrom(4), { what: "" }, 2026);
  const empty = (watts: number, tempC: number) => {
    let [charge, isCut] = [{ share: 1, slowV: 0, usedWh: 0, usedAh: 0 }, false];
    while (!isCut) ({ charge, isCut } = draw({ ...pack, tempC }, charge, watts));
    return charge;
  };
  test("gives less when it is cold, and less when it is drawn from hard", () => {
    expect(empty(150, -5).usedWh).toBeLessThan(0.95 * empty(150, 20).usedWh);
    expect(empty(500, 20).usedWh).toBeLessThan(empty(100, 20).usedWh);
    expect(empty(100, 20).usedAh).toBeLessThanOrEqual(availableAh({ ...pack, tempC: 20 }) + 1e-9);
  });
  test("its volts come back as it rests", () => {
    const worked = { share: 0.5, slowV: 0.8, usedWh: 100, usedAh: 2 };
    expect(restedVolts(pack, worked, 20)).toBeGreaterThan(restedVolts(pack, worked, 1));
    expect(restedVolts(pack, worked, 60)).toBeCloseTo(pack.seriesCells * pack.restVolts(0.5), 3);
  });
});
