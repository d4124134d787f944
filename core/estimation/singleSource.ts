import { METRES_PER_MILE, nth } from "#core/base";
import type { Estimate } from "#core/base";
import { EVIDENCE, evidenceOf, type Evidence, type Reading } from "#core/battery/readings";
import { rideFigure, estimateOf, birgeRatio } from "./figures.ts";
import type { LedgerInput } from "./schema.ts";
import { judgeReadings } from "./slips.ts";
import { solveLedger } from "./solve.ts";

/** Bars and refills, and a single reading of any kind, are counted from a full start. */
const FROM_FULL: readonly Evidence[] = ["bars", "refill", "runDown"];

export interface SingleSourceEstimate {
  readonly evidence: Evidence;
  readonly readings: readonly Reading[];
  /** Wh per metre of the ride, widened where its own readings disagree. */
  readonly whPerM: Estimate;
}

/** Least that readings must narrow what any ride costs (15 of 15 Wh/mi) to be an answer at all, Wh per metre. */
const LEAST_NEWS = 10 / METRES_PER_MILE;

/** What each kind of evidence alone would say of a ride's Wh per metre; kinds that say nothing by themselves are left out. */
export function singleSourceEstimates(input: LedgerInput, ride = 0): readonly SingleSourceEstimate[] {
  return EVIDENCE.flatMap((evidence): readonly SingleSourceEstimate[] => {
    const own = nth(input.rides, ride).readings.filter(({ kind }) => evidenceOf(kind) === evidence);
    if (own.length === 0) return [];
    const start =
      FROM_FULL.includes(evidence) || own.length === 1
        ? nth(input.rides, ride).readings.filter(({ kind }) => kind === "fullStart")
        : [];
    const solved = solveLedger({
      ...input,
      rides: [{ ...nth(input.rides, ride), readings: [...start, ...own] }],
    });
    if (!solved.ok) return [];
    // A slip is weighed here as it is with all kinds together.
    const { headline, without } = judgeReadings(solved.value);
    const { mean, sd } = estimateOf(headline, rideFigure(headline, 0));
    const whPerM = { mean, sd: sd * birgeRatio(without.posterior) };
    return whPerM.sd < LEAST_NEWS ? [{ evidence, readings: own, whPerM }] : [];
  });
}
