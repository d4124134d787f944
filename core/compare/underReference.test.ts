import { describe, expect, test } from "@jest/globals";
import { bridgeTo, underReference } from "#core/compare";
import type { RiddenTest } from "#core/plan";
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
}

/** A test of 20 miles at 15 Wh/mi. */
function ridden({
  mph = 15,
  climbM = mi(20) * (10 / 1609.344),
  ground = "asphalt",
  sd = 0.4,
  ...told
}: Told = {}) {
  const bike = bikeSchema.parse({
    name: "Reed",
    levels: ["low", "high"],
    massKg: 26,
    throttle: true,
    ...(told.assistMph !== undefined && { assistToMps: told.assistMph * MPS_PER_MPH }),
  });
  const of = { value: { mean: 15 / METRES_PER_MILE, sd: sd / METRES_PER_MILE }, because: "", pencil: false };
  return {
    bike,
    setUp: setUpSchema.parse({ name: "plain" }),
    rider: riderSchema.parse({ name: "Maren", massKg: told.riderKg ?? 70 }),
    test: testSchema.parse({
      title: "t",
      day: "2026-10-18",
      drive: told.drive ?? "pedal",
      airTempC: told.airTempC ?? 20,
    }),
    results: {
      best: of,
      parts: [{ level: told.drive === "throttle" ? "throttle" : "high", ground, distanceM: mi(20) }],
      meanSpeedMps: mph === null ? null : mph * MPS_PER_MPH,
      climbM,
      distance: of,
    },
  } as unknown as RiddenTest;
}
const under = (told: Told = {}, reference = house) => {
  const found = underReference(ridden(told), 26, reference);
  if (!found.ok) throw new Error(found.problems[0]!.sentence);
  return found.value;
};
function bridge(told: Told = {}, reference = house) {
  const found = bridgeTo(ridden(told), 26, reference);
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
        const sum = bars.reduce((total, bar) => total + bar.whPerM, 0);
        expect(sum).toBeCloseTo(answer.whPerM.mean - measured.mean, 10);
      }
  });
  test("its bars go the way they should", () => {
    const bar = (told: Told, factor: string) =>
      bridge(told).bars.find((each) => each.factor === factor)?.whPerM ?? 0;
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
    const found = underReference(ridden({ assistMph: 15.5, mph: 14 }), 26, flat);
    expect(found.ok).toBe(false);
    if (!found.ok)
      expect(spoken(found.problems[0]!.sentence, "imperial")).toBe(
        "The motor rests above 15.5 mph: it does not hold the reference's 20.0 mph.",
      );
  });
  test("a test without parts is refused", () => {
    const bare = ridden();
    expect(underReference({ ...bare, results: { ...bare.results, parts: [] } }, 26, house)).toMatchObject({
      problems: [{ code: "no-parts" }],
    });
  });
});
