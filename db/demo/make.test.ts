import { describe, expect, test } from "@jest/globals";
import { profileOf } from "#core/ride/distance";
import { entrySchema } from "#core/ride/log";
import { METRES_PER_MILE } from "#core/base";
import { packRecordSchema, testRecordSchema } from "#core/records";
import { analyseTest } from "#core/analysis";
import { idMaker, makeRide, makeTrack, type RideSpec, type Stage } from "./make.ts";

const pack = packRecordSchema.parse({ name: "p", labelWh: 600, seriesCells: 13 });

/** Seeded uniform numbers in 0..1 (a linear congruential generator, Numerical Recipes). */
function numbers(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return state / 2 ** 32;
  };
}
const normal = (next: () => number) =>
  Math.sqrt(-2 * Math.log(next() + 1e-12)) * Math.cos(2 * Math.PI * next());

function spec(next: () => number): RideSpec {
  const rate = 9 + 14 * next();
  const stages = Array.from({ length: 4 + Math.floor(5 * next()) }, (): Stage => {
    const miles = Number((2 + 4 * next()).toFixed(1));
    return { miles, whPerMi: rate * (1 + (0.2 * normal(next)) / Math.sqrt(miles)), read: ["percent"] };
  });
  const capacityWh = 600 * 0.95 * (59 / 60) * (1 + 0.04 * normal(next));
  return {
    pack,
    capacityWh,
    from: 0.01 * Math.abs(normal(next)),
    startsAt: "2026-06-01T09:00:00Z",
    mph: 14,
    start: { kind: "start", chargerDone: true },
    stages,
  };
}

function record(made: ReturnType<typeof makeRide>) {
  return testRecordSchema.parse({
    test: { title: "t", day: "2026-06-01", airTempC: 20, firstLevel: "on" },
    bike: { name: "b", levels: ["on"] },
    pack,
    rides: [{ entries: made.entries }],
  });
}

test("95 % spans of made rides cover their truth in about 95 of 100", () => {
  let [covered, rides] = [0, 0];
  for (let seed = 1; seed <= 250; seed += 1) {
    const each = spec(numbers(seed * 7919));
    const made = makeRide(each, idMaker());
    if (made.usedAtEnd > 0.97) continue;
    const result = analyseTest(record(made));
    if (!result.ok) throw new Error(result.problems[0]!.sentence);
    const miles = each.stages.reduce((sum, stage) => sum + stage.miles, 0);
    const truth = each.stages.reduce((sum, stage) => sum + stage.miles * stage.whPerMi!, 0) / miles;
    const { mean, sd } = result.value.best.value;
    rides += 1;
    if (Math.abs(mean * METRES_PER_MILE - truth) <= 1.96 * sd * METRES_PER_MILE) covered += 1;
  }
  expect(rides).toBeGreaterThan(200);
  expect(covered / rides).toBeGreaterThan(0.9);
  expect(covered / rides).toBeLessThanOrEqual(1);
});

describe("a made ride", () => {
  const made = makeRide(spec(numbers(5)), idMaker());
  test("is a log the schema takes, with ids that differ", () => {
    for (const entry of made.entries) expect(entrySchema.safeParse(entry).success).toBe(true);
    expect(new Set(made.entries.map(({ id }) => id)).size).toBe(made.entries.length);
  });
  test("is the same at every making", () => {
    expect(makeRide(spec(numbers(5)), idMaker())).toEqual(made);
  });
  test("loses each bar once, where it goes", () => {
    const stages: Stage[] = [
      { miles: 10, whPerMi: 20 },
      { miles: 10, whPerMi: 20 },
    ];
    const ride = makeRide(
      { ...spec(numbers(1)), capacityWh: 600, from: 0, stages, bars: 4, barsGo: [0.2, 0.5, 0.9] },
      idMaker(),
    );
    const lost = ride.entries.flatMap(({ body }) =>
      body.kind === "barLost" ? [[body.bar, body.distanceM! / METRES_PER_MILE]] : [],
    );
    expect(lost.map(([bar]) => bar)).toEqual([4, 3]);
    expect(lost[0]![1]).toBeCloseTo(6, 1);
    expect(lost[1]![1]).toBeCloseTo(15, 1);
  });
  test("a slip of ten points in a percent is questioned", () => {
    let [found, others] = [0, 0];
    for (let seed = 1; seed <= 60; seed += 1) {
      const each = spec(numbers(seed * 104_729));
      const ride = makeRide(
        { ...each, stages: each.stages.map((stage) => ({ ...stage, whPerMi: 14 })) },
        idMaker(),
      );
      const at = 2;
      const entries = ride.entries.map((entry, i) => {
        const { body } = entry;
        return i === at && body.kind === "checkIn"
          ? { ...entry, body: { ...body, percent: Math.max(0, body.percent! - 10) } }
          : entry;
      });
      const result = analyseTest(record({ ...ride, entries }));
      if (!result.ok) throw new Error("not reckoned");
      const flagged = result.value.flags.map(({ rootId }) => rootId);
      if (flagged.includes(entries[at]!.id)) found += 1;
      others += flagged.filter((id) => id !== entries[at]!.id).length;
    }
    expect(found).toBeGreaterThan(40);
    expect(others).toBeLessThan(6);
  });
});

test("a made track has the length, speed and climb asked for", () => {
  const profile = profileOf(makeTrack("loop", "2026-06-01T09:00:00Z", 20, 13, 24));
  expect(profile.totalM / METRES_PER_MILE).toBeCloseTo(20, 0);
  expect(profile.meanSpeedMps / 0.44704).toBeCloseTo(13, 0);
  expect(profile.gainM.at(-1)!).toBeGreaterThan(60);
  expect(profile.gaps).toBe(0);
});
