import { describe, expect, test } from "@jest/globals";
import {
  bridgeTo,
  broughtTo,
  deskDayOf,
  differenceOf,
  drawableOf,
  drawerUnder,
  leftOver,
  spreadOf,
  subjectOf,
  normaliseTo,
  combine,
  whatWouldSettle,
  worthOf,
  type Compared,
  type RiddenTest,
} from "#core/compare";
import { dayOfReported, deskPosterior, type DeskDay } from "#core/desk";
import { rngFrom } from "#core/world";
import { METRES_PER_MILE, MPS_PER_MPH, renderUnits } from "#core/base";
import { bikeSchema, riderSchema, setUpSchema, testSchema } from "#core/records";
import { REFERENCES, type Reference } from "#core/bike";

const [house, flat, hill, freezing] = REFERENCES as [Reference, Reference, Reference, Reference];
const mi = (miles: number) => miles * METRES_PER_MILE;

interface Told {
  readonly mph?: number | null;
  readonly climbM?: number | null;
  readonly ground?: string;
  readonly riderKg?: number;
  readonly airTempC?: number;
  readonly drive?: "pedal" | "throttle";
  readonly assistMph?: number;
  readonly sd?: number;
  readonly unassistedShare?: number;
  readonly weighed?: boolean;
  readonly motorW?: number;
  readonly capacityFall?: number;
  readonly test?: object;
  readonly id?: string;
  readonly bikeId?: string;
  readonly riderId?: string;
  readonly whPerMi?: number;
}

/** A test of 20 miles at 15 Wh/mi. */
function ridden({
  mph = 15,
  climbM = mi(20) * (10 / 1609.344),
  ground = "asphalt",
  sd = 0.4,
  ...told
}: Told = {}): Compared {
  const bike = bikeSchema.parse({
    name: "Reed",
    levels: ["low", "high"],
    ...(told.weighed !== false && { massKg: 26 }),
    ...(told.motorW !== undefined && { motorW: told.motorW }),
    throttle: true,
    ...(told.assistMph !== undefined && { assistToMps: told.assistMph * MPS_PER_MPH }),
  });
  const of = {
    value: { mean: (told.whPerMi ?? 15) / METRES_PER_MILE, sd: sd / METRES_PER_MILE },
    because: "",
    pencil: false,
  };
  const test = {
    bike,
    setUp: setUpSchema.parse({ name: "plain" }),
    rider: riderSchema.parse({ name: "Maren", massKg: told.riderKg ?? 70 }),
    test: testSchema.parse({
      title: "t",
      day: "2026-10-18",
      drive: told.drive ?? "pedal",
      airTempC: told.airTempC ?? 20,
      ...told.test,
    }),
    results: {
      best: of,
      parts: [{ level: told.drive === "throttle" ? "throttle" : "high", ground, distanceM: mi(20) }],
      meanSpeedMps: mph === null ? null : mph * MPS_PER_MPH,
      climbM,
      slopes: null,
      distance: of,
      noted: {
        stops: null,
        bpm: null,
        windMps: null,
        unassistedShare: told.unassistedShare ?? null,
        clockSpeedMps: null,
        levelSpeedMps: {},
        climbM: null,
        guesses: [],
      },
      budget:
        told.capacityFall === undefined
          ? []
          : [{ source: "capacity", variance: told.capacityFall / METRES_PER_MILE ** 2 }],
    },
  } as unknown as RiddenTest;
  return {
    id: told.id ?? "t1",
    bikeId: told.bikeId ?? "b1",
    riderId: told.riderId ?? "r1",
    packId: "p1",
    ridden: test,
  };
}
const deskOf = (...tests: readonly Compared[]) =>
  deskPosterior(tests.flatMap((each) => deskDayOf(each) ?? []));
const under = (told: Told = {}, reference = house, others: readonly Told[] = []) => {
  const one = ridden(told);
  const found = normaliseTo(deskOf(one, ...others.map(ridden)), one, reference);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
};
function bridge(told: Told = {}, reference = house) {
  const one = ridden(told);
  const found = bridgeTo(deskOf(one), one, reference);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
}
const wh = (told: Told = {}, reference = house) => under(told, reference).whPerM.mean * METRES_PER_MILE;

