import { describe, expect, test } from "@jest/globals";
import { courseSchema, buildRoute, type Course } from "#core/route";
import { forecastRide, PRIOR, wayHome } from "#core/forecast";
import { arrivalOf, liveTurn, paceOf, readTurnRule, watchTurnRule, wayLeftOnPlan } from "#core/live";
import { wayLeft, type RideSoFar } from "#core/analysis/projection";
import { METRES_PER_MILE, MPS_PER_MPH, renderUnits } from "#core/base";

const mi = (miles: number) => miles * METRES_PER_MILE;
const FLAT_THEN_HILL = [{ distanceM: mi(10) }, { distanceM: mi(10), gainM: 500 }];
const courseOf = (rest: object): Course =>
  courseSchema.parse({ name: "c", shape: "one way", fetchedBy: "the ferry", legs: FLAT_THEN_HILL, ...rest });
const forecastOf = (course: Course, labelWh = 500) => {
  const made = forecastRide({
    way: buildRoute(course),
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
    pack: { chemistry: "NMC", labelWh, seriesCells: 13 },
    display: { percentStep: 1, counts: "charge", bars: 0, meterStepV: 0 },
    startPercent: 100,
    reserve: 0.2,
  });
  if (!made.ok) throw new Error("a forecast is expected");
  return made.value;
};
const oneWay = forecastOf(courseOf({}));
const so = (miles: number, used: number): RideSoFar => ({
  distance: { mean: mi(miles), sd: 0 },
  used: { mean: used, sd: 0.01 },
  spent: { mean: used, sd: 0.01 },
  covariance: 1e-4,
  scatter: 0.25,
});
const planned = (miles: number) => oneWay.at(mi(miles)).used.mean;
const TO_END = { mean: 1, sd: 0.015 };

describe("home on a one-way course", () => {
  test("is its end or its start, whichever takes less", () => {
    expect(wayHome(oneWay, mi(3))).toMatchObject({ by: "back" });
    expect(wayHome(oneWay, mi(18))).toMatchObject({ by: "end", distanceM: expect.closeTo(mi(2), 3) });
    expect(wayHome(oneWay, mi(20))).toMatchObject({ by: "end", distanceM: expect.closeTo(0, 3) });
  });
  test("is told by its name, and at the end one is there", () => {
    const at = (miles: number, used: number) =>
      renderUnits(liveTurn(oneWay, mi(miles), { mean: used, sd: 0.01 }).sentence, "imperial");
    expect(at(19, 0.5)).toBe("The end of the course is 1.0 mi from here, and sure with the reserve.");
    expect(at(2, 0.1)).toContain("The start is 2.0 mi from here");
    expect(at(20, 0.6)).toBe("You are at the end of the course, with the reserve.");
    expect(at(18.5, 0.97)).toContain("on to the end of the course");
  });
});

describe("the pace of a ride against its plan", () => {
  test("is one where it goes as planned, and leans on what was measured the further one is", () => {
    expect(paceOf(oneWay, so(8, planned(8))).mean).toBeCloseTo(1, 6);
    const [near, far] = [paceOf(oneWay, so(2, 1.4 * planned(2))), paceOf(oneWay, so(10, 1.4 * planned(10)))];
    expect(near.mean).toBeGreaterThan(1);
    expect(far.mean).toBeGreaterThan(near.mean);
    expect(far.mean).toBeLessThan(1.4);
    expect(far.sd).toBeLessThan(near.sd);
  });
  test("a thirstier ride turns sooner", () => {
    const states = (pace: number) =>
      liveTurn(oneWay, mi(9), { mean: 0.55, sd: 0.01 }, { mean: pace, sd: 0 }).state;
    const order = ["early", "soon", "now", "late"];
    expect(order.indexOf(states(1.6))).toBeGreaterThanOrEqual(order.indexOf(states(0.7)));
  });
  test("before anything was used it is the plan's", () => expect(paceOf(oneWay, so(0, 0)).mean).toBe(1));
});

describe("the way left on a planned course", () => {
  test("knows of the hill ahead, which the road so far does not", () => {
    const ride = so(9, planned(9));
    const [byPlan, own] = [wayLeftOnPlan(oneWay, ride, TO_END)!, wayLeft(ride, TO_END)!];
    expect(byPlan.mean).toBeLessThan(own.mean);
    expect(byPlan.sd / byPlan.mean).toBeLessThan(own.sd / own.mean);
  });
  test("goes on beyond the course's end at its mean, and is nothing when all is spent", () => {
    const large = forecastOf(courseOf({}), 2000);
    const left = wayLeftOnPlan(large, so(9, large.at(mi(9)).used.mean), TO_END)!;
    expect(left.mean).toBeGreaterThan(mi(11));
    expect(wayLeftOnPlan(oneWay, so(20, 1.02), TO_END)!.mean).toBe(0);
    expect(wayLeftOnPlan(oneWay, so(0, 0), TO_END)).toBeNull();
  });
});

describe("when one is there", () => {
  const plan = { day: "2026-11-25", zone: "+00:00" } as never;
  const NOON = Date.parse("2026-11-25T14:30:00Z");
  test("by the speeds of the plan, against sunset where the course has a place", () => {
    const placed = courseOf({ latitude: 54, longitude: 0 });
    const arrival = arrivalOf({ plan, course: placed }, oneWay, mi(8), NOON)!;
    expect(arrival.atMs).toBeGreaterThan(NOON + 40 * 60_000);
    expect(arrival.sentence).toMatch(/^At the end about \d\d:\d\d, \d+ (h|min).* (before|after) sunset/);
  });
  test("without a place only the time, and at the end nothing", () => {
    expect(arrivalOf({ plan, course: courseOf({}) }, oneWay, mi(8), NOON)).toMatchObject({
      daylightMin: null,
    });
    expect(arrivalOf({ plan, course: courseOf({}) }, oneWay, mi(20), NOON)).toBeNull();
  });
});

describe("a rule of one's own", () => {
  const seen = { distanceM: mi(15.7), percent: 61, bars: 3, restVolts: 38.2 };
  const watched = (text: string, at = seen) => {
    const rule = readTurnRule(text);
    if (!rule) throw new Error(text);
    const { reached, sentence } = watchTurnRule(rule, at);
    return { reached, sentence: renderUnits(sentence, "imperial") };
  };
  test.each([
    ["half", false, "Your rule: turn at 50 %. It shows 61 %."],
    ["mile 18", false, "Your rule: turn at 18.0 mi, 2.3 mi from here."],
    ["15 mi", true, "Your rule: turn at 15.0 mi. You are there."],
    ["at 65 %", true, "Your rule: turn at 65 %. It shows 61 %: turn now."],
    ["37 V at rest", false, "Your rule: turn at 37 V at rest. It shows 38.2 V at rest."],
    ["3 bars", true, "Your rule: turn at 3 bars. It shows 3 bars: turn now."],
  ])("%s", (text, reached, sentence) => expect(watched(text)).toEqual({ reached, sentence }));
  test("is not watched before it was noted, and not read where it says nothing", () => {
    expect(watched("37 V", { ...seen, restVolts: null as never }).sentence).toContain(
      "Note it to have it watched",
    );
    for (const text of ["", "later", "18", "130 %"]) expect(readTurnRule(text)).toBeNull();
  });
});
