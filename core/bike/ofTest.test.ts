import { describe, expect, test } from "@jest/globals";
import { DEFAULTS, METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import { bikeSchema, riderSchema, setUpSchema, testSchema } from "#core/records";
import { climbOfRide, conditionsOfTest, roadOf, type RiddenDay } from "./index.ts";

const mi = (miles: number) => miles * METRES_PER_MILE;
const bike = bikeSchema.parse({
  name: "Reed",
  levels: ["low", "high"],
  massKg: 26,
  motor: "mid",
  throttle: true,
});
const rider = riderSchema.parse({
  name: "Maren",
  massKg: 70,
  lowBpm: 100,
  lowW: 50,
  highBpm: 150,
  highW: 150,
});

interface Told {
  readonly test?: object;
  readonly noted?: object;
  readonly climbM?: number | null;
  readonly meanSpeedMps?: number | null;
  readonly parts?: readonly { level: string; ground: string; distanceM: number }[];
}

function ridden(told: Told = {}): RiddenDay {
  return {
    bike,
    rider,
    setUp: setUpSchema.parse({ name: "s", tyreClass: "knobbly", posture: "leaning", lightsOn: true }),
    test: testSchema.parse({ title: "t", day: "2026-10-18", airTempC: 8, ...told.test }),
    results: {
      best: { value: { mean: 0.008, sd: 0.0002 } },
      parts: told.parts ?? [
        { level: "low", ground: "asphalt", distanceM: mi(12) },
        { level: "high", ground: "brick", distanceM: mi(8) },
      ],
      meanSpeedMps: told.meanSpeedMps ?? null,
      climbM: told.climbM ?? null,
      noted: {
        stops: null,
        bpm: null,
        windMps: null,
        unassistedShare: null,
        clockSpeedMps: null,
        levelSpeedMps: {},
        climbM: null,
        guesses: [],
        ...told.noted,
      },
    } as never,
  };
}
const rig = (told: Told = {}) => conditionsOfTest(ridden(told))!.conditions;

describe("how a test was ridden", () => {
  test("effort is watts, else a heart rate on the rider's line, else words, else easy", () => {
    expect(rig({ test: { riderW: 85, bpm: 125, effort: "hard" } }).riderW).toBe(85);
    expect(rig({ test: { bpm: 125, effort: "hard" } }).riderW).toBeCloseTo(100, 9);
    expect(rig({ noted: { bpm: 110 } }).riderW).toBeCloseTo(70, 9);
    expect(rig({ test: { effort: "hard" } }).riderW).toBe(DEFAULTS.hardW);
    expect(rig().riderW).toBe(DEFAULTS.easyW);
  });
  test("watts are surer than a heart rate, that than a word, and a word than nothing", () => {
    const doubt = (test: object) => {
      const { riderSdShare, habitSdShare = 0, riderBy } = rig({ test });
      return [riderBy, Math.hypot(riderSdShare, habitSdShare)] as const;
    };
    const told = [{ riderW: 90 }, { bpm: 125 }, { effort: "easy" }, {}].map(doubt);
    expect(told.map(([by]) => by)).toEqual(["watts", "heart", "word", "nothing"]);
    expect(told.map(([, sd]) => sd)).toEqual(told.map(([, sd]) => sd).sort((a, b) => a - b));
    expect(told[2]![1]).toBeCloseTo(DEFAULTS.riderSdShare, 9);
  });
  test("a wind nobody typed is less sure", () => {
    expect(rig({ test: { windMps: 3 } }).windSdMps).toBe(DEFAULTS.windSdMps);
    expect(rig().windSdMps).toBe(DEFAULTS.windGuessSdMps);
  });
  test("what is weighed counts, the rest is assumed", () => {
    const { bike: own, ...rest } = ridden();
    const { massKg: _, ...unweighed } = own;
    const kg = conditionsOfTest({ ...rest, bike: unweighed })!.conditions;
    expect(kg.massKg).toBe(DEFAULTS.bikeKg + 70);
    expect(kg.massSdShare).toBeGreaterThan(rig().massSdShare);
    expect(conditionsOfTest({ ...rest, bike: unweighed, rider: null })!.conditions.massKg).toBe(
      DEFAULTS.massKg,
    );
  });
  test("on the throttle the rider gives nothing, whatever was noted", () =>
    expect(rig({ test: { drive: "throttle", riderW: 85 } }).riderW).toBe(0));
  test("wind and stops are those typed, else those noted, else the usual", () => {
    expect(rig({ test: { windMps: 0 }, noted: { windMps: 6 } }).windMps).toBe(0);
    expect(rig({ noted: { windMps: 6 } }).windMps).toBe(6);
    expect(rig().windMps).toBe(DEFAULTS.windMps);
    expect(rig({ test: { stops: 40 } }).stopsPerMi).toBeCloseTo(2, 9);
    expect(rig({ noted: { stops: 10 } }).stopsPerMi).toBeCloseTo(0.5, 9);
    expect(rig().stopsPerMi).toBe(DEFAULTS.stopsPerMi);
  });
  test("height, air and lights go along", () => {
    const { altitudeM, tempC, lightsOn } = rig({ test: { altitudeM: 900 } });
    expect([altitudeM, tempC, lightsOn]).toEqual([900, 8, true]);
  });
  test("speed by the track beats that by the clock; each level keeps its own", () => {
    const by = { clockSpeedMps: 5, levelSpeedMps: { low: 4.5, high: 6 } };
    const speeds = rig({ noted: by }).speedMps;
    expect(speeds["high"]! / speeds["low"]!).toBeCloseTo(6 / 4.5, 9);
    const seconds = mi(12) / speeds["low"]! + mi(8) / speeds["high"]!;
    expect(mi(20) / seconds).toBeCloseTo(5, 9);
    const tracked = rig({ noted: by, meanSpeedMps: 7 }).speedMps;
    expect(mi(20) / (mi(12) / tracked["low"]! + mi(8) / tracked["high"]!)).toBeCloseTo(7, 9);
  });
  test("never ridden levels have their usual speeds", () =>
    expect(rig().speedMps["low"]! / MPS_PER_MPH).toBeCloseTo(DEFAULTS.calmMph, 6));
  test("climb is the track's, else the recorder's at check-ins, else what is most likely", () => {
    const ride = (told: Told) => conditionsOfTest(ridden(told))!;
    const gain = (told: Told) => 20 * climbOfRide(ride(told));
    expect(gain({ climbM: 300, noted: { climbM: 90 } })).toBeCloseTo(300, 6);
    expect(gain({ noted: { climbM: 90 } })).toBeCloseTo(90, 6);
    expect(gain({})).toBeCloseTo(20 * DEFAULTS.climbGuessMPerMi, 6);
    expect([ride({ climbM: 300 }).climbBy, ride({}).climbBy]).toEqual(["typed", "assumed"]);
  });
  test("a test without a part that can be told is none", () =>
    expect(conditionsOfTest(ridden({ parts: [{ level: "low", ground: "mud", distanceM: 5 }] }))).toBeNull());
});

test("a bike's road load is that of its kind", () => {
  const { setUp } = ridden();
  expect(roadOf({ bike, setUp })).toEqual({
    cdA: DEFAULTS.dragAreaLow,
    crr: DEFAULTS.rollingKnobbly,
    etaD: DEFAULTS.drivetrainEfficiency,
    etaM: DEFAULTS.midEfficiency,
  });
  expect(roadOf({ bike: { ...bike, motor: "hub" }, setUp: null })).toMatchObject({
    cdA: DEFAULTS.dragAreaM2,
    crr: DEFAULTS.rollingAsphalt,
    etaM: DEFAULTS.hubEfficiency,
  });
});
