import { budgetOf, type Figure, type Solved } from "#core/ledger";
import { METRES_PER_MILE } from "#core/quantities";
import type { DoubtLine } from "./types.ts";

/** Each error source's part in a Wh/mi's doubt: the fall in variance, (Wh/m)^2, and its share of all the falls. */
export function doubt(solved: Solved, figure: Figure): readonly DoubtLine[] {
  const lines = budgetOf(solved, figure);
  const whole = lines.reduce((sum, { variance }) => sum + variance, 0);
  return lines.map(({ source, variance }) => ({
    source,
    variance: variance / METRES_PER_MILE ** 2,
    share: variance / whole,
  }));
}
