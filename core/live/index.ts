export { liveView, type LiveView } from "./view.ts";
export { liveTurn, type LiveTurn } from "./turn.ts";
export { againstPlan, type AgainstPlan } from "./plan.ts";
