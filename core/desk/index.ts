export { byDifferences } from "./differences.ts";
export { deskPosterior, type DeskFigure, type DeskPosterior } from "./posterior.ts";
export type { SolvedDay } from "./solve.ts";
export type { DeskDay, SharedUnknown } from "./types.ts";
export { DAY_UNKNOWNS, dayOfTest, type DayUnknown } from "./testDay.ts";
export { rideUnder, type Subject } from "./under.ts";
export {
  TYRES_IN_ROLLING,
  unknownsOfMount,
  unknownsOfRider,
  withUnknowns,
  type Mount,
} from "./unknownsOf.ts";
export { capacityShareOf } from "./ofResults.ts";
export { dayOfRows } from "./rowsDay.ts";
export { covarianceWith, sdWith, type Hypothetical, type Taking } from "./hypothetical.ts";
export { parametersOf, type BikeParameter } from "./parameters.ts";
export { dayOfReported } from "./reportedDay.ts";
export { kindSpread } from "./spreads.ts";
