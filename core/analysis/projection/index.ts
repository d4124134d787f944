/** Least fraction of the charge that makes a projection more than a sketch. */
export const SKETCH_BELOW = 0.3;
export { auditClaim, type ClaimAudit } from "./claim.ts";
export { fadeOnset, type Fade } from "./fade.ts";
export { auditGuesses, type GuessAt, type GuessAudit } from "./guesses.ts";
export { runningCost } from "./cost.ts";
export { SPENT, wayInAll, wayLeft, type RideSoFar } from "./left.ts";
