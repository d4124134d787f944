export { readNarration, type Item, type Narration } from "./read.ts";
export type { Question } from "./questions.ts";
export { levelOn, saidEntries, type RiddenBike } from "./entries.ts";
export { FACT_FIELDS, factsOf, type Fact } from "./facts.ts";
export { quickNotes } from "./quickNotes.ts";
