export { analyseTest } from "./analyse.ts";
export { prepareTest, type PreparedTest } from "./prepare.ts";
export { gaugeHistory, type GaugeHistory } from "./gaugeHistory.ts";
export { cutRecord, lengthOf } from "./cut.ts";
export { packHistory, type PackHistory, type PackTest } from "./packHistory.ts";
export { recordSetting } from "./input.ts";
export { countedWords, listed, sourceWords } from "./words.ts";
export type {
  CurvePoint,
  DoubtLine,
  DrawnReading,
  EndView,
  EvidenceAlone,
  Explained,
  Flag,
  GaugeSeen,
  LoggedSeries,
  PackLearned,
  PartUse,
  PlainResult,
  Quarter,
  Quarters,
  ReadingRow,
  SteadyUse,
  StretchUse,
  Surer,
  NotedOnWay,
  TestResults,
} from "./types.ts";
export { headlineOf, type Headline } from "./headline.ts";
export { digestOf, isDigest, type TestDigest } from "./digest.ts";
export { knownFor, learnedOf, stillShown, type LearnedOfTests } from "./known.ts";
