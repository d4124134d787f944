import { describe, expect, test } from "@jest/globals";
import { conditionsOfTest, rideEnergy, type RiddenRide } from "#core/bike";
import { METRES_PER_MILE, renderUnits } from "#core/base";
import { testRecordSchema } from "#core/records";
import { analyseTest, type TestResults } from "#core/analysis";
import { BIKES, RIDERS, type DeskBike } from "#db/demo/desk";
import { idMaker } from "#db/demo/make";
import { demoTests } from "#db/demo/tests";

const results = new Map<string, TestResults>();
const rides = new Map<string, RiddenRide>();
/** What each mile of a test truly took, Wh. */
const truths = new Map<string, number>();
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
  const result = analyseTest(record);
  if (!result.ok) throw new Error(`${demo.test.title}: ${result.problems[0]!.sentence}`);
  results.set(demo.test.title, result.value);
  const { test: noted, bike: own, setUp, rider } = record;
  rides.set(
    demo.test.title,
    conditionsOfTest({ test: noted, bike: own, setUp, rider, results: result.value })!,
  );
  const rode = demo.rides.flatMap(({ made: { truth } }) => truth ?? []);
  const sum = (key: "wh" | "miles") => rode.reduce((total, each) => total + each[key], 0);
  if (rode.length) truths.set(demo.test.title, sum("wh") / sum("miles"));
}
const best = (title: string) => {
  const { mean, sd } = results.get(title)!.best.value;
  return { mean: mean * METRES_PER_MILE, sd: sd * METRES_PER_MILE };
};

describe("the demo desk holds what its rides were made with", () => {
  test.each([
    "tramway, up and down",
    "levee loop, town level",
    "levee loop, winter tyres",
    "commute week, days",
    "commute week, lights and 12 kg",
    "harbour and back on volts",
    "levee run-down",
    "market day on both packs",
  ])("%s", (title) => {
    const { mean, sd } = best(title);
    expect(Math.abs(mean - truths.get(title)!)).toBeLessThan(2.5 * sd);
    expect(sd / mean).toBeLessThan(0.12);
  });
  test("no ride takes half or twice what the road load lets expect of such a day", () => {
    for (const [title, { best: figure }] of results) {
      const expected = rideEnergy(rides.get(title)!);
      // The hill of the sections is told by its climb alone, and ridden up only.
      if (title.startsWith("tower hill")) continue;
      expect(figure.value.mean / expected).toBeGreaterThan(0.5);
      expect(figure.value.mean / expected).toBeLessThan(2);
    }
  });
  test("its typing slip is found, and nothing else is in question", () => {
    const questioned = [...results].flatMap(([title, { flags }]) =>
      flags.map(({ sentence }) => `${title}: ${renderUnits(sentence, "imperial").slice(0, 15)}`),
    );
    expect(questioned).toEqual([expect.stringMatching(/^run-down on two levels: 69 % at 1\d\.\d mi$/)]);
    const without = results.get("run-down on two levels")!.bestWithoutFlags!.mean * METRES_PER_MILE;
    expect(Math.abs(without - truths.get("run-down on two levels")!)).toBeLessThan(0.8);
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
