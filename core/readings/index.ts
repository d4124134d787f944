export {
  checkReading,
  markOf,
  readingName,
  readingSchema,
  rowOf,
  type Reading,
  type ReadingKindName,
} from "./registry.ts";
export { percentSays } from "./percent.ts";
export { barThreshold } from "./bars.ts";
export type { Row, Setting, Unknown } from "./row.ts";
