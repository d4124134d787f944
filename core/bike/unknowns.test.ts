import { describe, expect, test } from "@jest/globals";
import { DEFAULTS } from "#core/base";
import { applyAll, LASTING_UNKNOWNS, UNKNOWNS, type RideConditions } from "./index.ts";

const rig: RideConditions = {
  massKg: 120,
  massSdShare: 0.1,
  cdA: 0.55,
  crr: 0.007,
  etaD: 0.95,
  etaM: 0.8,
  assistToMps: 9,
  lightsOn: false,
  tempC: 20,
  altitudeM: 0,
  windMps: 2,
  windFromDeg: null,
  windSdMps: 1,
  stopsPerMi: 1,
  riderW: 60,
  riderSdShare: 0.25,
  riderBy: "word",
  speedSdShare: 0.08,
  level: "on",
  speedMps: { on: 6 },
  motorW: {},
};
const apply = (name: string, z: number, from = rig) =>
  UNKNOWNS.find((each) => each.name === name)!.apply(from, z);

describe("what a forecast does not know", () => {
  test("what lasts comes first, the bike's own before the rider's", () =>
    expect(UNKNOWNS.map(({ of }) => of)).toEqual([
      ...Array<string>(LASTING_UNKNOWNS - 1).fill("bike"),
      "rider",
      ...Array<string>(UNKNOWNS.length - LASTING_UNKNOWNS).fill("day"),
    ]));
  test("one sd is the assumption's share", () => {
    expect(apply("rolling resistance", 1).crr / rig.crr).toBeCloseTo(Math.exp(DEFAULTS.rollingSdShare), 9);
    expect(apply("drag", -1).cdA / rig.cdA).toBeCloseTo(Math.exp(-DEFAULTS.dragSdShare), 9);
    expect(apply("weight", 1).massKg / rig.massKg).toBeCloseTo(Math.exp(0.1), 9);
    expect(apply("rider", 1).riderW / rig.riderW).toBeCloseTo(Math.exp(0.25), 9);
    expect(apply("wind", 1).windMps - rig.windMps).toBeCloseTo(DEFAULTS.windSdMps, 9);
    expect(apply("speed", 1).speedMps["on"]! / 6).toBeCloseTo(Math.exp(0.08), 9);
  });
  test("rolling moves every ground that was measured alike", () => {
    const by = apply("rolling resistance", 1, { ...rig, crrBy: { brick: 0.01, mud: 0.04 } }).crrBy!;
    expect(by.brick! / 0.01).toBeCloseTo(Math.exp(DEFAULTS.rollingSdShare), 9);
    expect(by.mud! / by.brick!).toBeCloseTo(4, 9);
    expect(apply("rolling resistance", 1).crrBy).toBeUndefined();
  });
  test("stops that were counted are surer", () => {
    const share = (from: RideConditions) => apply("stops", 1, from).stopsPerMi / from.stopsPerMi;
    expect(share(rig)).toBeCloseTo(Math.exp(DEFAULTS.stopsSdShare), 9);
    expect(share({ ...rig, stopsSdShare: 0.1 })).toBeCloseTo(Math.exp(0.1), 9);
  });
  test("all at once are each in turn; none leave the rig as it is", () => {
    const z = UNKNOWNS.map((_, i) => (i % 2 ? 0.5 : 0));
    expect(applyAll(rig, z)).toEqual(UNKNOWNS.reduce((now, { apply: one }, i) => one(now, z[i]!), rig));
    expect(applyAll(rig, [])).toBe(rig);
  });
});
