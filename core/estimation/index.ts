export { assumeSchema, ledgerInputSchema, type Gauge, type LedgerInput, type LedgerRide } from "./schema.ts";
export { logEvidence } from "./scatter.ts";
export { settingOf, solveLedger, type Solved, type SolvedLedger } from "./solve.ts";
export { answerLedger, type LedgerAnswer } from "./answer.ts";
export { budgetOf, type BudgetLine } from "./budget.ts";
export { bearings, type Bearing } from "./bearings.ts";
export { eachAlone, type AloneAnswer } from "./alone.ts";
export {
  flagSentence,
  judgeReadings,
  otherStory,
  standingsOf,
  type Judgement,
  type LedgerFlag,
  type OtherStory,
  type Standing,
} from "./slips.ts";
export { nextSteps, type NextMeasure, type NextStep } from "./next.ts";
export {
  barFigure,
  cellFigure,
  columnFigure,
  energyFigure,
  linearFigure,
  milesOf,
  notToldApart,
  rateFigure,
  rideFigure,
  studentShare,
  sumFigures,
  uncertain,
  usedBetween,
  usedOnRide,
  varianceOf,
  widening,
  type Figure,
} from "./figures.ts";
