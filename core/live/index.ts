export { liveView, type LiveView } from "./view.ts";
export { arrivalOf, type Arrival } from "./arrival.ts";
export { paceOf, wayLeftOnPlan } from "./pace.ts";
export { readTurnRule, watchTurnRule, type TurnSeen, type WatchedRule } from "./turnRule.ts";
export { liveTurn, type LiveTurn } from "./turn.ts";
export { againstPlan, type AgainstPlan } from "./plan.ts";
export { reasonsFor, reasonsText, type Ridden } from "./why.ts";
export { againstGuess, type AgainstGuess } from "./guess.ts";
export { oddReadings, type OddAnswer, type Odd } from "./odd.ts";
