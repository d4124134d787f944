export { ledgerInputSchema, type Gauge, type LedgerInput, type LedgerRide } from "./schema.ts";
export { logEvidence } from "./scatter.ts";
export { pointForm, priorOf } from "./known.ts";
export { metersOff } from "./meterOff.ts";
export { settingOf, solveLedger, type Solved, type SolvedLedger } from "./solve.ts";
export { scatterSd } from "./travel.ts";
export { answerLedger } from "./answer.ts";
export { budgetOf, type BudgetLine } from "./budget.ts";
export { influences, type Influence } from "./influence.ts";
export { singleSourceEstimates, type SingleSourceEstimate } from "./singleSource.ts";
export { flagSentence, judgeReadings, otherStory, standingsOf, type Judgement } from "./slips.ts";
export { worthDoing, WORTH_SAYING } from "./worthDoing.ts";
export { rankMeasurements, type NextMeasure } from "./rankMeasurements.ts";
export {
  cellFigure,
  columnFigure,
  energyFigure,
  linearFigure,
  metresOf,
  isUnidentifiable,
  rideFigure,
  studentShare,
  sumFigures,
  estimateOf,
  usedBetween,
  usedOnRide,
  varianceOf,
  birgeRatio,
  type Figure,
} from "./figures.ts";
