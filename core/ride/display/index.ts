export { displaySampleSchema, displaySamplesSchema, type DisplaySample } from "./sample.ts";
export { displayHealth, watch, UNWATCHED, type DisplayHealth, type Watched } from "./watch.ts";
export {
  autoLog,
  autoLogFrom,
  sightingOf,
  startOf,
  AUTO_LOG_EVERY_M,
  type Logged,
  type AutoLog,
} from "./autoLog.ts";
export { addSample, CHUNK, noSamples, recordOf, type Samples } from "./samples.ts";
