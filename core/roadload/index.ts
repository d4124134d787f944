export { airDensity } from "./air.ts";
export { GROUND_FACTOR } from "./ground.ts";
export { roadPower, type RoadState, type RoadPower } from "./power.ts";
export {
  courseEnergy,
  courseParts,
  stopWh,
  type CourseConditions,
  type CoursePart,
  type RoadBike,
} from "./course.ts";
export { FACTORS, normalise, type Factor, type Normalised } from "./normalise.ts";
export {
  conditionsFor,
  findReference,
  newestReferences,
  REFERENCES,
  referenceKey,
  referenceName,
  type Reference,
} from "./reference.ts";
export { shapleySplit } from "./shapley.ts";
export { fitRoad, fittedState, predicted, steadyWhPerM } from "./fit.ts";
export type { FitParameter, RoadFit, RoadRow } from "./fitTypes.ts";
