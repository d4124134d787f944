import { describe, expect, test } from "@jest/globals";
import { METRES_PER_MILE, spoken } from "#core/quantities";
import { testRecordSchema } from "#core/records";
import { reckonTest, type TestResults } from "#core/results";
import { BIKES, RIDERS, type DeskBike } from "#db/demo/desk";
import { idMaker } from "#db/demo/make";
import { demoTests } from "#db/demo/tests";

const results = new Map<string, TestResults>();
for (const demo of demoTests(idMaker())) {
  const { bike, packs, setUps } = (BIKES as Record<string, DeskBike>)[demo.bike]!;
  const record = testRecordSchema.parse({
    test: demo.test,
    bike,
    pack: packs[demo.pack],
    secondPack: demo.secondPack ? packs[demo.secondPack] : null,
    setUp: setUps[demo.setUp],
    rider: demo.rider && RIDERS[demo.rider],
    rides: demo.rides.map(({ name, made, track, telemetry }) => ({
      name,
      entries: made.entries,
      track,
      telemetry,
    })),
  });
  const result = reckonTest(record);
  if (!result.ok) throw new Error(`${demo.test.title}: ${result.problems[0]!.sentence}`);
  results.set(demo.test.title, result.value);
}
const best = (title: string) => {
  const { mean, sd } = results.get(title)!.best.value;
  return { mean: mean * METRES_PER_MILE, sd: sd * METRES_PER_MILE };
};

describe("the demo desk holds what its rides were made with", () => {
  test.each([
    ["tramway, up and down", 24.15],
    ["levee loop, town level", 10.3],
    ["levee loop, winter tyres", 14.55],
    ["commute week, days", 11.7],
    ["commute week, lights and 12 kg", 14.8],
    ["harbour and back on volts", 11.3],
    ["levee run-down", 27.45],
    ["market day on both packs", 21.4],
  ])("%s", (title, truth) => {
    const { mean, sd } = best(title);
    expect(Math.abs(mean - truth)).toBeLessThan(2.5 * sd);
    expect(sd / mean).toBeLessThan(0.12);
  });
  test("its typing slip is found, and nothing else is in question", () => {
    const questioned = [...results].flatMap(([title, { flags }]) =>
      flags.map(({ sentence }) => `${title}: ${spoken(sentence, "imperial").slice(0, 15)}`),
    );
    expect(questioned).toEqual(["run-down on two levels: 69 % at 15.0 mi"]);
    expect(
      Math.abs(results.get("run-down on two levels")!.bestWithoutFlags!.mean * METRES_PER_MILE - 18.2),
    ).toBeLessThan(0.8);
  });
  test("its wrong wheel setting is found", () => {
    expect(results.get("levee run-down")!.odometer).toMatchObject({ warn: true });
    expect(results.get("levee run-down")!.odometer!.k).toBeCloseTo(1 / 1.083, 2);
  });
  test("a claim from four miles is shown with its doubt", () => {
    const { mean, sd } = best("the quick one: 70 miles, surely");
    expect((1.96 * sd) / mean).toBeGreaterThan(0.2);
    expect(results.get("the quick one: 70 miles, surely")!.rangeTotal!.because).toContain("sketch");
  });
});
