export { reckonTest } from "./reckon.ts";
export { packHistory, type PackHistory, type PackTest } from "./packHistory.ts";
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
