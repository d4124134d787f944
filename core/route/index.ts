export { courseParts, type CoursePart } from "./parts.ts";
export {
  courseSchema,
  legsLength,
  PLACES,
  SHAPES,
  type Course,
  type CourseLeg,
  type CoursePlace,
  type PlaceKind,
  type Profile,
  type Shape,
} from "./schema.ts";
export { buildRoute, reversed, type Passing, type RouteSegment, type Route } from "./route.ts";
export { courseFromTrack, legClimbs } from "./fromTrack.ts";
