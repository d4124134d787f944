import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { courseSchema, buildRoute } from "#core/route";
import {
  bailOuts,
  chanceHome,
  forecastRide,
  goOnBelow,
  PRIOR,
  turnRound,
  wayHome,
  withLaps,
  type Forecast,
  type ForecastInput,
} from "#core/forecast";
import { courseEnergy, type RideConditions, routeCost } from "#core/bike";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/base";

const mi = (miles: number) => miles * METRES_PER_MILE;
const rig: RideConditions = {
  massKg: 115,
  massSdShare: 0.01,
  cdA: 0.55,
  crr: 0.007,
  etaD: 0.95,
  etaM: 0.8,
  assistToMps: 20 * MPS_PER_MPH,
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
  speedSdShare: 0.08,
  level: "mid",
  speedMps: { low: 11 * MPS_PER_MPH, mid: 14 * MPS_PER_MPH },
  motorW: {},
};
const outAndBack = (miles: number, more: object = {}) =>
  courseSchema.parse({
    name: "c",
    shape: "out and back",
    legs: [{ distanceM: mi(miles), gainM: 10 * miles, lossM: 4 * miles }],
    ...more,
  });
const input = (more: Partial<ForecastInput> = {}): ForecastInput => ({
  way: buildRoute(outAndBack(8)),
  rig,
  knowledge: PRIOR,
  pack: { chemistry: "NMC", labelWh: 500, seriesCells: 13, packTempC: 15 },
  display: { percentStep: 1, counts: "charge", bars: 5, meterStepV: 0.1 },
  startPercent: 100,
  reserve: 0.2,
  ...more,
});
const forecast = (more: Partial<ForecastInput> = {}): Forecast => {
  const result = forecastRide(input(more));
  if (!result.ok) throw new Error("a forecast is expected");
  return result.value;
};

describe("energy along a way", () => {
  test("is the course energy of section 7 on a course known by its climb", () => {
    const course = courseSchema.parse({
      name: "c",
      legs: [{ distanceM: mi(10), gainM: 100, lossM: 100 }],
    });
    const { wh } = routeCost(buildRoute(course).lap, rig);
    const perMile = courseEnergy(
      { massKg: 115, speedMps: 14 * MPS_PER_MPH, gainMPerMi: 10, stopsPerMi: 1, tempC: 15, riderW: 60 },
      {},
    );
    expect(wh / 10).toBeCloseTo(perMile, 6);
  });
  test("adds over laps, and never falls", () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (share) => {
        const f = forecast();
        const { lapM } = f.along.way;
        const at = f.along.whTo(share * lapM).mean;
        expect(f.along.whTo(lapM + share * lapM).mean).toBeCloseTo(f.along.whTo(lapM).mean + at, 6);
        expect(f.along.whTo(share * lapM + 50).mean).toBeGreaterThanOrEqual(at);
      }),
    );
  });
  test("back the way one came is the rest of an out and back", () => {
    const f = forecast();
    const { lapM, turnM } = f.along.way;
    expect(f.along.whBack(turnM!).mean).toBeCloseTo(f.along.whTo(lapM).mean - f.along.whTo(turnM!).mean, 6);
  });
  test("a headwind out is a tailwind back", () => {
    const profile = {
      stepM: 100,
      lengthM: 5000,
      heightM: Array.from({ length: 51 }, () => 0),
      headingDeg: Array.from({ length: 50 }, () => 0),
      lat: Array.from({ length: 51 }, () => 0),
      lon: Array.from({ length: 51 }, () => 0),
    };
    const course = courseSchema.parse({
      name: "n",
      shape: "out and back",
      legs: [{ distanceM: 5000 }],
      profile,
    });
    const { lap } = buildRoute(course);
    const windy = { ...rig, windMps: 4, windFromDeg: 0 };
    expect(routeCost(lap.slice(0, 50), windy).wh).toBeGreaterThan(1.5 * routeCost(lap.slice(50), windy).wh);
    expect(routeCost(lap, windy).wh).toBeGreaterThan(routeCost(lap, rig).wh);
  });
  test("a motor that cannot hold the speed climbs slower, for longer", () => {
    const hill = buildRoute(courseSchema.parse({ name: "h", legs: [{ distanceM: 1000, gainM: 60 }] })).lap;
    const strong = routeCost(hill, { ...rig, stopsPerMi: 0 });
    const weak = routeCost(hill, { ...rig, stopsPerMi: 0, motorW: { mid: 250 } });
    expect(weak.s).toBeGreaterThan(1.3 * strong.s);
  });
  test("above the speed at which assist stops nothing is ridden: it is held to that speed", () => {
    const flat = buildRoute(courseSchema.parse({ name: "f", legs: [{ distanceM: 1000 }] })).lap;
    const fast = { ...rig, stopsPerMi: 0, speedMps: { mid: 30 * MPS_PER_MPH } };
    expect(routeCost(flat, fast).s).toBeCloseTo(1000 / (20 * MPS_PER_MPH), 6);
  });
});

