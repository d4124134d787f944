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
export { layWay, reversed, type Passing, type Piece, type Way } from "./way.ts";
export { courseFromTrack, legClimbs } from "./fromTrack.ts";
