import { describe, expect, test } from "@jest/globals";
import { bridgeTo, drawerUnder, onceWeighed, spreadOf, underReference, type Compared } from "#core/compare";
import type { RiddenTest } from "#core/plan";
import { chanceFrom } from "#core/standin";
import { METRES_PER_MILE, MPS_PER_MPH, spoken } from "#core/quantities";
import { bikeSchema, riderSchema, setUpSchema, testSchema } from "#core/records";
import { conditionsFor, courseEnergy, REFERENCES, type Reference } from "#core/roadload";

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
  const of = { value: { mean: 15 / METRES_PER_MILE, sd: sd / METRES_PER_MILE }, because: "", pencil: false };
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
  return { id: "t1", bikeId: "b1", packId: "p1", ridden: test, bikeKg: 26, fitted: null };
}
const under = (told: Told = {}, reference = house) => {
  const found = underReference(ridden(told), reference);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
};
function bridge(told: Told = {}, reference = house) {
  const found = bridgeTo(ridden(told), reference);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
}
const wh = (told: Told = {}, reference = house) => under(told, reference).whPerM.mean * METRES_PER_MILE;

describe("a test brought to a reference", () => {
  test("a ride harder than the reference comes out thriftier, an easier one hungrier", () => {
    expect(wh({ mph: 18 })).toBeLessThan(wh({ mph: 15 }));
    expect(wh({ ground: "loose gravel" })).toBeLessThan(wh());
    expect(wh({ climbM: 1500 })).toBeLessThan(wh());
    expect(wh({ airTempC: -5 })).toBeLessThan(wh());
    expect(wh({ riderKg: 110 })).toBeLessThan(wh({ riderKg: 60 }));
  });
  test("goes by the road load between two references", () => {
    const ratio = courseEnergy(conditionsFor(hill, 26)) / courseEnergy(conditionsFor(house, 26));
    expect(wh({}, hill) / wh({}, house)).toBeCloseTo(ratio, 1);
    expect(wh({}, freezing)).toBeGreaterThan(wh({}, house));
  });
  test("keeps the measured figure's own scale", () => {
    const { lambda, whPerM } = under();
    expect(lambda).toBeGreaterThan(0.5);
    expect(whPerM.mean / lambda).toBeCloseTo(courseEnergy(conditionsFor(house, 26)) / METRES_PER_MILE, 3);
  });
  test("is never surer than the measurement brought over, and less sure where speed or climb was not measured", () => {
    const share = ({ whPerM }: { whPerM: { mean: number; sd: number } }) => whPerM.sd / whPerM.mean;
    expect(share(under())).toBeGreaterThan(0.4 / 15);
    expect(share(under({ climbM: null }))).toBeGreaterThan(share(under()));
    expect(share(under({ mph: null }))).toBeGreaterThan(share(under()));
    expect(share(under({ sd: 1.2 }))).toBeGreaterThan(share(under()));
  });
  test("its bridge sums from the measured figure to the answer", () => {
    for (const told of [
      {},
      { mph: 18, ground: "brick" },
      { climbM: null, airTempC: -5 },
      { riderKg: 110, climbM: 900 },
    ])
      for (const reference of REFERENCES.filter(({ name }) => name !== "Throttle flat")) {
        const { bars, measured, under: answer } = bridge(told, reference);
        const sum = bars.reduce((total, bar) => total + bar.whPerM.mean, 0);
        expect(sum).toBeCloseTo(answer.whPerM.mean - measured.mean, 10);
      }
  });
  test("its bars go the way they should", () => {
    const bar = (told: Told, factor: string) =>
      bridge(told).bars.find((each) => each.factor === factor)?.whPerM.mean ?? 0;
    expect(bar({ mph: 18 }, "speed")).toBeLessThan(0);
    expect(bar({ ground: "grass" }, "ground")).toBeLessThan(0);
    expect(bar({ airTempC: -5 }, "air")).toBeLessThan(0);
    expect(bar({ riderKg: 60 }, "mass")).toBeGreaterThan(0);
    expect(bar({}, "ground")).toBe(0);
  });
  test("names what its doubt is made of; shares sum to one", () => {
    const { sources } = under({ climbM: null });
    expect(sources.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
    expect(sources.map(({ name }) => name)).toEqual(expect.arrayContaining(["measured", "rider", "climb"]));
    expect(under().sources.some(({ name }) => name === "climb")).toBe(false);
  });
  test("names what lies beyond the ride, though two such things may cancel", () => {
    expect(under({ mph: 10, ground: "grass" }).beyond).toEqual(expect.arrayContaining(["speed", "ground"]));
    expect(under().beyond).toEqual([]);
  });
  test("on the throttle the reference's rider does nothing either", () =>
    expect(wh({ drive: "throttle" }, flat)).toBeGreaterThan(wh({ drive: "throttle" }, house)));
  test("a motor that rests below the reference's speed is refused, with both speeds", () => {
    const found = underReference(ridden({ assistMph: 15.5, mph: 14 }), flat);
    expect(found.ok).toBe(false);
    if (!found.ok)
      expect(spoken(found.problems[0]!.sentence, "imperial")).toBe(
        "The motor rests above 15.5 mph: it does not hold the reference's 20.0 mph.",
      );
  });
  test("a test without parts is refused", () => {
    const bare = ridden();
    const empty = { ...bare.ridden, results: { ...bare.ridden.results, parts: [] } };
    expect(underReference({ ...bare, ridden: empty }, house)).toMatchObject({
      problems: [{ code: "no-parts" }],
    });
  });
  test("a motor too weak for the reference is refused, with the speed it reaches", () => {
    const found = underReference(ridden({ drive: "throttle", motorW: 120 }), flat);
    expect(found.ok ? "" : spoken(found.problems[0]!.sentence, "imperial")).toMatch(
      /^The motor of 120 W reaches 1[0-5]\.\d mph: it does not hold the reference's 20\.0 mph\.$/,
    );
  });
  test("miles ridden faster than the motor helps do not count as frugal", () => {
    const assisted = wh({ assistMph: 20 });
    const outrun = wh({ assistMph: 20, unassistedShare: 0.4 });
    expect(outrun).toBeGreaterThan(1.5 * assisted);
    const speed = bridge({ assistMph: 20, unassistedShare: 0.4 }).bars.find(
      ({ factor }) => factor === "speed",
    )!;
    expect(speed.whPerM.mean).toBeGreaterThan(0);
    expect(speed.sentence).toContain("the motor outrun on 40 % of the way");
  });
  test("under its own conditions it stays what it was measured", () => {
    const own: Reference = {
      name: "own",
      version: 1,
      carriedKg: 70,
      conditions: {
        speedMps: 15 * MPS_PER_MPH,
        ground: "asphalt",
        gainMPerMi: 10,
        stopsPerMi: 3,
        tempC: 20,
        altitudeM: 0,
        lightsOn: false,
        headwindMps: 0,
        riderW: 100,
      },
    };
    const test = { windMps: 0, effort: "steady", stops: 60, altitudeM: 0 };
    expect(wh({ test }, own)).toBeCloseTo(15, 9);
    expect(bridge({ test }, own).bars).toEqual([]);
  });
  test("what the rider put in, the wind and the stops are taken from the test", () => {
    expect(wh({ test: { riderW: 150 } })).toBeGreaterThan(wh({ test: { riderW: 50 } }));
    expect(wh({ test: { effort: "hard" } })).toBeGreaterThan(wh({ test: { effort: "feather-light" } }));
    expect(wh({ test: { windMps: 6 } })).toBeLessThan(wh({ test: { windMps: 0 } }));
    expect(wh({ test: { stops: 100 } })).toBeLessThan(wh({ test: { stops: 0 } }));
    expect(wh({ test: { altitudeM: 2500 } })).toBeGreaterThan(wh({ test: { altitudeM: 0 } }));
  });
  test("each bar has its own doubt and says from what to what", () => {
    const { bars } = bridge({ mph: 18, test: { windMps: 5 } });
    expect(bars.every(({ whPerM }) => whPerM.sd > 0)).toBe(true);
    const wind = bars.find(({ factor }) => factor === "wind")!;
    expect(spoken(wind.sentence, "metric")).toBe("18 km/h of wind on the test; no wind under House.");
    const calm = bridge({ mph: 18, test: { windMps: 1 } }).bars.find(({ factor }) => factor === "wind")!;
    expect(wind.whPerM.sd).toBeGreaterThan(calm.whPerM.sd);
  });
  test("the pack's share of the doubt has the pack's name", () => {
    const { traced } = under({ capacityFall: 0.09 });
    expect(traced.effects["capacity:p1"]! / traced.mean).toBeCloseTo(0.3 / 15, 9);
    expect(
      Math.hypot(traced.effects["capacity:p1"]!, traced.effects["measured:t1"]!) / traced.mean,
    ).toBeCloseTo(0.4 / 15, 9);
  });
  test("weighing the bike is worth what it says", () => {
    const { whPerM } = under({ weighed: false });
    const sure = onceWeighed(ridden({ weighed: false }), house)!;
    expect(sure.mean).toBeCloseTo(whPerM.mean, 12);
    expect(sure.sd).toBeLessThan(whPerM.sd);
    expect(onceWeighed(ridden(), house)).toBeNull();
  });
  test("draws of every unknown spread as the sd says", () => {
    const chance = chanceFrom(5);
    for (const [told, off] of [
      [{}, 0.03],
      // A climb nobody measured cannot be less than none: the draws lean to one side.
      [{ climbM: null, mph: 12 }, 0.12],
    ] as const) {
      const draw = drawerUnder(ridden(told), house, () => chance.normal());
      if (!draw.ok) throw new Error("drawn");
      const spread = spreadOf(Array.from({ length: 4000 }, draw.value));
      const { whPerM } = under(told);
      expect(spread.sd / whPerM.sd).toBeGreaterThan(0.9);
      expect(spread.sd / whPerM.sd).toBeLessThan(1.25);
      expect(Math.abs(spread.mean / whPerM.mean - 1)).toBeLessThan(off);
    }
  });
  test("a part is brought by its own figure, and refused where it was not ridden or not told apart", () => {
    const whole = ridden();
    const results = {
      ...whole.ridden.results,
      parts: [
        {
          level: "low",
          ground: "brick" as const,
          distanceM: mi(8),
          whPerM: { mean: 10 / 1609, sd: 1 / 1609 },
        },
        { level: "high", ground: "brick" as const, distanceM: mi(12), whPerM: null },
      ],
    };
    const split = { ...whole, ridden: { ...whole.ridden, results } };
    const of = (level: string) => underReference(split, house, (each) => each === level);
    const low = of("low");
    expect(low.ok && low.value.traced.effects["measured:t1"]! / low.value.traced.mean).toBeCloseTo(0.1, 2);
    expect(of("high")).toMatchObject({ problems: [{ code: "not-told-apart" }] });
    expect(of("turbo")).toMatchObject({ problems: [{ code: "not-ridden" }] });
  });
});
