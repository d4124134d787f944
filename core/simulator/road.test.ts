import { describe, expect, test } from "@jest/globals";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import { drawCourse } from "./course.ts";
import { FULL, type TruePack } from "./pack.ts";
import { rngFrom } from "#core/world";
import { rideCourse, type Sample, type TrueRig } from "./ride.ts";

const pack: TruePack = {
  chemistry: "NMC",
  seriesCells: 13,
  ampHours: 14,
  labelWh: 655,
  chemicalWh: 640,
  ohm: 0.1,
  tempC: 20,
};
const rig: TrueRig = {
  massKg: 120,
  cdA: 0.55,
  crr: 0.008,
  etaM: 0.8,
  lightsOn: false,
  levels: {
    low: { speedMps: 12 * MPS_PER_MPH, motorW: 260 },
    high: { speedMps: 16 * MPS_PER_MPH, motorW: 480 },
  },
  riderW: 50,
  holds: "speed",
  stopsPerMile: 0.5,
  assistToMps: 20 * MPS_PER_MPH,
  lowPowerAt: 0.92,
};
const course = (climb: number, seed = 3) =>
  drawCourse(rngFrom(seed), 60, ["low", "high"], ["asphalt", "fine gravel"], climb);
const ride = (more: Partial<TrueRig> = {}, miles = 10, climb = 8): readonly Sample[] => [
  ...rideCourse({ ...rig, ...more }, pack, course(climb), FULL, 0, miles * METRES_PER_MILE, rngFrom(8)),
];
const whPerMi = (samples: readonly Sample[]) => {
  const last = samples.at(-1)!;
  return (last.pack.usedWh / last.distanceM) * METRES_PER_MILE;
};

describe("a course", () => {
  const hills = course(25);
  test("slopes as its heights say", () => {
    for (let metres = 0; metres < 20_000; metres += 731)
      expect(hills.slopeAt(metres)).toBeCloseTo(
        (hills.heightAt(metres + 0.5) - hills.heightAt(metres - 0.5)) / 1,
        5,
      );
  });
  test("climbs about as much a mile as asked", () => {
    let gain = 0;
    for (let metres = 0; metres < 40 * METRES_PER_MILE; metres += 10)
      gain += Math.max(0, hills.heightAt(metres + 10) - hills.heightAt(metres));
    expect(gain / 40).toBeGreaterThan(15);
    expect(gain / 40).toBeLessThan(40);
  });
  test("changes level or ground every two to six miles", () => {
    const lengths = hills.stretches.map(
      ({ toM }, i) => (toM - (hills.stretches[i - 1]?.toM ?? 0)) / METRES_PER_MILE,
    );
    expect(Math.min(...lengths)).toBeGreaterThanOrEqual(2);
    expect(Math.max(...lengths)).toBeLessThanOrEqual(6);
  });
});

describe("a ride", () => {
  const samples = ride();
  test("goes forward in time and place, spending what its volts and amps say", () => {
    let wh = 0;
    samples.forEach((sample, i) => {
      wh += (sample.volts * sample.amps) / 3600;
      if (i === 0) return;
      expect(sample.timeS).toBe(samples[i - 1]!.timeS + 1);
      expect(sample.distanceM).toBeGreaterThanOrEqual(samples[i - 1]!.distanceM);
    });
    expect(wh).toBeCloseTo(samples.at(-1)!.pack.usedWh, 6);
  });
  test("takes more with more mass on hills, with lights, and with less help from the rider", () => {
    const base = whPerMi(ride({}, 10, 30));
    expect(whPerMi(ride({ massKg: 160 }, 10, 30))).toBeGreaterThan(base);
    expect(whPerMi(ride({ lightsOn: true }, 10, 30))).toBeGreaterThan(base);
    expect(whPerMi(ride({ riderW: 0 }, 10, 30))).toBeGreaterThan(base + 1);
  });
  test("stops as often as its rider does", () => {
    const stops = (all: readonly Sample[]) =>
      all.filter(({ speedMps }, i) => speedMps === 0 && (all[i - 1]?.speedMps ?? 0) > 0).length;
    expect(stops(ride({ stopsPerMile: 3 }))).toBeGreaterThan(2 * stops(ride({ stopsPerMile: 0.3 })));
  });
  test("gets no help above the assist limit", () => {
    const slow = ride({ assistToMps: 3 });
    const helped = slow.filter(({ amps }, i) => (slow[i - 1]?.speedMps ?? 0) > 3 && amps > 1);
    expect(helped).toHaveLength(0);
    expect(slow.some(({ amps }) => amps > 3)).toBe(true);
  });
  test("ends in low-power mode and a cut-off when the way is longer than the pack", () => {
    const whole = ride({ riderW: 0, stopsPerMile: 0 }, 58);
    expect(whole.at(-1)!.cutOff).toBe(true);
    expect(whole.some(({ lowPower }) => lowPower)).toBe(true);
    expect(whole.at(-1)!.fractionUsed).toBeGreaterThan(0.95);
  });
});
