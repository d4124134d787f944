import { rideFigure, solveLedger, varianceOf, type LedgerInput, type Solved } from "#core/estimation";

/** Sd of a ride's energy per metre, by its ledger. */
export const rideSd = (solved: Solved, ride = 0) =>
  Math.sqrt(varianceOf(solved.posterior, rideFigure(solved, ride)));

/** A ledger that was made to be solved; null when its readings say nothing. */
export const solve = (input: LedgerInput): Solved | null => {
  const solved = solveLedger(input);
  return solved.ok ? solved.value : null;
};
