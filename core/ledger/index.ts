export { ledgerInputSchema, type LedgerInput, type LedgerRide } from "./schema.ts";
export { settingOf, solveLedger, type Solved } from "./solve.ts";
export { answerLedger, rideFigure, widening, type LedgerAnswer } from "./answer.ts";
export { budgetOf, type BudgetLine } from "./budget.ts";
export {
  energyFigure,
  linearFigure,
  milesOf,
  notToldApart,
  usedBetween,
  variableFigure,
  withSds,
  type Figure,
} from "./figures.ts";
