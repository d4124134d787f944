import { describe, expect, test } from "@jest/globals";
import { makeStandin } from "#core/simulator";

const RIG = { massKg: 131, cdA: 0.66, crr: 0.009, riderW: 42 };

describe("a stand-in of given bike and rider", () => {
  const { truth, record } = makeStandin(11, "clean", { rig: RIG });
  test("is the one that was given, and the rest is drawn", () => {
    expect(truth.rig).toMatchObject(RIG);
    expect(truth.rig.etaM).toBeGreaterThan(0.7);
    expect(record.bike.massKg).toBeCloseTo(131 - 75, 9);
  });
  test("tells its wind and its stops", () => {
    expect(truth.windMps).toBeGreaterThanOrEqual(0);
    expect(truth.stops).toBeGreaterThan(0);
    expect(truth.stops / truth.miles).toBeLessThan(3 * truth.rig.stopsPerMile);
  });
  test("heavier, broader and slower tyres take more", () => {
    const taking = (rig: Partial<typeof RIG>) =>
      makeStandin(11, "clean", { rig: { ...RIG, ...rig } }).truth.whPerMi;
    const usual = taking({});
    expect(taking({ massKg: 150 })).toBeGreaterThan(usual);
    expect(taking({ cdA: 0.8 })).toBeGreaterThan(usual);
    expect(taking({ crr: 0.014 })).toBeGreaterThan(usual);
    expect(taking({ riderW: 90 })).toBeLessThan(usual);
  });
  test("without anything given the same seed gives the same test as before", () =>
    expect(makeStandin(11, "clean").truth.whPerMi).toBe(makeStandin(11, "clean", {}).truth.whPerMi));
});
