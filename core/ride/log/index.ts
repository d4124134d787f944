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
export { type DistanceBasis, type KnownFactor } from "./places.ts";
export { type Timeline, type Leg, type LoggedReading, type LogSlip, type Mark } from "./timeline.ts";
export { FASTEST_MPS, SAME_PLACE_M } from "./possible.ts";
export { buildTimeline } from "./buildTimeline.ts";
export {
  readLine,
  writeLine,
  type Chip,
  type LineSetting,
  type ReadLine,
  type Unread,
} from "./line/index.ts";
export { totalOf, type TotalField } from "./totals.ts";
export { type TelemetryColumns } from "./telemetry.ts";
