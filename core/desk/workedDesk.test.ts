import { readFileSync } from "node:fs";
import { describe, expect, test } from "@jest/globals";
import { conditionsFor, courseEnergy, REFERENCES, type CourseConditions } from "#core/bike";
import { byDifferences, deskPosterior, type DeskDay, type SharedUnknown } from "./index.ts";

/**
 * A desk worked out by independent code: three bikes, two riders, five tests, every unknown a standard normal, nothing
 * learned and nothing widened.
 */
interface Worked {
  readonly bikes: readonly { readonly massKg: number }[];
  readonly tests: readonly {
    readonly bike: number;
    readonly rider: number;
    readonly conditions: Required<Omit<CourseConditions, "altitudeM">>;
    readonly measuredWhPerMi: number;
    readonly sdWhPerMi: number;
  }[];
  readonly expected: {
    readonly prior: readonly number[];
    readonly underHouse: readonly { readonly whPerMi: number; readonly sd: number }[];
    readonly difference0less2: { readonly whPerMi: number; readonly sd: number };
    readonly riders: readonly { readonly z: number; readonly sd: number }[];
    readonly lambda: readonly number[];
    readonly dayRider: readonly number[];
    readonly dayWind: readonly number[];
  };
}
const desk = JSON.parse(
  readFileSync(new URL("../../tests/fixtures/desk-case.json", import.meta.url), "utf8"),
) as Worked;
const HOUSE = REFERENCES[0]!;

const bikeOf = ([rolling = 0, drag = 0, motor = 0]: readonly number[]) => ({
  crr: 0.007 * Math.exp(0.2 * rolling),
  cdA: 0.55 * Math.exp(0.12 * drag),
  etaM: 0.8 * Math.exp(0.057 * motor),
});
const ofBike = (b: number): readonly SharedUnknown[] =>
  (["rolling", "drag", "motor"] as const).map((kind) => ({ key: `${kind}:${b}`, kind }));
const days = desk.tests.map((each, i): DeskDay => {
  const { conditions } = each;
  const predict = (shared: readonly number[], own: readonly number[]) => {
    const [rider, wind, speed, stops, climb, model] = own as [number, number, number, number, number, number];
    const gain = Math.max(0, conditions.gainMPerMi + 2 * climb);
    const modelled = courseEnergy(
      {
        ...conditions,
        headwindMps: conditions.headwindMps + wind,
        speedMps: conditions.speedMps * Math.exp(0.05 * speed),
        stopsPerMi: conditions.stopsPerMi * Math.exp(0.4 * stops),
        gainMPerMi: gain,
        lossMPerMi: gain,
        riderW: conditions.riderW * Math.exp(0.15 * rider + 0.2 * shared[4]!),
      },
      bikeOf(shared),
    );
    return [modelled * Math.exp(0.05 * model - 0.04 * shared[3]!)];
  };
  return {
    id: String(i),
    home: String(each.bike),
    shared: [
      ...ofBike(each.bike),
      { key: `capacity:${each.bike}`, kind: "capacity" },
      { key: `habit:${each.rider}`, kind: "habit" },
    ],
    own: ["rider", "wind", "speed", "stops", "climb", "model"],
    measured: [{ mean: each.measuredWhPerMi, sd: each.sdWhPerMi }],
    linearise: byDifferences(predict),
  };
});
const posterior = deskPosterior(days, { learnSpreads: false, robust: false });
const under = desk.bikes.map(({ massKg }, b) =>
  posterior.figure(ofBike(b), (z) => courseEnergy(conditionsFor(HOUSE, massKg), bikeOf(z))),
);
const sdOf = (effects: Readonly<Record<string, number>>) => Math.hypot(...Object.values(effects));

describe("the worked desk", () => {
  const { expected } = desk;
  test.each(desk.bikes.map((_, b) => b))("bike %i under House", (b) => {
    const { mean, effects, byUnknown } = under[b]!;
    expect(mean / expected.underHouse[b]!.whPerMi).toBeCloseTo(1, 2);
    expect(Math.abs(mean / expected.underHouse[b]!.whPerMi - 1)).toBeLessThan(0.005);
    expect(Math.abs(sdOf(effects) / expected.underHouse[b]!.sd - 1)).toBeLessThan(0.005);
    const whole = Object.values(byUnknown).reduce((sum, each) => sum + each, 0);
    expect(Math.sqrt(whole) / sdOf(effects)).toBeCloseTo(1, 9);
  });
  test("two bikes ridden by two people share what the people share", () => {
    const keys = new Set([...Object.keys(under[0]!.effects), ...Object.keys(under[2]!.effects)]);
    const apart = [...keys].map((key) => (under[0]!.effects[key] ?? 0) - (under[2]!.effects[key] ?? 0));
    expect(Math.abs(Math.hypot(...apart) / expected.difference0less2.sd - 1)).toBeLessThan(0.005);
  });
  test.each([0, 1])("rider %i's habit", (r) => {
    const habit = posterior.figure([{ key: `habit:${r}`, kind: "habit" }], ([z]) => z!);
    expect(Math.abs(habit.mean - expected.riders[r]!.z)).toBeLessThan(0.01);
    expect(Math.abs(sdOf(habit.effects) - expected.riders[r]!.sd)).toBeLessThan(0.01);
  });
  test("each day's effort and wind as now believed", () =>
    posterior.days.forEach(({ own }, t) => {
      expect(Math.abs(own[0]! - expected.dayRider[t]!)).toBeLessThan(0.01);
      expect(Math.abs(own[1]! - expected.dayWind[t]!)).toBeLessThan(0.01);
    }));
});
