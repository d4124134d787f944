import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import {
  bridgeTo,
  deskDayOf,
  standings,
  normaliseTo,
  combine,
  type Compared,
  type Normalised,
} from "#core/compare";
import { deskPosterior } from "#core/desk";
import { GROUNDS } from "#core/fields";
import { METRES_PER_MILE, MPS_PER_MPH, spanOf } from "#core/base";
import { bikeSchema, riderSchema, setUpSchema, testSchema } from "#core/records";
import { REFERENCES, type Reference } from "#core/bike";

/** Any test of any bike, under any reference: what must hold whatever was ridden. */
const told = fc.record({
  whPerMi: fc.double({ min: 5, max: 40, noNaN: true }),
  sdShare: fc.double({ min: 0.005, max: 0.1, noNaN: true }),
  mph: fc.double({ min: 8, max: 19, noNaN: true }),
  climbM: fc.option(fc.double({ min: 0, max: 900, noNaN: true }), { nil: null }),
  ground: fc.constantFrom(...GROUNDS),
  riderW: fc.double({ min: 0, max: 60, noNaN: true }),
  windMps: fc.double({ min: 0, max: 6, noNaN: true }),
  stops: fc.integer({ min: 0, max: 60 }),
  tempC: fc.double({ min: -5, max: 30, noNaN: true }),
  riderKg: fc.double({ min: 50, max: 120, noNaN: true }),
});
type Told = typeof told extends fc.Arbitrary<infer T> ? T : never;

function compared(each: Told, id = "t", bikeId = "b"): Compared {
  const value = { mean: each.whPerMi / METRES_PER_MILE, sd: (each.sdShare * each.whPerMi) / METRES_PER_MILE };
  return {
    id,
    bikeId,
    packId: `pack of ${bikeId}`,
    riderId: "r",
    ridden: {
      bike: bikeSchema.parse({ name: "Reed", levels: ["on"], massKg: 26 }),
      setUp: setUpSchema.parse({ name: "s" }),
      rider: riderSchema.parse({ name: "r", massKg: each.riderKg }),
      test: testSchema.parse({
        title: id,
        day: "2026-10-18",
        airTempC: each.tempC,
        riderW: each.riderW,
        windMps: each.windMps,
        stops: each.stops,
      }),
      results: {
        best: { value },
        parts: [{ level: "on", ground: each.ground, distanceM: 20 * METRES_PER_MILE, whPerM: value }],
        meanSpeedMps: each.mph * MPS_PER_MPH,
        climbM: each.climbM,
        slopes: null,
        distance: { value: { mean: 20 * METRES_PER_MILE, sd: 0 } },
        noted: {
          stops: null,
          bpm: null,
          windMps: null,
          unassistedShare: null,
          clockSpeedMps: null,
          levelSpeedMps: {},
          climbM: null,
          guesses: [],
        },
        budget: [{ source: "capacity", variance: (0.5 * value.sd) ** 2 }],
      } as never,
    },
  };
}
const daysOf = (tests: readonly Compared[]) => tests.flatMap((each) => deskDayOf(each) ?? []);
const deskOf = (...tests: readonly Compared[]) => deskPosterior(daysOf(tests));
/** Every day counts as it says, and bikes scatter as assumed. */
const plainDesk = (tests: readonly Compared[]) =>
  deskPosterior(daysOf(tests), { learnSpreads: false, robust: false });
const brought = (tests: readonly Compared[], to: Reference, desk = deskOf(...tests)) => {
  return tests.map((each) => {
    const found = normaliseTo(desk, each, to);
    if (!found.ok) throw new Error(found.problems[0]!.sentence);
    return found.value;
  });
};
const reference = fc.constantFrom(...REFERENCES);
const settings = { numRuns: 25 };

describe("whatever was ridden", () => {
  test("a bridge's bars sum from the measured figure to the answer", () =>
    fc.assert(
      fc.property(told, reference, (each, to) => {
        const one = compared(each);
        const found = bridgeTo(deskOf(one), one, to);
        if (!found.ok) throw new Error(found.problems[0]!.sentence);
        const { measured, bars, under } = found.value;
        const sum = bars.reduce((whole, { whPerM }) => whole + whPerM.mean, measured.mean);
        expect(sum / under.whPerM.mean).toBeCloseTo(1, 9);
      }),
      { numRuns: 15 },
    ));
  test("a figure is above zero, and so is its whole span", () =>
    fc.assert(
      fc.property(told, reference, (each, to) => {
        const [{ whPerM }] = brought([compared(each)], to) as [Normalised];
        expect(whPerM.mean).toBeGreaterThan(0);
        expect(spanOf(whPerM).low).toBeGreaterThan(0);
        expect(Number.isFinite(spanOf(whPerM).high)).toBe(true);
      }),
      settings,
    ));
  test("more energy measured is more under a reference, where the climb is known", () =>
    fc.assert(
      fc.property(told, fc.double({ min: 0, max: 900, noNaN: true }), reference, (each, climbM, to) => {
        const [less, more] = [each.whPerMi, 1.3 * each.whPerMi].map((whPerMi) => {
          const one = compared({ ...each, climbM, whPerMi });
          return brought([one], to, plainDesk([one]))[0]!.whPerM;
        });
        // Where the motor nearly rested the road load says the same of both; and what hardly any bike uses is put down to the
        // day's wind, whose drag grows with its square, so that the bike's own part may fall a little, well within its doubt.
        const step = (more!.mean - less!.mean) / Math.hypot(more!.sd, less!.sd);
        expect(step).toBeGreaterThan(-0.25);
      }),
      settings,
    ));
  test("two tests of one bike are one figure, and surer than either alone", () =>
    fc.assert(
      fc.property(told, reference, (each, to) => {
        const [one, other] = [compared(each, "1"), compared({ ...each, mph: 0.9 * each.mph }, "2")];
        const [a, b] = brought([one, other], to, plainDesk([one, other]));
        expect(a!.traced).toEqual(b!.traced);
        const alone = brought([one], to, plainDesk([one]))[0]!.whPerM;
        // By its curvature elsewhere a model may be a little less sure of the same.
        expect(a!.whPerM.sd / a!.whPerM.mean).toBeLessThan(1.1 * (alone.sd / alone.mean));
      }),
      settings,
    ));
  test("a figure's sd is all its sources together", () =>
    fc.assert(
      fc.property(told, reference, (each, to) => {
        const [{ traced, whPerM, sources }] = brought([compared(each)], to) as [Normalised];
        expect(combine(traced)).toEqual(whPerM);
        expect(sources.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 6);
      }),
      settings,
    ));
  test("places are those of the same order, whatever the unit of the reference's speed", () =>
    fc.assert(
      fc.property(told, told, (one, other) => {
        const house = REFERENCES[0]!;
        const metric: Reference = {
          ...house,
          conditions: { ...house.conditions, speedMps: (15 * 1.609344) / 3.6 },
        };
        const order = (to: Reference) =>
          standings(
            brought([compared(one, "0", "x"), compared(other, "1", "y")], to).map(({ traced }, i) => ({
              id: String(i),
              figure: traced,
            })),
          ).places.map(({ row }) => row.id);
        expect(order(metric)).toEqual(order(house));
      }),
      { numRuns: 20 },
    ));
});
