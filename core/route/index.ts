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
  type Profile,
} from "./schema.ts";
export { buildRoute, reversed, type RouteSegment, type Route } from "./route.ts";
export { courseFromTrack, legClimbs } from "./fromTrack.ts";
