export { airDensity } from "./air.ts";
export { GROUND_FACTOR } from "./ground.ts";
export { roadPower, type RoadState, type RoadPower } from "./power.ts";
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
export { routeCost, segmentCost, type RideConditions, type SegmentCost } from "./conditions.ts";
export { climbOfRide, rideEnergy, slopesOfClimb, speedOfRide, type Ride, type RideLeg } from "./ride.ts";
export { conditionsOf, type DayNotes, type Speeds } from "./day.ts";
export { conditionsOfPlan } from "./ofPlan.ts";
export {
  conditionsOfTest,
  type ClimbKnown,
  type RiddenDay,
  type RiddenHow,
  type RiddenRide,
} from "./ofTest.ts";
export { applyAll, LASTING_UNKNOWNS, UNKNOWNS, type RideUnknown } from "./unknowns.ts";
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
export { fitRoad, predicted, steadyWhPerM } from "./fit.ts";
export type { FitParameter, RoadFit, RoadRow } from "./fitTypes.ts";
