import { describe, expect, test } from "@jest/globals";
import { courseSchema, buildRoute } from "#core/route";
import { forecastRide, PRIOR, type ForecastInput } from "#core/forecast";
import { METRES_PER_MILE, MPS_PER_MPH, Z_95 } from "#core/base";
import { ridePlan } from "#core/simulator";

const mi = (miles: number) => miles * METRES_PER_MILE;
const course = courseSchema.parse({
  name: "levee",
  shape: "out and back",
  legs: [
    { distanceM: mi(4), ground: "asphalt", level: "mid", gainM: 40, lossM: 24 },
    { distanceM: mi(5), ground: "fine gravel", level: "low", gainM: 18, lossM: 44 },
  ],
});
const input: ForecastInput = {
  way: buildRoute(course),
  rig: {
    massKg: 118,
    massSdShare: 0.01,
    cdA: 0.55,
    crr: 0.007,
    etaD: 0.95,
    etaM: 0.8,
    assistToMps: 20 * MPS_PER_MPH,
    lightsOn: false,
    tempC: 12,
    altitudeM: 0,
    windMps: 2,
    windFromDeg: null,
    windSdMps: 1,
    stopsPerMi: 1,
    riderW: 60,
    riderSdShare: 0.25,
    riderBy: "word",
    speedSdShare: 0.08,
    level: "mid",
    speedMps: { low: 11 * MPS_PER_MPH, mid: 14 * MPS_PER_MPH },
    motorW: { low: 300, mid: 550 },
  },
  knowledge: PRIOR,
  pack: { chemistry: "NMC", labelWh: 500, seriesCells: 13, ampHours: 10.4, packTempC: 12 },
  display: { percentStep: 1, counts: "charge", bars: 5, meterStepV: 0.1 },
  startPercent: 100,
  reserve: 0.2,
};
const RIDES = 60;

/** Share of seeded rides of the plan whose truth lies in the forecast's span, by what is forecast, and the mean miss in sds. */
function coverage(places: readonly number[]) {
  const result = forecastRide(input);
  if (!result.ok) throw new Error("a forecast is expected");
  const expected = places.map((place) => result.value.at(place));
  const hits = { energy: 0, used: 0, percent: 0, time: 0 };
  let count = 0;
  let miss = 0;
  for (let seed = 1; seed <= RIDES; seed += 1)
    ridePlan(seed, input, places).truths.forEach((truth, i) => {
      const { energyWh, used, timeS, percent } = expected[i]!;
      const inside = (value: number, span: { mean: number; sd: number }) =>
        Number(Math.abs(value - span.mean) <= Z_95 * span.sd);
      hits.energy += inside(truth.energyWh, energyWh);
      hits.used += inside(truth.used, used);
      hits.time += inside(truth.timeS, timeS);
      hits.percent += Number(truth.percent >= percent!.low - 0.5 && truth.percent <= percent!.high + 0.5);
      miss += (truth.energyWh - energyWh.mean) / energyWh.sd;
      count += 1;
    });
  const share = (hit: number) => hit / count;
  return {
    energy: share(hits.energy),
    used: share(hits.used),
    percent: share(hits.percent),
    time: share(hits.time),
    miss: miss / count,
  };
}

describe("a plan ridden on the stand-in", () => {
  const found = coverage([mi(5), mi(9), mi(18)]);
  test.each(["energy", "used", "percent", "time"] as const)(
    "%s lies in its span as often as promised, 95 %% of rides",
    (what) => {
      expect(found[what]).toBeGreaterThanOrEqual(0.9);
      expect(found[what]).toBeLessThanOrEqual(0.995);
    },
  );
  test("the forecast leans to neither side", () => expect(Math.abs(found.miss)).toBeLessThan(0.25));
  test("where full power and the pack end lies in the span", () => {
    const result = forecastRide(input);
    if (!result.ok) throw new Error("a forecast is expected");
    const [low, end] = [result.value.where(0.92, 0.03)!, result.value.where(1, 0.015)!];
    const rides = Array.from({ length: 40 }, (_, i) => ridePlan(1000 + i, input, [], mi(120)));
    const share = (span: { mean: number; sd: number }, of: (ride: (typeof rides)[number]) => number | null) =>
      rides.filter((ride) => Math.abs((of(ride) ?? 0) - span.mean) <= Z_95 * span.sd).length / rides.length;
    expect(share(low, ({ lowPowerM }) => lowPowerM)).toBeGreaterThanOrEqual(0.88);
    expect(share(end, ({ cutOffM }) => cutOffM)).toBeGreaterThanOrEqual(0.88);
  });
  test("the same seed rides the same ride", () =>
    expect(ridePlan(7, input, [mi(5)])).toEqual(ridePlan(7, input, [mi(5)])));
});