describe("what is expected at a place", () => {
  const f = forecast();
  test("spans hold what is expected, and widen with distance", () => {
    const [near, far] = [f.at(mi(4)), f.at(mi(14))];
    for (const { percent, bars, restVolts } of [near, far])
      for (const span of [percent!, bars!, restVolts!]) {
        expect(span.low).toBeLessThanOrEqual(span.expected);
        expect(span.high).toBeGreaterThanOrEqual(span.expected);
      }
    expect(far.used.sd).toBeGreaterThan(near.used.sd);
    expect(far.timeS.mean).toBeGreaterThan(near.timeS.mean);
  });
  test("a display without percent, bars or cells expects none", () => {
    const bare = forecast({
      display: { percentStep: 0, counts: "charge", bars: 0, meterStepV: 0 },
    }).at(mi(4));
    expect(bare).toMatchObject({ percent: null, bars: null, restVolts: null });
  });
  test("where a fraction is used is where that fraction is expected", () => {
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 1, noNaN: true }), (fraction) => {
        const at = f.where(fraction)!;
        expect(f.at(at.mean).used.mean).toBeCloseTo(fraction, 4);
      }),
    );
  });
  test("cold yields less of the same pack", () => {
    const cold = forecast({ pack: { chemistry: "NMC", labelWh: 500, seriesCells: 13, packTempC: -10 } });
    expect(cold.where(1)!.mean).toBeLessThan(0.9 * f.where(1)!.mean);
  });
  test("a start at four fifths is four fifths of the percents later on", () => {
    const late = forecast({ startPercent: 80 });
    expect(late.at(0).percent!.expected).toBe(80);
    expect(late.where(1)!.mean).toBeLessThan(0.85 * f.where(1)!.mean);
  });
  test("a pack without a label is a problem", () =>
    expect(forecastRide(input({ pack: { chemistry: "NMC" } }))).toMatchObject({
      ok: false,
      problems: [{ code: "no-label" }],
    }));
});

describe("home", () => {
  test("is back before the turn, and on after it", () => {
    const f = forecast();
    expect(wayHome(f, mi(3))).toMatchObject({ by: "back" });
    expect(wayHome(f, mi(12))).toMatchObject({ by: "on" });
  });
  test("a short way is sure from everywhere; a long one has a turn-round before its turn", () => {
    expect(turnRound(forecast()).latestM).toBeNull();
    const long = forecast({ way: buildRoute(outAndBack(30)) });
    const { latestM, pedalAfterM } = turnRound(long);
    expect(latestM!).toBeGreaterThan(mi(5));
    expect(latestM!).toBeLessThan(mi(30));
    expect(pedalAfterM!).toBeGreaterThan(latestM!);
    expect(chanceHome(long, latestM!, 0.2)).toBeGreaterThan(0.94);
    expect(chanceHome(long, latestM! + mi(1), 0.2)).toBeLessThan(0.95);
  });
  test("more reserve turns sooner", () => {
    const way = buildRoute(outAndBack(30));
    const latest = (reserve: number) => turnRound(forecast({ way, reserve })).latestM!;
    expect(latest(0.4)).toBeLessThan(latest(0.2));
  });
  test("whole laps that are sure are counted", () => {
    const loop = buildRoute(
      courseSchema.parse({ name: "l", legs: [{ distanceM: mi(5), gainM: 40, lossM: 40 }], laps: 20 }),
    );
    const { lapsSure } = turnRound(forecast({ way: loop }));
    expect(lapsSure).toBeGreaterThan(1);
    expect(lapsSure).toBeLessThan(12);
  });
  test("a place is out of reach further on than home is, when it is nearer", () => {
    const way = buildRoute(outAndBack(30, { places: [{ name: "ferry", atM: mi(12) }] }));
    const f = forecast({ way });
    const [ferry, again] = bailOuts(f);
    expect(ferry).toMatchObject({ name: "ferry", beyond: false });
    expect(ferry!.pedalAfterM!).toBeGreaterThan(turnRound(f).pedalAfterM!);
    expect(again).toMatchObject({ beyond: true, pedalAfterM: null });
  });
  test("going on needs the next leg and the way home from there", () => {
    const f = forecast();
    expect(goOnBelow(f, mi(5), mi(7))).toBeLessThan(goOnBelow(f, mi(10), mi(12)));
    expect(goOnBelow(f, mi(15), mi(16))).toBeCloseTo(0.8, 1);
  });
  test("more laps change the length, not the lap", () => {
    const f = withLaps(forecast(), 3);
    expect(f.along.way.lengthM).toBeCloseTo(3 * f.along.way.lapM, 6);
    expect(f.at(1000).energyWh.mean).toBeCloseTo(forecast().at(1000).energyWh.mean, 9);
  });
});
