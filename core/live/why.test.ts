import { describe, expect, test } from "@jest/globals";
import { courseSchema, buildRoute } from "#core/route";
import { forecastRide, PRIOR } from "#core/forecast";
import { againstGuess, reasonsFor, reasonsText, type Ridden } from "#core/live";
import type { LiveEntry } from "#core/ride/log";
import { METRES_PER_MILE, MPS_PER_MPH, renderUnits } from "#core/base";

const mi = (miles: number) => miles * METRES_PER_MILE;
const made = forecastRide({
  way: buildRoute(
    courseSchema.parse({ name: "c", shape: "loop", legs: [{ distanceM: mi(6), level: "mid" }] }),
    5,
  ),
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
    windMps: 2 * MPS_PER_MPH,
    windFromDeg: null,
    windSdMps: 1,
    stopsPerMi: 0,
    riderW: 60,
    riderSdShare: 0.25,
    riderBy: "word",
    speedSdShare: 0.03,
    level: "mid",
    speedMps: { low: 11 * MPS_PER_MPH, mid: 14 * MPS_PER_MPH, high: 18 * MPS_PER_MPH },
    motorW: {},
  },
  knowledge: PRIOR,
  pack: { chemistry: "NMC", labelWh: 400, seriesCells: 13 },
  display: { percentStep: 1, counts: "charge", bars: 0, meterStepV: 0 },
  startPercent: 100,
  reserve: 0.2,
});
if (!made.ok) throw new Error("a forecast is expected");
const forecast = made.value;
const AT = mi(10);
const plannedS = forecast.at(AT).timeS.mean;
const ridden = (rest: Partial<Ridden>): Ridden => ({
  atM: AT,
  elapsedS: plannedS,
  levels: [{ level: "mid", distanceM: AT }],
  windMps: null,
  ...rest,
});
const reasons = (rest: Partial<Ridden>) => reasonsFor(forecast, ridden(rest));

describe("why more or less was used than planned", () => {
  test("a ride as planned has no reasons", () => expect(reasons({})).toEqual([]));
  test("faster takes more, slower less, and a pause of an hour explains nothing", () => {
    expect(reasons({ elapsedS: plannedS / 1.15 })).toMatchObject([
      { what: "speed", words: "riding 15 % faster than planned", more: expect.any(Number) },
    ]);
    expect(reasons({ elapsedS: plannedS / 1.15 })[0]!.more).toBeGreaterThan(0.02);
    expect(reasons({ elapsedS: plannedS / 0.88 })[0]!.more).toBeLessThan(-0.02);
    expect(reasons({ elapsedS: plannedS + 3600 })).toEqual([]);
  });
  test("a higher level takes more, and its pace is not told twice", () => {
    const levels = [
      { level: "mid", distanceM: mi(4) },
      { level: "high", distanceM: mi(6) },
    ];
    const elapsedS = mi(4) / (14 * MPS_PER_MPH) + mi(6) / (18 * MPS_PER_MPH);
    const found = reasons({ levels, elapsedS });
    expect(found.map(({ what }) => what)).toEqual(["level"]);
    expect(found[0]!.more).toBeGreaterThan(0.03);
  });
  test("the wind typed in is set against the plan's", () => {
    const [wind] = reasons({ windMps: 14 * MPS_PER_MPH });
    expect(wind).toMatchObject({ what: "wind" });
    expect(wind!.more).toBeGreaterThan(0.01);
    expect(renderUnits(wind!.words, "imperial")).toBe("a wind of 14 mph, not the 2 mph planned,");
  });
  test("a level the plan knows nothing of explains nothing", () =>
    expect(reasons({ levels: [{ level: "turbo", distanceM: AT }] })).toEqual([]));
  test("in words: what goes the pack's way, and what went the other", () => {
    const two = [
      { what: "speed", more: 0.031, words: "riding 9 % faster than planned" },
      { what: "wind", more: -0.012, words: "less wind" },
    ] as const;
    expect(reasonsText(two, 0.05)).toBe(
      "Riding 9 % faster than planned explains 3.1 points. Less wind would take 1.2 points less.",
    );
    expect(reasonsText([], 0.05)).toBe("");
  });
});

describe("the display's own guess", () => {
  const entry = (rangeGuessM: number, struck = false): LiveEntry => ({
    rootId: "a",
    id: "a",
    seq: 1,
    timeS: null,
    body: { kind: "checkIn", rangeGuessM },
    struck,
    struckFields: [],
    was: [],
    device: null,
  });
  const LEFT = { mean: mi(16), sd: mi(1), low: mi(14), high: mi(18) };
  const against = (guess: number, atMi = 10) =>
    againstGuess([entry(mi(guess))], () => mi(10), mi(atMi), LEFT);
  test.each([
    [28, "too far"],
    [16.5, "as the ledger"],
    [9, "too short"],
  ] as const)("of %s mi where the ledger says 14 to 18 is %s", (guess, says) =>
    expect(against(guess)!.says).toBe(says),
  );
  test("is brought to where the rider is", () => expect(against(28, 13)!.leftM).toBeCloseTo(mi(25), 6));
  test("is left out when none was noted, or it was struck", () => {
    expect(againstGuess([], () => 0, 0, LEFT)).toBeNull();
    expect(againstGuess([entry(mi(9), true)], () => 0, 0, LEFT)).toBeNull();
  });
  test("is said in words", () =>
    expect(renderUnits(against(28)!.sentence, "imperial")).toBe(
      "The display says 28 mi left; the ledger says 14 mi to 18 mi. Go by the ledger.",
    ));
});
