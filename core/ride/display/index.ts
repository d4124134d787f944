export { shownSchema, shownRowsSchema, type Shown } from "./shown.ts";
export { healthOf, watch, UNWATCHED, type Health, type Watched } from "./watch.ts";
export {
  selfLog,
  selfLogFrom,
  sightingOf,
  startOf,
  SELF_EVERY_M,
  type Logged,
  type SelfLog,
} from "./selfLog.ts";
export { addSample, CHUNK, noSamples, recordOf, type Samples } from "./samples.ts";
