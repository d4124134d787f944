export { number, words } from "./fields.ts";
export { BIKE_FIELDS, bikeSchema, claimedSpan, type Bike, type Claim, type Reported } from "./bike.ts";
export {
  capacityOn,
  measuredEarlier,
  measurementsOf,
  PACK_FIELDS,
  packRecordSchema,
  type PackRecord,
} from "./pack.ts";
export { type HeldByPack, type Known, type ShownOfDisplay } from "./learned.ts";
export { RIDER_FIELDS, riderSchema, type Rider } from "./rider.ts";
export { SET_UP_FIELDS, setUpSchema, type SetUp } from "./setUp.ts";
export { INSTRUMENT_FIELDS, instrumentNamed, instrumentSchema, type Instrument } from "./instrument.ts";
export { BENCH_FIELDS, benchSchema, type Bench } from "./bench.ts";
export {
  SCHOOLS,
  TEST_FIELDS,
  testRecordSchema,
  testFields,
  testSchema,
  windSense,
  zoneSchema,
  type Test,
  type TestRecord,
} from "./test.ts";
export {
  MOST_POINTS,
  MOST_SAMPLES,
  telemetrySchema,
  TRACK_CHANNELS,
  trackSchema,
  type TelemetryRecord,
  type TrackChannel,
  type TrackRecord,
  type TrackSums,
} from "./recording.ts";
export { EFFORTS, type Effort } from "./effort.ts";
export { DRIVES, type Drive } from "./drive.ts";
export {
  SWEEP_COLUMNS,
  SWEEP_ROW_FIELDS,
  sweepRowSchema,
  sweepSchema,
  type OpenSweepRow,
  type SweepColumn,
  type Sweep,
  type SweepRow,
} from "./sweep.ts";
export { CLIMB_FIELDS, climbSchema, type ClimbRecord } from "./climb.ts";
export { REFERENCE_FIELDS, referenceSchema, type ReferenceRecord } from "./reference.ts";
