import { describe, expect, test } from "@jest/globals";
import { courseSchema, buildRoute } from "#core/route";
import { forecastRide, PRIOR } from "#core/forecast";
import { againstPlan, liveTurn, liveView } from "#core/live";
import { METRES_PER_MILE, MPS_PER_MPH, renderUnits } from "#core/base";

const mi = (miles: number) => miles * METRES_PER_MILE;
const explained = (mean: number, sd: number) =>
  ({ value: { mean, sd }, because: "", pencil: false }) as never;
const results = (used: number, miles = 10) => ({
  capacity: explained(500, 10),
  soFar: {
    distance: { mean: mi(miles), sd: 50 },
    used: { mean: used, sd: 0.02 },
    spent: { mean: used, sd: 0.02 },
    covariance: 0.02 ** 2,
    scatter: 0.25,
  },
});

describe("what is left", () => {
  const view = liveView(results(0.4))!;
  test("is the rest of the pack at the rate so far", () => {
    expect(view.left.mean).toBeCloseTo(0.6, 9);
    expect(view.leftWh.mean).toBeCloseTo(300, 6);
    expect(view.toEnd.mean / METRES_PER_MILE).toBeCloseTo(15, 6);
    expect(view.toFullPower.mean / METRES_PER_MILE).toBeCloseTo(13, 6);
    expect(view.toReserve.mean / METRES_PER_MILE).toBeCloseTo(10, 6);
  });
  test("is never under nothing, and null before anything was ridden", () => {
    expect(liveView(results(0.95))!.toReserve.mean).toBe(0);
    expect(liveView(results(0))).toBeNull();
  });
  test("keeping more back leaves less", () =>
    expect(liveView(results(0.4), 0.4)!.toReserve.mean).toBeLessThan(view.toReserve.mean));
});

describe("when to turn", () => {
  const made = forecastRide({
    way: buildRoute(courseSchema.parse({ name: "c", shape: "out and back", legs: [{ distanceM: mi(15) }] })),
    rig: {
      massKg: 115,
      massSdShare: 0.01,
      cdA: 0.55,
      crr: 0.007,
      etaD: 0.95,
      etaM: 0.8,
      assistToMps: Infinity,
      lightsOn: false,
      tempC: 15,
      altitudeM: 0,
      windMps: 0,
      windFromDeg: null,
      windSdMps: 1,
      stopsPerMi: 1,
      riderW: 60,
      riderSdShare: 0.25,
      riderBy: "word",
      speedSdShare: 0.03,
      level: "mid",
      speedMps: { mid: 14 * MPS_PER_MPH },
      motorW: {},
    },
    knowledge: PRIOR,
    pack: { chemistry: "NMC", labelWh: 400, seriesCells: 13 },
    display: { percentStep: 1, counts: "charge", bars: 0, meterStepV: 0 },
    startPercent: 100,
    reserve: 0.2,
  });
  if (!made.ok) throw new Error("a forecast is expected");
  const turn = (miles: number, used: number) => liveTurn(made.value, mi(miles), { mean: used, sd: 0.01 });
  test("early, soon, now and late follow one another as the pack falls", () => {
    const order = ["early", "soon", "now", "late"];
    const seen = Array.from({ length: 40 }, (_, i) => turn(8, 0.2 + 0.018 * i).state);
    expect(new Set(seen)).toEqual(new Set(order));
    expect([...seen].sort((a, b) => order.indexOf(a) - order.indexOf(b))).toEqual(seen);
  });
  test("at the end of a lap one is home", () =>
    expect(turn(30, 0.3)).toMatchObject({
      state: "early",
      sentence: "You are where you began, with the reserve.",
    }));
  test("nobody who is home is sent home, whatever is left", () =>
    expect(turn(30, 0.95)).toMatchObject({
      state: "soon",
      sentence: "You are where you began, and the reserve is being used.",
    }));
  test("against the plan: as planned, more, and more than such a day explains", () => {
    const expected = made.value.at(mi(8)).used.mean;
    const against = (more: number) => againstPlan(made.value, mi(8), { mean: expected + more, sd: 0.01 });
    expect(against(0.01)).toMatchObject({ odd: false, sentence: "As planned so far." });
    expect(against(-0.05).sentence).toBe("5 % of the pack less used than planned by here.");
    expect(against(0.4)).toMatchObject({
      odd: true,
      sentence: expect.stringContaining("beyond what such a day explains"),
    });
  });
  test("it says how far home is, and which way", () => {
    expect(renderUnits(turn(8, 0.1).sentence, "imperial")).toBe(
      "Home is 8.0 mi from here, and sure with the reserve.",
    );
    expect(turn(8, 0.9).sentence).toContain("back the way you came");
    expect(turn(22, 0.97).sentence).toContain("on along the course");
    expect(turn(8, 0.99).sentence).toContain("pedal home from here");
  });
});
