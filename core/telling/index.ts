export { shownRows, tabbedText, type ShownTable } from "./shownTable.ts";
export { asSaid, spokenNumber } from "./asSaid.ts";
export { filmOf, type Chapter, type Cue, type Film } from "./film.ts";
export { readingRows, type ReadingCells } from "./readings.ts";
export * from "./sheet/index.ts";
export * from "./cards/index.ts";
