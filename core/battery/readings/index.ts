export {
  checkReading,
  countedText,
  evidenceOf,
  likelySlip,
  markOf,
  readingName,
  readingSchema,
  readingText,
  rowOf,
  type Reading,
  type ReadingKindName,
} from "./registry.ts";
export { percentSays } from "./percent.ts";
export { barThreshold, bowAt } from "./bars.ts";
export { sumTelemetry } from "./telemetry.ts";
export type { Row, Setting, ReadingUnknown } from "./row.ts";
export { EVIDENCE, type Evidence } from "./kind.ts";
export { ERROR_SOURCES, type ErrorSource } from "./sources.ts";
