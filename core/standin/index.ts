export { makeStandin, type Given, type Standin, type StandinTruth } from "./make.ts";
export { SCENARIOS, type Scenario, type ScenarioName } from "./scenarios.ts";
export { chanceFrom, type Chance } from "./random.ts";
