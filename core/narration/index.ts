export { readNarration, type Item, type LeftOut, type Narration, type Place } from "./read.ts";
export type { ReadingKind, SetUpKind } from "./found.ts";
export type { Question } from "./questions.ts";
export { levelOn, saidEntries, type RiddenBike, type SaidEntry } from "./entries.ts";
export { FACT_FIELDS, factsOf, type Fact } from "./facts.ts";
export { quickNotes } from "./quickNotes.ts";
