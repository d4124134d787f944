import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { confounders, isHardlyKnown, standings } from "#core/compare";
import { normalCdf } from "#core/base";
import { testRecordSchema, type TestRecord } from "#core/records";

describe("standings", () => {
  const row = (id: string, mean: number, sd: number) => ({ id, figure: { mean, effects: { [id]: sd } } });
  test("thriftiest first, and the neighbours that could be swapped", () => {
    const { places, swaps } = standings([row("c", 20, 0.1), row("a", 10, 0.5), row("b", 10.4, 0.5)]);
    expect(places.map(({ place, row: { id } }) => [place, id])).toEqual([[1, "a"], [2, "b"], [3, "c"]]); // prettier-ignore
    expect(swaps).toHaveLength(1);
    expect(swaps[0]).toMatchObject({ upper: 1, lower: 2 });
    expect(swaps[0]!.chance).toBeCloseTo(normalCdf(-0.4 / Math.SQRT1_2), 9);
  });
  test("errors that two share do not blur their order", () => {
    const on = (id: string, mean: number, shared: string) => ({
      id,
      figure: { mean, effects: { [id]: 0.1, [shared]: 1 } },
    });
    expect(standings([on("a", 10, "pack"), on("b", 10.4, "pack")]).swaps).toEqual([]);
    expect(standings([on("a", 10, "pack"), on("b", 10.4, "other")]).swaps).toHaveLength(1);
  });
  test("where more is better the most stands first", () => {
    const { places, swaps } = standings([row("a", 30, 2), row("b", 31, 2)], "more");
    expect(places.map(({ row: { id } }) => id)).toEqual(["b", "a"]);
    expect(swaps[0]!.chance).toBeCloseTo(normalCdf(-1 / Math.hypot(2, 2)), 9);
  });
  test("what is hardly known leads nothing, however small its figure", () => {
    const vague = { ...row("vague", 4, 1.5), isLast: isHardlyKnown({ mean: 4, sd: 1.5 }) };
    const { places } = standings([vague, row("a", 10, 0.5), row("b", 12, 0.5)]);
    expect(places.map(({ row: { id } }) => id)).toEqual(["a", "b", "vague"]);
  });
  test("none at all", () => expect(standings([])).toEqual({ places: [], swaps: [] }));
  test("each row's possible places: behind all that are surely ahead, ahead of all that are surely behind", () => {
    const row = (id: string, mean: number, sd: number) => ({ id, figure: { mean, effects: { [id]: sd } } });
    const of = (...rows: ReturnType<typeof row>[]) =>
      standings(rows).places.map(({ possible: { from, to } }) => `${from}-${to}`);
    expect(of(row("a", 10, 1), row("b", 11, 1), row("c", 11.5, 1), row("d", 20, 1))).toEqual([
      "1-3",
      "1-3",
      "1-3",
      "4-4",
    ]);
    expect(of(row("a", 10, 0.1), row("b", 11, 0.1))).toEqual(["1-1", "2-2"]);
    expect(of(row("a", 10, 0.1), row("b", 11, 0.1), row("c", 11.1, 0.1))).toEqual(["1-1", "2-3", "2-3"]);
    // No border where there is none: the middle one overlaps with either end, the ends not with each other.
    expect(of(row("a", 10, 0.5), row("b", 11, 0.5), row("c", 12, 0.5))).toEqual(["1-2", "1-3", "2-3"]);
    // What two share cancels: only what is their own counts.
    const alike = (id: string, mean: number) => ({ id, figure: { mean, effects: { rider: 3, [id]: 0.1 } } });
    expect(of(alike("a", 10), alike("b", 11))).toEqual(["1-1", "2-2"]);
  });
  test.each([[0, 0.5], [1.959964, 0.975], [-1, 0.158655], [8, 1]])("the normal at %p", (x, p) => expect(normalCdf(x)).toBeCloseTo(p, 6)); // prettier-ignore
});

describe("what else differed", () => {
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
  test("effort, pack and its age count, the charge at the start too", () => {
    const told = (rest: object, pack: object, percent: number) => {
      const made = record(rest);
      const [ride] = made.rides;
      const start = { ...ride!.entries[0]!, body: { kind: "start" as const, percent } };
      return { ...made, pack: { ...made.pack, ...pack }, rides: [{ ...ride!, entries: [start] }] };
    };
    const sentences = confounders(
      told({ effort: "hard" }, { firstUsedOn: "2020-10-18" }, 98),
      told({ bpm: 120 }, { name: "q", firstUsedOn: "2026-01-01" }, 70),
      "metric",
    );
    expect(sentences).toEqual([
      "The charge at the start differs: 98 % and 70 %.",
      "What the rider put in: hard, and 120 beats a minute.",
      "Different packs: p and q.",
      "The packs' ages differ: 6.0 and 0.8 years.",
    ]);
  });
  test("two alike have nothing to confound them", () =>
    expect(confounders(record({}), record({}), "metric")).toEqual([]));
  test("weights, sensors, tyres and meters on file that differ are told", () => {
    const [a, b] = [record({}), record({})];
    const other: TestRecord = {
      ...b,
      bike: { ...b.bike, massKg: 37.5, sensor: "torque", motor: "mid" },
      rides: b.rides.map((ride) => ({
        ...ride,
        entries: ride.entries.map((entry) => ({
          ...entry,
          body: { ...entry.body, counterWh: 20, meter: "blue meter" } as never,
        })),
      })),
    };
    const told = confounders({ ...a, bike: { ...a.bike, massKg: 20.4, sensor: "cadence" } }, other, "metric");
    expect(told).toEqual(
      expect.arrayContaining([
        "The bikes weigh 20 kg and 38 kg.",
        "The motors: hub and mid.",
        "The pedal sensors: cadence and torque.",
      ]),
    );
    expect(told.at(-1)).toMatch(/^What measured: .*; and .*counted Wh, blue meter\.$/);
    expect(
      confounders(
        { ...a, bike: { ...a.bike, massKg: undefined } },
        { ...a, bike: { ...a.bike, massKg: 21 } },
        "metric",
      ),
    ).toEqual(["Only one bike was weighed: not weighed and 21 kg."]);
  });
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
  const placed = ({ id, whPerM: { mean, sd } }: { id: string; whPerM: { mean: number; sd: number } }) => ({
    id,
    figure: { mean, effects: { [id]: sd } },
  });
  test("they rise, and every test has one place", () => {
    fc.assert(
      fc.property(fc.array(row, { maxLength: 30 }), (rows) => {
        const { places, swaps } = standings(rows.map(placed));
        expect(places.map(({ place }) => place)).toEqual(rows.map((_, i) => i + 1));
        expect(
          places.every(({ row: each }, i) => i === 0 || each.figure.mean >= places[i - 1]!.row.figure.mean),
        ).toBe(true);
        for (const { chance, upper, lower } of swaps) {
          expect(lower - upper).toBe(1);
          expect(chance).toBeGreaterThanOrEqual(0.1);
          expect(chance).toBeLessThanOrEqual(0.5 + 1e-6);
        }
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
