export { number, words } from "./fields.ts";
export {
  BAR_LOOKS,
  bikeSchema,
  claimedSpan,
  POWER_DISPLAYS,
  SENSORS,
  type Bike,
  type Claim,
  type Reported,
} from "./bike.ts";
export {
  capacityOn,
  measuredEarlier,
  measurementsOf,
  packRecordSchema,
  type MeasuredCapacity,
  type PackRecord,
} from "./pack.ts";
export { riderSchema, type Rider } from "./rider.ts";
export { POSTURES, setUpSchema, TYRES, type SetUp } from "./setUp.ts";
export { INSTRUMENTS, instrumentSchema, type Instrument } from "./instrument.ts";
export { benchSchema, type Bench } from "./bench.ts";
export {
  MOST_POINTS,
  MOST_SAMPLES,
  SCHOOLS,
  telemetrySchema,
  testRecordSchema,
  testFields,
  testSchema,
  windSense,
  trackSchema,
  utcOffsetSchema,
  type TelemetryRecord,
  type Test,
  type TestRecord,
  type TrackRecord,
} from "./test.ts";
export { EFFORTS, type Effort } from "./effort.ts";
export { DRIVES, type Drive } from "./drive.ts";
export {
  DIRECTIONS,
  sweepRowSchema,
  sweepSchema,
  type OpenSweepRow,
  type Sweep,
  type SweepRow,
} from "./sweep.ts";
export { climbSchema, type ClimbRecord } from "./climb.ts";
export { referenceSchema, type ReferenceRecord } from "./reference.ts";
