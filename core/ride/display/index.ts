export { displaySamplesSchema, type DisplaySample } from "./sample.ts";
export { displayHealth, watch, UNWATCHED, type DisplayHealth, type Watched } from "./watch.ts";
export { autoLog, autoLogFrom, sightingOf, startOf, type Logged } from "./autoLog.ts";
export { addSample, CHUNK, noSamples, recordOf, type Samples } from "./samples.ts";
