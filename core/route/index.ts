export { courseParts, type CoursePart } from "./parts.ts";
export {
  COURSE_FIELDS,
  courseSchema,
  LEG_FIELDS,
  PLACE_FIELDS,
  legsLength,
  type Course,
  type CourseLeg,
  type CoursePlace,
  type PlaceKind,
  type Profile,
  type Shape,
} from "./schema.ts";
export { buildRoute, reversed, type Passing, type RouteSegment, type Route } from "./route.ts";
export { courseFromTrack, legClimbs } from "./fromTrack.ts";
