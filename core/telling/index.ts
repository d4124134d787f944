export { shownRows, tabbedText, type ShownTable } from "./shownTable.ts";
export { asSaid, spokenNumber } from "./asSaid.ts";
export { filmOf, type Chapter, type Cue } from "./film.ts";
export { readingRows } from "./readings.ts";
export * from "./sheet/index.ts";
export * from "./cards/index.ts";
