export { makeStandin, type Standin } from "./make.ts";
export { ridePlan } from "./planned.ts";
export { SCENARIOS, type Scenario, type ScenarioName } from "./scenarios.ts";
export {
  displayOf,
  FAULTS,
  type DisplayMoment,
  type DisplayOptions,
  type Fault,
  rehearsalSchema,
  type Rehearsal,
} from "./display.ts";
export { debrief, standsOf, truthOf, type Debrief } from "./trainer.ts";
export { rideCourse, type Stand, type TrueRig } from "./ride.ts";
export { type TrueCourse } from "./course.ts";
export { FULL } from "./pack.ts";
