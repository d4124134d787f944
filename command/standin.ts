import { mkdirSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { writeBundle } from "#core/io";
import { makeStandin, SCENARIOS, type ScenarioName } from "#core/simulator";
import { say } from "./say.ts";

const list = () => Object.entries(SCENARIOS).map(([name, { what }]) => `  ${name.padEnd(12)} ${what}`);

/** Writes a made test as a bundle, and what nobody on the ride could see in a file of its own. */
export function standin(args: readonly string[]): number {
  const { values } = parseArgs({
    args: [...args],
    options: {
      seed: { type: "string" },
      scenario: { type: "string" },
      out: { type: "string", default: "." },
    },
  });
  const { seed = "1", scenario = "clean", out } = values;
  if (!Object.hasOwn(SCENARIOS, scenario)) {
    say([`There is no scenario “${scenario}”. There are:`, ...list()].join("\n"));
    return 2;
  }
  if (!/^\d{1,9}$/.test(seed)) {
    say("A seed is a whole number, for example --seed 7.");
    return 2;
  }
  const { record, truth } = makeStandin(Number(seed), scenario as ScenarioName);
  mkdirSync(resolve(out), { recursive: true });
  const stem = join(resolve(out), `${scenario}-${seed}`);
  writeFileSync(`${stem}.json`, `${JSON.stringify(writeBundle([record]), null, 1)}\n`);
  writeFileSync(`${stem}.truth.json`, `${JSON.stringify(truth, null, 1)}\n`);
  say(`${stem}.json holds the test; ${stem}.truth.json what it truly took.`);
  return 0;
}
