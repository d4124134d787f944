import { METRES_PER_MILE, Z_95 } from "#core/base";
import { analyseTest, type TestResults } from "#core/analysis";
import { makeStandin, type Scenario, type Standin } from "#core/simulator";
import { rngFrom } from "#core/world";
import { middleOf } from "./measure.ts";

/** Figures of the coverage trial, each with the span it must lie in. */
export interface TrialFigure {
  readonly what: string;
  readonly value: number;
  readonly low: number;
  readonly high: number;
  /** Of how many. */
  readonly of: number;
}

/** A day as testers have them, read by hand only: percent or bars, now and then rest volts, not always full, some to the end. */
function handScenario(seed: number): Scenario {
  const chance = rngFrom(seed * 7919 + 17);
  const percentStep = [1, 1, 5, 0][Math.floor(chance.next() * 4)]!;
  return {
    what: "trial",
    percentStep,
    bars: percentStep === 0 || chance.happens(0.3) ? 5 : 0,
    restVolts: chance.happens(0.4) ? 0.3 : 0,
    untilEmpty: chance.happens(0.15),
    chemistry: chance.happens(0.15) ? "LFP" : "NMC",
    ...(chance.happens(0.15) && percentStep > 0 && { startUsed: chance.between(0.05, 0.3) }),
  };
}

interface Ridden extends Standin {
  readonly results: TestResults;
}

function ride(seed: number, scenario: Scenario): Ridden {
  const standin = makeStandin(seed, scenario);
  const results = analyseTest(standin.record);
  if (!results.ok) throw new Error(`seed ${seed}: ${results.problems[0]!.sentence}`);
  return { ...standin, results: results.value };
}

const covers = ({ mean, sd }: { mean: number; sd: number }, truthWhPerMi: number) =>
  Math.abs(mean * METRES_PER_MILE - truthWhPerMi) <= Z_95 * sd * METRES_PER_MILE;

const share = (hits: readonly boolean[]) => hits.filter(Boolean).length / hits.length;

/** Whether 95 % spans of each part told apart cover its truth. */
function cellHits({ results, truth }: Ridden): readonly boolean[] {
  return results.parts.flatMap(({ level, ground, whPerM }) => {
    const cell = truth.cells[`${level} | ${ground}`];
    return whPerM && cell ? [covers(whPerM, cell.whPerMi)] : [];
  });
}

/**
 * Rides seeded days on the stand-in bike, whose truth is known, and counts how often the answers hold it.
 *
 * @param rides how many; seeds run from 1
 */
export function coverageTrial(rides: number): readonly TrialFigure[] {
  const seeds = Array.from({ length: rides }, (_, i) => i + 1);
  const hand = seeds.map((seed) => ride(seed, handScenario(seed)));
  const whole = hand.map(({ results, truth }) => covers(results.best.value, truth.whPerMi));
  const cells = hand.flatMap(cellHits);
  const readings = hand.reduce((sum, { results }) => sum + results.readings.length, 0);
  const flagged = hand.reduce((sum, { results }) => sum + results.flags.length, 0);
  const sdWith = (meter: "counter" | "logger") =>
    seeds.slice(0, rides / 4).map((seed) => {
      const metered = ride(seed, { ...handScenario(seed), meter });
      return {
        ratio: metered.results.best.value.sd / hand[seed - 1]!.results.best.value.sd,
        covered: covers(metered.results.best.value, metered.truth.whPerMi),
        flags: metered.results.flags.length,
        readings: metered.results.readings.length,
      };
    });
  const [counter, logger] = [sdWith("counter"), sdWith("logger")];
  const slips = seeds.slice(0, rides / 2).flatMap((seed) => {
    const { results, truth } = ride(seed, { ...handScenario(seed), percentStep: 1, slip: true });
    return truth.slip ? [results.flags.some(({ rootId }) => rootId === truth.slip!.entryId)] : [];
  });
  const metered = [...counter, ...logger];
  return [
    {
      what: "whole-ride 95 % spans that hold the truth",
      value: share(whole),
      low: 0.9,
      high: 0.99,
      of: whole.length,
    },
    {
      what: "95 % spans of parts told apart that do",
      value: share(cells),
      low: 0.9,
      high: 0.99,
      of: cells.length,
    },
    { what: "sd with a counter, over the sd by hand (median)", value: middleOf(counter.map(({ ratio }) => ratio)) ?? NaN, low: 0, high: 0.5, of: counter.length }, // prettier-ignore
    { what: "sd with a logger, over the sd by hand (median)", value: middleOf(logger.map(({ ratio }) => ratio)) ?? NaN, low: 0, high: 0.5, of: logger.length }, // prettier-ignore
    { what: "metered 95 % spans that hold the truth", value: share(metered.map(({ covered }) => covered)), low: 0.9, high: 1, of: metered.length }, // prettier-ignore
    {
      what: "slips of ten points that are questioned",
      value: share(slips),
      low: 0.5,
      high: 1,
      of: slips.length,
    },
    {
      what: "honest readings questioned, by hand",
      value: flagged / readings,
      low: 0,
      high: 0.02,
      of: readings,
    },
    {
      what: "honest readings questioned, metered",
      value:
        metered.reduce((sum, { flags }) => sum + flags, 0) /
        metered.reduce((sum, each) => sum + each.readings, 0),
      low: 0,
      high: 0.02,
      of: metered.reduce((sum, each) => sum + each.readings, 0),
    },
  ];
}