describe("a bike brought to a reference", () => {
  test("a ride harder than the reference comes out thriftier, an easier one hungrier", () => {
    expect(wh({ mph: 18 })).toBeLessThan(wh({ mph: 15 }));
    expect(wh({ ground: "loose gravel" })).toBeLessThan(wh());
    expect(wh({ climbM: 1500 })).toBeLessThan(wh());
    expect(wh({ airTempC: -5 })).toBeLessThan(wh());
    expect(wh({ riderKg: 110 })).toBeLessThan(wh({ riderKg: 60 }));
  });
  test("a day that took three times what it should moves the bike by a part of that, not by three", () => {
    const usual = wh();
    const strange = wh({ whPerMi: 45 });
    expect(strange).toBeGreaterThan(usual);
    expect(strange).toBeLessThan(1.6 * usual);
    expect(bridge({ whPerMi: 45 }).lambda).toBeGreaterThan(2.5);
    expect(bridge({ whPerMi: 45 }).because).toMatch(/times what the road load expects.*Most likely: /);
  });
  test("what was not measured leaves it less sure", () => {
    const share = (told: Told) => under(told).whPerM.sd / under(told).whPerM.mean;
    expect(share({ climbM: null })).toBeGreaterThan(share({}));
    expect(share({ mph: null })).toBeGreaterThan(share({}));
    expect(share({ sd: 2 })).toBeGreaterThan(share({}));
  });
  test("further tests of the bike make it surer, and a rider known from another bike does too", () => {
    const effort = { test: { effort: "steady" } };
    const sd = (others: readonly Told[]) => under(effort, house, others).whPerM.sd;
    const again: Told = { ...effort, id: "t2", mph: 14 };
    const elsewhere = Array.from({ length: 6 }, (_, i): Told => ({
      ...effort,
      id: `o${i}`,
      bikeId: "b2",
      mph: 12 + i,
    }));
    expect(sd([again])).toBeLessThan(sd([]));
    expect(sd(elsewhere)).toBeLessThan(sd([]));
  });
  test("bikes ridden by one person share what an effort means: their difference is surer than apart", () => {
    const effort = { test: { effort: "steady" } };
    const [a, b] = [ridden({ ...effort, id: "1", bikeId: "x" }), ridden({ ...effort, id: "2", bikeId: "y" })];
    const desk = deskOf(a, b);
    const [one, other] = [a, b].map((each) => {
      const found = normaliseTo(desk, each, house);
      return found.ok ? found.value.traced : null;
    });
    const apart = Math.hypot(combine(one!).sd, combine(other!).sd);
    expect(combine(differenceOf(one!, other!)).sd).toBeLessThan(0.95 * apart);
  });
  test("its bridge sums from the measured figure to the answer, this day's own first", () => {
    for (const told of [
      {},
      { mph: 18, ground: "brick" },
      { climbM: null, airTempC: -5 },
      { riderKg: 110, climbM: 900 },
    ])
      for (const reference of [house, hill, freezing]) {
        const { bars, measured, under: answer } = bridge(told, reference);
        expect(bars[0]!.factor).toBe("day");
        const sum = bars.reduce((total, bar) => total + bar.whPerM.mean, 0);
        expect(sum).toBeCloseTo(answer.whPerM.mean - measured.mean, 10);
      }
  });
  test("its bars go the way they should, each with its own doubt", () => {
    const bar = (told: Told, factor: string) =>
      bridge(told).bars.find((each) => each.factor === factor)?.whPerM.mean ?? 0;
    expect(bar({ mph: 18 }, "speed")).toBeLessThan(0);
    expect(bar({ ground: "grass" }, "ground")).toBeLessThan(0);
    expect(bar({ airTempC: -5 }, "air")).toBeLessThan(0);
    expect(bar({ riderKg: 60 }, "mass")).toBeGreaterThan(0);
    expect(bar({}, "ground")).toBe(0);
    const { bars } = bridge({ mph: 18, test: { windMps: 5 } });
    expect(bars.every(({ whPerM }) => whPerM.sd > 0)).toBe(true);
    const wind = bars.find(({ factor }) => factor === "wind")!;
    expect(renderUnits(wind.sentence, "metric")).toBe("18 km/h of wind on the test; no wind under House.");
    const guessed = bridge({}).bars.find(({ factor }) => factor === "wind")!;
    expect(renderUnits(guessed.sentence, "imperial")).toMatch(
      /^\d+ mph of wind \(assumed\) on the test; no wind/,
    );
    const { assumed } = bridge({});
    expect(assumed.map((each) => renderUnits(each, "imperial"))).toContain("1.0 stops a mile");
  });
  test("names what its doubt is made of; shares sum to one", () => {
    const { sources } = under({ climbM: null });
    expect(sources.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    expect(sources.map(({ name }) => name)).toEqual(expect.arrayContaining(["drag", "rolling resistance"]));
  });
  test("on the throttle the reference's rider does nothing either", () =>
    expect(wh({ drive: "throttle" }, flat)).toBeGreaterThan(wh({ drive: "throttle" }, house)));
  test("a motor too weak for the reference is brought to the speed it holds, and says which", () => {
    const { heldMps, whPerM } = under({ drive: "throttle", motorW: 120 }, flat);
    expect(heldMps! / MPS_PER_MPH).toBeGreaterThan(10);
    expect(heldMps! / MPS_PER_MPH).toBeLessThan(16);
    expect(whPerM.mean).toBeLessThan(under({ drive: "throttle" }, flat).whPerM.mean);
  });
  test("one that holds it on the level and not up the hills is said so too", () => {
    const { heldMps, heldUphill } = under({ drive: "throttle", motorW: 250 }, house);
    expect(heldUphill).toBe(true);
    expect(heldMps!).toBeLessThan(house.conditions.speedMps);
    expect(under({ drive: "throttle", motorW: 750 }, house)).toMatchObject({
      heldMps: null,
      heldUphill: false,
    });
  });
  test("a bike of which no test has a part is refused, with why", () => {
    const bare = ridden();
    const empty = { ...bare, ridden: { ...bare.ridden, results: { ...bare.ridden.results, parts: [] } } };
    expect(normaliseTo(deskOf(empty), empty, house)).toMatchObject({ problems: [{ code: "no-reading" }] });
  });
  test("miles ridden faster than the motor helps do not count as frugal", () => {
    const assisted = wh({ assistMph: 20 });
    const outrun = wh({ assistMph: 20, unassistedShare: 0.4 });
    expect(outrun).toBeGreaterThan(1.05 * assisted);
    const speed = bridge({ assistMph: 20, unassistedShare: 0.4 }).bars.find(
      ({ factor }) => factor === "speed",
    )!;
    expect(speed.whPerM.mean).toBeGreaterThan(0);
    expect(speed.sentence).toContain("the motor outrun on 40 % of the way");
  });
  test("what the rider put in, the wind and the stops are taken from the test", () => {
    expect(wh({ test: { riderW: 120 } })).toBeGreaterThan(wh({ test: { riderW: 50 } }));
    expect(wh({ test: { effort: "hard" } })).toBeGreaterThan(wh({ test: { effort: "feather-light" } }));
    expect(wh({ test: { windMps: 6 } })).toBeLessThan(wh({ test: { windMps: 0 } }));
    expect(wh({ test: { stops: 100 } })).toBeLessThan(wh({ test: { stops: 0 } }));
    expect(wh({ test: { altitudeM: 2500 } })).toBeGreaterThan(wh({ test: { altitudeM: 0 } }));
  });
  test("draws of every unknown spread as the sd says", () => {
    const chance = rngFrom(5);
    for (const told of [{}, { climbM: null, mph: 12 }]) {
      const one = ridden(told);
      const draw = drawerUnder(drawableOf(deskOf(one), subjectOf(one), house), () => chance.normal());
      const spread = spreadOf(Array.from({ length: 4000 }, draw));
      const { whPerM } = under(told);
      expect(spread.sd / whPerM.sd).toBeGreaterThan(0.9);
      expect(spread.sd / whPerM.sd).toBeLessThan(1.25);
      expect(Math.abs(spread.mean / whPerM.mean - 1)).toBeLessThan(0.05);
    }
  });
  test("a reading that nothing explains is widened, and named by its residual", () => {
    const others = Array.from({ length: 5 }, (_, i): Told => ({ id: `t${i + 2}`, mph: 14 + i * 0.3 }));
    const desk = deskOf(ridden({ whPerMi: 60, sd: 0.2 }), ...others.map(ridden));
    const odd = desk.days.find(({ day }) => day.id === "t1")!;
    expect(odd.widened).toBeGreaterThan(1);
    const own = bridgeTo(desk, ridden({ whPerMi: 60, sd: 0.2 }), house);
    expect(own.ok && own.value.odd).toMatch(
      /^Nothing on the desk explains this test: .* \d\.\d times less sure\.$/,
    );
    expect(bridge().odd).toBeNull();
    expect(desk.days.filter(({ day }) => day.id !== "t1").every(({ widened }) => widened === 1)).toBe(true);
  });
});

test("what others published of a bike says something without a test, and little beside one", () => {
  const { bike } = ridden().ridden;
  const reported = {
    by: "Quay notes",
    drive: "pedal",
    of: "range",
    distanceM: mi(18),
    energyWh: 460,
  } as const;
  const day = dayOfReported("r", "b1", bike, reported)!;
  const own = deskDayOf(ridden())!;
  const of = (...days: readonly DeskDay[]) =>
    broughtTo(deskPosterior(days), { bikeId: "b1", bike, setUp: null, drive: "pedal" }, house).whPerM;
  const [nothing, told, measured, both] = [of(), of(day), of(own), of(own, day)];
  expect(told.mean).toBeGreaterThan(nothing.mean);
  expect(told.sd / told.mean / (nothing.sd / nothing.mean)).toBeCloseTo(1, 1);
  expect(Math.abs(both.mean / measured.mean - 1)).toBeLessThan(Math.abs(told.mean / nothing.mean - 1));
});

describe("what would settle it", () => {
  const settles = (told: Told) => {
    const one = ridden(told);
    const desk = deskOf(one);
    const found = normaliseTo(desk, one, house);
    if (!found.ok) throw new Error(found.problems[0]!.sentence);
    return { now: found.value.whPerM.sd, all: whatWouldSettle(desk, found.value.traced, [one]) };
  };
  test("names only what is not known yet, the most for a minute first, and never makes it less sure", () => {
    const { now, all } = settles({ mph: null, climbM: null });
    expect(all.some(({ what }) => what.includes("riding time"))).toBe(true);
    for (const { sdLeft } of all) expect(sdLeft).toBeLessThan(now);
    const gains = all.map(({ gainPerMinute }) => gainPerMinute);
    expect(gains).toEqual([...gains].sort((a, b) => b - a));
    expect(settles({}).all.some(({ what }) => what.includes("riding time"))).toBe(false);
  });
  test("gives what solving the desk anew with it gives", () => {
    const told: Told = { mph: null, sd: 0.6, test: { effort: "easy", stops: 20, windMps: 1 } };
    const { all } = settles(told);
    const { sdLeft } = all.find(({ what }) => what === "ride it once more")!;
    const again = under(told, house, [{ ...told, id: "t2" }]);
    // The desk learns its spreads anew, which moves every sd a little.
    expect(sdLeft / again.whPerM.sd).toBeGreaterThan(0.9);
    expect(sdLeft / again.whPerM.sd).toBeLessThan(1.1);
  });
});

describe("what else differed between two tests", () => {
  const worths = (a: Told, b: Told) => {
    const [one, other] = [ridden({ ...a, id: "a" }), ridden({ ...b, id: "b" })];
    return worthOf(deskOf(one, other), one, other);
  };
  const of = (all: ReturnType<typeof worths>, factor: string) => all.find((each) => each.factor === factor);
  test("each has its worth by the road load, those alike are not named", () => {
    const all = worths({ riderKg: 60 }, { riderKg: 86, mph: 17 });
    expect(all.map(({ factor }) => factor).sort()).toEqual(["mass", "speed"]);
    expect(of(all, "mass")!.whPerM.mean).toBeGreaterThan(0);
    expect(of(all, "speed")!.whPerM.mean).toBeGreaterThan(of(all, "mass")!.whPerM.mean);
    expect(of(all, "mass")!.whPerM.sd).toBeGreaterThan(0);
    expect(renderUnits(of(all, "mass")!.sentence, "metric")).toBe("86 kg in all against 112 kg in all");
  });
  test("turned round they are the other way", () => {
    const [there, back] = [worths({ mph: 14 }, { mph: 17 }), worths({ mph: 17 }, { mph: 14 })];
    expect(of(there, "speed")!.whPerM.mean).toBeCloseTo(-of(back, "speed")!.whPerM.mean, 3);
  });
  test("what they explain comes off the difference, and makes it less sure", () => {
    const all = worths({}, { mph: 17 });
    const faster = of(all, "speed")!.whPerM;
    const left = leftOver({ mean: -faster.mean, sd: 0.001 }, all);
    expect(left.mean).toBeCloseTo(0, 12);
    expect(left.sd).toBeGreaterThan(0.001);
    expect(leftOver({ mean: 1, sd: 0.1 }, worths({}, {}))).toEqual({ mean: 1, sd: 0.1 });
  });
});
