import { describe, expect, test } from "@jest/globals";
import { knownFrom, type KnownFor, NOTHING_KNOWN, type PlanResults } from "#core/planning";
import { dayOfTest, deskPosterior, type DeskPosterior } from "#core/desk";
import { METRES_PER_MILE } from "#core/base";
import { setUpSchema, testSchema } from "#core/records";
import { bike, mi, plan, reckon, rider } from "./plans.fixture.ts";

describe("earlier tests of the bike", () => {
  const ridden = (whPerMi: number, meanSpeedMps: number | null = 6) => ({
    bike,
    rider,
    setUp: setUpSchema.parse({ name: "s" }),
    test: testSchema.parse({ title: "before", day: "2026-10-01", airTempC: 12 }),
    results: {
      best: { value: { mean: whPerMi / METRES_PER_MILE, sd: 0.3 / METRES_PER_MILE } },
      parts: [
        { level: "mid", ground: "asphalt", distanceM: mi(9), whPerM: null },
        { level: "high", ground: "brick", distanceM: mi(3), whPerM: null },
      ],
      meanSpeedMps,
      climbM: 120,
      slopes: null,
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
    } as never,
  });
  const bikeId = "b";
  const knownOf = (...tests: readonly ReturnType<typeof ridden>[]) => knownWith(tests);
  const knownWith = (
    tests: readonly ReturnType<typeof ridden>[],
    told: (desk: DeskPosterior) => KnownFor["tellable"] = () => [],
  ) => {
    const days = tests.flatMap((each, i) => {
      const { best } = each.results as { best: { value: { mean: number; sd: number } } };
      const day = dayOfTest({
        ...{ id: String(i), bikeId, riderId: "r", packId: "p", ridden: each, capacityShare: 0 },
        whPerM: best.value,
      });
      return day ? [day] : [];
    });
    const desk = deskPosterior(days);
    return knownFrom(desk, {
      ...{ mount: { bikeId, setUp: null }, riderId: "r", tests, tellable: told(desk) },
    });
  };
  test("a thirsty one raises the forecast, a thrifty one lowers it", () => {
    const energy = (whPerMi: number | null) =>
      reckon({ known: whPerMi === null ? NOTHING_KNOWN : knownOf(ridden(whPerMi)) }).whPerM.mean;
    expect(energy(22)).toBeGreaterThan(energy(null));
    expect(energy(6)).toBeLessThan(energy(null));
  });
  test("each makes the next forecast surer", () => {
    const spread = (...tests: readonly ReturnType<typeof ridden>[]) => {
      const { mean, sd } = reckon({ known: tests.length ? knownOf(...tests) : NOTHING_KNOWN }).whPerM;
      return sd / mean;
    };
    const [none, one, four] = [
      spread(),
      spread(ridden(12)),
      spread(ridden(12), ridden(12.5), ridden(11.8), ridden(12.2)),
    ];
    expect(one).toBeLessThan(none);
    expect(four).toBeLessThan(one);
  });
  test("speeds are those ridden, split by level", () => {
    const { speedMps } = knownOf(ridden(12));
    expect(speedMps["high"]!).toBeGreaterThan(speedMps["mid"]!);
    const mean = mi(12) / (mi(9) / speedMps["mid"]! + mi(3) / speedMps["high"]!);
    expect(mean).toBeCloseTo(6, 6);
  });
  test("a ride without times tells of energy alone", () => {
    const known = knownOf(ridden(12, null));
    expect(known.speedMps).toEqual({});
    expect(known.knowledge.results).toBe(1);
  });
  test("what could still be told of them comes with what it leaves, the most for a minute first", () => {
    const told = (by: readonly (readonly [what: string, minutes: number, variance: number])[]) =>
      knownWith([ridden(12)], (desk) =>
        by.map(([what, minutes, variance]) => {
          const { day, linearised } = desk.days[0]!;
          const added = { day, slopes: linearised.byShared[0]!, variance };
          return { ...{ what, minutes, testId: "1", test: "before" }, taking: { added } };
        }),
      );
    const one = (0.3 / METRES_PER_MILE) ** 2;
    const { learning, whPerM } = reckon({
      known: told([
        ["long and good", 100, one],
        ["short and good", 1, one],
        ["says nothing", 1, 1e6 * one],
      ]),
    });
    expect(learning.map(({ what }) => what)).toEqual(["short and good", "long and good"]);
    expect(learning[0]!.sdLeft).toBeLessThan(0.98 * whPerM.sd);
    expect(learning[0]!.sdLeft).toBeCloseTo(learning[1]!.sdLeft, 12);
    expect(reckon({ known: knownOf(ridden(12)) }).learning).toEqual([]);
  });
  test("what most of the spread is made of is named with what settles it, and what is typed falls away", () => {
    const { unknowns } = reckon();
    expect(unknowns.length).toBeGreaterThan(0);
    expect(unknowns.every(({ share, settledBy }) => share >= 0.1 && settledBy !== "")).toBe(true);
    expect([...unknowns].sort((a, b) => b.share - a.share)).toEqual(unknowns);
    const speed = (of: PlanResults) => of.unknowns.find(({ name }) => name === "speed")?.share ?? 0;
    expect(speed(reckon({ plan: plan({ speedMps: 6 }) }))).toBeLessThan(speed({ ...reckon(), unknowns }));
  });
  test("what it lists is what it rode with", () => {
    const drag = (results: PlanResults) =>
      Number.parseFloat(results.taken.find(({ what }) => what === "drag area")!.value);
    const draggy = {
      ...NOTHING_KNOWN,
      knowledge: { ...NOTHING_KNOWN.knowledge, mean: [0, 2, 0, 0, 0], results: 1 },
    };
    const [before, after] = [reckon(), reckon({ known: draggy })];
    expect(drag(after) / drag(before)).toBeGreaterThan(1.2);
    expect(after.whPerM.mean).toBeGreaterThan(before.whPerM.mean);
    expect(after.taken.filter(({ what, learned }) => learned && what === "drag area")).toHaveLength(1);
    expect(before.taken.some(({ learned }) => learned)).toBe(false);
  });
  test("how many it rests on is said", () =>
    expect(reckon({ known: knownOf(ridden(12), ridden(13)) }).restsOn).toContain("2 earlier tests"));
});
