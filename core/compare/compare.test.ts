import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import { confounders, pairOf, standings } from "#core/compare";
import { normalCdf } from "#core/quantities";
import { testRecordSchema, type TestRecord } from "#core/records";

describe("standings", () => {
  const row = (id: string, mean: number, sd: number) => ({ id, whPerM: { mean, sd } });
  test("thriftiest first, and the neighbours that could be swapped", () => {
    const { places, swaps } = standings([row("c", 20, 0.1), row("a", 10, 0.5), row("b", 10.4, 0.5)]);
    expect(places.map(({ place, row: { id } }) => [place, id])).toEqual([[1, "a"], [2, "b"], [3, "c"]]); // prettier-ignore
    expect(swaps).toHaveLength(1);
    expect(swaps[0]).toMatchObject({ upper: 1, lower: 2 });
    expect(swaps[0]!.chance).toBeCloseTo(normalCdf(-0.4 / Math.SQRT1_2), 9);
  });
  test("none at all", () => expect(standings([])).toEqual({ places: [], swaps: [] }));
  test.each([[0, 0.5], [1.959964, 0.975], [-1, 0.158655], [8, 1]])("the normal at %p", (x, p) => expect(normalCdf(x)).toBeCloseTo(p, 6)); // prettier-ignore
});

describe("a pair", () => {
  test("is resolved only beyond two sd", () => {
    expect(pairOf({ mean: 15, sd: 0.3 }, { mean: 14, sd: 0.4 })).toMatchObject({
      difference: { mean: 1, sd: 0.5 },
      resolved: false,
    });
    expect(pairOf({ mean: 15.1, sd: 0.3 }, { mean: 14, sd: 0.4 }).resolved).toBe(true);
    expect(pairOf({ mean: 12, sd: 0.3 }, { mean: 14, sd: 0.4 }).resolved).toBe(true);
  });
  const record = (rest: object, lightsOn = false, chargerDone = true): TestRecord =>
    testRecordSchema.parse({
      test: { title: "t", day: "2026-10-18", airTempC: 15, ...rest },
      bike: { name: "b", levels: ["low"] },
      pack: { name: "p", chemistry: "NMC", labelWh: 612 },
      setUp: { name: "s", lightsOn, pressurePa: 250_000 },
      rides: [
        {
          entries: [
            { id: "019a0000-0000-7000-8000-000000000001", seq: 0, body: { kind: "start", chargerDone } },
          ],
        },
      ],
    });
  test("two alike have nothing to confound them", () =>
    expect(confounders(record({}), record({}), "metric")).toEqual([]));
  test("what differs is listed in sentences", () => {
    expect(
      confounders(
        record({ wind: "still" }),
        record({ wind: "fresh", airTempC: 4, drive: "throttle" }, true, false),
        "metric",
      ),
    ).toEqual([
      "One was ridden on pedal, the other on throttle.",
      "Only one started from a full charge.",
      "Lights were on in one and off in the other.",
      "Air temperature differs: 15 C and 4 C.",
      "Wind: still, and fresh.",
    ]);
  });
});

describe("properties of the standings", () => {
  const row = fc.record({
    id: fc.uuid(),
    whPerM: fc.record({
      mean: fc.double({ min: 1, max: 40, noNaN: true }),
      sd: fc.double({ min: 0.01, max: 5, noNaN: true }),
    }),
  });
  test("they rise, and every test has one place", () => {
    fc.assert(
      fc.property(fc.array(row, { maxLength: 30 }), (rows) => {
        const { places, swaps } = standings(rows);
        expect(places.map(({ place }) => place)).toEqual(rows.map((_, i) => i + 1));
        expect(
          places.every(({ row: each }, i) => i === 0 || each.whPerM.mean >= places[i - 1]!.row.whPerM.mean),
        ).toBe(true);
        for (const { chance, upper, lower } of swaps) {
          expect(lower - upper).toBe(1);
          expect(chance).toBeGreaterThanOrEqual(0.1);
          expect(chance).toBeLessThanOrEqual(0.5 + 1e-6);
        }
      }),
    );
  });
  test("a pair the other way round is the same verdict with the other sign", () => {
    fc.assert(
      fc.property(row, row, ({ whPerM: a }, { whPerM: b }) => {
        const [there, back] = [pairOf(a, b), pairOf(b, a)];
        expect(there.difference.mean).toBeCloseTo(-back.difference.mean, 12);
        expect(there.resolved).toBe(back.resolved);
      }),
    );
  });
  test("the normal is symmetric", () => {
    fc.assert(
      fc.property(fc.double({ min: -6, max: 6, noNaN: true }), (x) =>
        expect(normalCdf(x) + normalCdf(-x)).toBeCloseTo(1, 8),
      ),
    );
  });
});
