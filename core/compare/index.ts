export { standings, type Standing, type StandingInput, type Swap } from "./standings.ts";
export { confounders, pairOf, type Pair } from "./pair.ts";
export { spot, type Spot, type SpotPack, type SpotRow } from "./spot.ts";
export { pairedDifference, type PairedDifference, type Run } from "./paired.ts";
export { climbOf, type Climb, type ClimbRun } from "./climb.ts";
export {
  bridgeTo,
  underReference,
  type Bridge,
  type BridgeBar,
  type UnderReference,
} from "./underReference.ts";
