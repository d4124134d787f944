export { airDensity } from "./air.ts";
export { GROUND_FACTOR, roadPower, type RoadState, type RoadPower } from "./power.ts";
