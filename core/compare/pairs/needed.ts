import type { ErrorSource } from "#core/battery/readings";
import { Z_95 } from "#core/base";
import type { BudgetLine } from "#core/estimation";
import type { Estimate } from "#core/base";

/** What would make sure of a difference of this size. */
export interface Needed {
  /** Runs of each like these; null when no number within reason would, or nothing is to be resolved. */
  readonly runs: number | null;
  /** How many times as long the way must be; null likewise. */
  readonly length: number | null;
}

const MOST_RUNS = 60;
const MOST_LENGTH = 20;
/** Errors that stay the same share of the figure however long the way is. */
const STAYS = new Set<ErrorSource>(["capacity", "meter gain", "logger gain", "charger efficiency", "climb"]);

/**
 * Runs or length that would make the sign of a difference sure. Repeats halve the variance as they double. On a longer way the road's
 * scatter falls with its length and the readings' errors with its square, while shares stay.
 *
 * @param budget of the difference's variance by source; @param runs of each that were ridden
 */
export function neededFor(difference: Estimate, budget: readonly BudgetLine[], runs: number): Needed {
  const { mean, sd } = difference;
  if (mean === 0 || sd === 0) return { runs: null, length: null };
  const byRuns = Math.ceil(runs * ((Z_95 * sd) / mean) ** 2);
  const falls = budget.reduce((sum, { variance }) => sum + variance, 0);
  const shareOf = (is: (source: ErrorSource) => boolean) =>
    budget.reduce((sum, { source, variance }) => sum + (is(source) ? variance / falls : 0), 0);
  const road = shareOf((source) => source === "road scatter");
  const stays = shareOf((source) => STAYS.has(source));
  const read = 1 - road - stays;
  const sdAt = (times: number) => sd * Math.sqrt(read / times ** 2 + road / times + stays);
  let length: number | null = null;
  for (let times = 1; times <= MOST_LENGTH && length === null; times += 0.1)
    if (Z_95 * sdAt(times) < Math.abs(mean)) length = Number(times.toFixed(1));
  return { runs: byRuns <= MOST_RUNS ? Math.max(runs, byRuns) : null, length };
}
