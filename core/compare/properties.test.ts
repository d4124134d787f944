import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { bridgeTo, standings, underReference, untraced, type Compared } from "#core/compare";
import { GROUNDS } from "#core/log";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/quantities";
import { bikeSchema, riderSchema, setUpSchema, testSchema } from "#core/records";
import { REFERENCES, type Reference } from "#core/roadload";

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
    bikeKg: 26,
    fitted: null,
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
const reference = fc.constantFrom(...REFERENCES);
const settings = { numRuns: 60 };

describe("whatever was ridden", () => {
  test("a bridge's bars sum from the measured figure to the answer", () =>
    fc.assert(
      fc.property(told, reference, (each, to) => {
        const found = bridgeTo(compared(each), to);
        if (!found.ok) return;
        const { measured, bars, under } = found.value;
        const sum = bars.reduce((whole, { whPerM }) => whole + whPerM.mean, measured.mean);
        expect(sum / under.whPerM.mean).toBeCloseTo(1, 9);
      }),
      { numRuns: 25 },
    ));
  test("twice the energy measured is twice the answer, as sure", () =>
    fc.assert(
      fc.property(told, reference, (each, to) => {
        const [once, twice] = [each, { ...each, whPerMi: 2 * each.whPerMi }].map((one) =>
          underReference(compared(one), to),
        );
        if (!once!.ok || !twice!.ok) return;
        const [a, b] = [once!.value.whPerM, twice!.value.whPerM];
        expect(b.mean / a.mean).toBeCloseTo(2, 9);
        expect(b.sd / b.mean).toBeCloseTo(a.sd / a.mean, 9);
      }),
      settings,
    ));
  test("two tests of one bike under one reference share its errors: their difference is surer than apart", () =>
    fc.assert(
      fc.property(told, told, reference, (one, other, to) => {
        const [a, b] = [underReference(compared(one, "1"), to), underReference(compared(other, "2"), to)];
        if (!a.ok || !b.ok) return;
        const shared = Object.keys(a.value.traced.effects).filter((key) => key in b.value.traced.effects);
        expect(shared).toEqual(
          expect.arrayContaining([
            "capacity:pack of b",
            "rolling resistance:b/city/upright",
            "drag:b/city/upright",
          ]),
        );
        expect(shared.some((key) => /^(measured|rider|wind|speed)/.test(key))).toBe(false);
      }),
      settings,
    ));
  test("bikes apart share nothing", () =>
    fc.assert(
      fc.property(told, told, reference, (one, other, to) => {
        const [a, b] = [
          underReference(compared(one, "1", "x"), to),
          underReference(compared(other, "2", "y"), to),
        ];
        if (!a.ok || !b.ok) return;
        expect(Object.keys(a.value.traced.effects).filter((key) => key in b.value.traced.effects)).toEqual(
          [],
        );
      }),
      settings,
    ));
  test("the reference's unit of speed changes nothing: the verdict is of the conditions", () =>
    fc.assert(
      fc.property(told, told, (one, other) => {
        const house = REFERENCES[0]!;
        const metric: Reference = {
          ...house,
          conditions: { ...house.conditions, speedMps: (15 * 1.609344) / 3.6 },
        };
        const order = (to: Reference) =>
          standings(
            [one, other].flatMap((each, i) => {
              const found = underReference(compared(each, String(i), String(i)), to);
              return found.ok ? [{ id: String(i), figure: found.value.traced }] : [];
            }),
          ).places.map(({ row }) => row.id);
        expect(order(metric)).toEqual(order(house));
      }),
      settings,
    ));
  test("a figure's sd is all its sources together", () =>
    fc.assert(
      fc.property(told, reference, (each, to) => {
        const found = underReference(compared(each), to);
        if (!found.ok) return;
        const { traced, whPerM, sources } = found.value;
        expect(untraced(traced)).toEqual(whPerM);
        expect(sources.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1, 9);
      }),
      settings,
    ));
});
