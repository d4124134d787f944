export { reckonTest } from "./reckon.ts";
export { recordSetting } from "./input.ts";
export { sourceWords } from "./words.ts";
export type {
  CurvePoint,
  DoubtLine,
  DrawnReading,
  EndView,
  EvidenceAlone,
  Explained,
  Flag,
  LoggedSeries,
  PackLearned,
  PartUse,
  PlainResult,
  ReadingRow,
  StretchUse,
  Surer,
  TestResults,
} from "./types.ts";
