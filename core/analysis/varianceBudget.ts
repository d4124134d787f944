import { budgetOf, type BudgetLine, type Figure, type Solved } from "#core/estimation";
import type { ErrorSource } from "#core/battery/readings";
import { type Estimate } from "#core/base";
import type { DoubtLine } from "./types.ts";

/** The distance's own error in the budget, beside the ledger's sources. */
export const DISTANCE_SOURCE = "distance" satisfies ErrorSource;

/**
 * Each error source's part in a Wh per metre's doubt: how far its variance falls and what sd is left were the source known.
 * The falls need not sum to the whole: sources that stand in for one another each show less than both together.
 *
 * @param best the answer, Wh per metre; @param relativeSd of its distance; @param wide factor of the ledger's sds
 */
export function varianceBudget(
  solved: Solved,
  figure: Figure,
  { best, relativeSd, wide }: { readonly best: Estimate; readonly relativeSd: number; readonly wide: number },
): readonly DoubtLine[] {
  const byLedger = budgetOf(solved, figure).map(({ source, variance }) => ({
    source,
    variance: variance * wide ** 2,
  }));
  const byDistance: BudgetLine = { source: DISTANCE_SOURCE, variance: (best.mean * relativeSd) ** 2 };
  const lines = [...byLedger, byDistance]
    .filter(({ variance }) => variance > 0)
    .sort((a, b) => b.variance - a.variance);
  const whole = lines.reduce((sum, { variance }) => sum + variance, 0);
  return lines.map(({ source, variance }) => ({
    source,
    variance,
    share: variance / whole,
    sdLeft: Math.sqrt(Math.max(0, best.sd ** 2 - variance)),
  }));
}
