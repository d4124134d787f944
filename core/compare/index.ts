export { standings, type Standing, type StandingInput, type Swap } from "./standings.ts";
export { confounders, pairOf, type Pair } from "./pair.ts";
