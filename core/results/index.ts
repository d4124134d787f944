export { reckonTest } from "./reckon.ts";
export { readingText, sourceWords } from "./words.ts";
export type {
  CurvePoint,
  DrawnReading,
  Explained,
  Flag,
  PartUse,
  PlainResult,
  StretchUse,
  TestResults,
} from "./types.ts";
