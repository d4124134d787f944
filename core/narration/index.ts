export { narrationOf, readNarration, type Item, type LeftOut, type Narration, type Place } from "./read.ts";
export { READING_KINDS, SET_UP_KINDS, type ReadingKind, type SetUpKind } from "./found.ts";
export type { Question } from "./questions.ts";
export { levelOn, saidEntries, type RiddenBike, type SaidEntry } from "./entries.ts";
