import { spawnSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { join } from "node:path";
import { ledgerInputSchema, solveLedger } from "#core/estimation";
import { analyseTest } from "#core/analysis";
import { readFit, readLogger } from "#core/io";
import { readNarration } from "#core/narration";
import { tieSamples } from "#core/ride/clocks";
import { narrations, spokenOf } from "./narrations.ts";
import { longLedger, longRide, SMALL_LEDGER } from "./inputs.ts";
import { median } from "./measure.ts";
import type { Report } from "./report.ts";

/** A ride of 85 minutes by its recorder and its meter, whose clocks are an hour apart. */
function recordings(root: string) {
  const example = (name: string) => readFileSync(join(root, "examples", name));
  const recorded = readFit(example("ferry-lane.fit"));
  const metered = readLogger(example("ferry-lane-meter.csv").toString(), "meter", {
    ...{ rideStartS: null, zone: "+00:00" },
  });
  if (!recorded.ok || !metered.ok) throw new Error("the examples cannot be read");
  return { track: recorded.value.track, samples: metered.value };
}

/** The core by itself: the ledger's solve, whole tests, and calc in one call. */
export async function benchCore(report: Report, root: string): Promise<readonly boolean[]> {
  const many = JSON.stringify(Array.from({ length: 400 }, () => SMALL_LEDGER));
  const calc = () => spawnSync("./barometron", ["calc", "-"], { cwd: root, input: many });
  const solve = (marks: number, metered: boolean) => {
    const input = ledgerInputSchema.parse(longLedger(marks, metered));
    return median(9, () => solveLedger(input));
  };
  // The twelve invented narrations are half an hour of speech, by their words.
  const hour = spokenOf(narrations()).repeat(2);
  const { track, samples } = recordings(root);
  const hand = await solve(300, false);
  const long = await solve(1200, false);
  return [
    report("ledger: solve, 60 marks by hand", await solve(60, false)),
    report("ledger: solve, 300 marks by hand", hand, 50),
    report("ledger: solve, 300 marks with a meter, three passes", await solve(300, true), 50),
    report("ledger: solve, 1,200 marks, over 300 marks (4 if linear)", long / hand, 8),
    report("core: ride of 20 marks", await median(9, () => analyseTest(longRide(20)))),
    report("core: ride of 60 marks", await median(5, () => analyseTest(longRide(60))), 100),
    report("core: ride of 300 marks", await median(5, () => analyseTest(longRide(300))), 300),
    report("narration: an hour of speech", await median(9, () => readNarration(hour)), 200),
    report(
      "clocks: a meter's held against a recorder's",
      await median(5, () => tieSamples(samples, { log: [], track })),
      2000,
    ),
    report("calc: 400 small ledgers in one call", await median(3, calc), 20_000),
  ];
}
