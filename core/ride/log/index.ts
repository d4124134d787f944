export {
  entryBodySchema,
  entrySchema,
  isTimely,
  READING_FIELDS,
  STRIKE_FIELDS,
  TOTAL_FIELDS,
  type Entry,
  type EntryBody,
  type ReadingField,
  type StrikeField,
} from "./entry.ts";
export { checkEntry } from "./check.ts";
export { foldLog, type LiveEntry } from "./fold.ts";
export { type KnownFactor } from "./places.ts";
export { type Timeline, type LoggedReading, type Mark } from "./timeline.ts";
export { FASTEST_MPS, SAME_PLACE_M } from "./possible.ts";
export { buildTimeline } from "./buildTimeline.ts";
export { readLine, writeLine, type LineSetting } from "./line/index.ts";
export { totalOf, type TotalField } from "./totals.ts";
