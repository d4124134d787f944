import type { LiveEntry } from "#core/ride/log";
import { there, spanOf, unitToken, type Estimate } from "#core/base";

/** The display's own guess of the way left, brought to here, against the ledger's. */
export interface AgainstGuess {
  /** What the guess leaves from here, m. */
  readonly leftM: number;
  readonly says: "as the ledger" | "too far" | "too short";
  readonly sentence: string;
}

/**
 * Sets the display's newest guess beside the ledger's span.
 *
 * @param placeOf an entry's distance along the ride, m, where known; @param atM ridden so far
 */
export function againstGuess(
  entries: readonly LiveEntry[],
  placeOf: (rootId: string) => number | undefined,
  atM: number,
  toEnd: Estimate,
): AgainstGuess | null {
  const last = [...entries]
    .reverse()
    .find(({ struck, body }) => !struck && "rangeGuessM" in body && body.rangeGuessM !== undefined);
  if (!last || !("rangeGuessM" in last.body)) return null;
  const leftM = Math.max(0, there(last.body.rangeGuessM) - Math.max(0, atM - (placeOf(last.rootId) ?? atM)));
  const { low, high } = spanOf(toEnd);
  const says = leftM > high ? "too far" : leftM < low ? "too short" : "as the ledger";
  const words = `The display says ${unitToken(leftM, "distance", 0)} left`;
  const span = `${unitToken(low, "distance", 0)} to ${unitToken(high, "distance", 0)}`;
  return {
    leftM,
    says,
    sentence:
      says === "as the ledger"
        ? `${words}; the ledger agrees.`
        : `${words}; the ledger says ${span}. Go by the ledger.`,
  };
}
