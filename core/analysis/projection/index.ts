/** Least fraction of the charge that makes a projection more than a sketch. */
export const SKETCH_BELOW = 0.3;
export { auditClaim } from "./claim.ts";
export { fadeOnset } from "./fade.ts";
export { auditGuesses } from "./guesses.ts";
export { runningCost } from "./cost.ts";
export { SPENT, wayInAll, wayLeft, type RideSoFar } from "./left.ts";
