export { airDensity } from "./air.ts";
export { GROUND_FACTOR } from "./ground.ts";
export { roadPower, type RoadState } from "./power.ts";
export { courseEnergy, type CourseConditions, type RoadBike } from "./course.ts";
export {
  bikeMass,
  EFFORT_W,
  massOf,
  roadOf,
  sharesOf,
  usualSpeeds,
  wattsAt,
  type Riding,
} from "./assumed.ts";
export { routeCost, segmentCost, type RideConditions } from "./conditions.ts";
export { climbOfRide, rideEnergy, slopesOfClimb, speedOfRide, type Ride } from "./ride.ts";
export { conditionsOf } from "./day.ts";
export { conditionsOfPlan } from "./ofPlan.ts";
export { conditionsOfTest, type RiddenDay, type RiddenHow, type RiddenRide } from "./ofTest.ts";
export { applyAll, LASTING_UNKNOWNS, UNKNOWNS } from "./unknowns.ts";
export { FACTORS, normalise, type Factor } from "./normalise.ts";
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
export { fitRoad, predicted, steadyWhPerM } from "./fit.ts";
export type { RoadFit, RoadRow } from "./fitTypes.ts";
