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
