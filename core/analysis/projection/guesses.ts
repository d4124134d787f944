import { err, ok, type Result, type Estimate, meanOf } from "#core/base";

/** What the display guessed at a check-in: ridden so far plus left, against what it came to. Metres. */
export interface GuessAt {
  readonly distanceM: number;
  readonly guessM: number;
  /** Guessed total less the real one. */
  readonly offM: number;
}

export interface GuessAudit {
  readonly guesses: readonly GuessAt[];
  /** Mean of what it was off by, and the worst. */
  readonly biasM: number;
  readonly worst: GuessAt;
}

/**
 * The display's guesses of the way left, each added to the way ridden, against the range in the end. Source: docs/method.md.
 *
 * @param total range from full, ridden or projected, m
 * @example guesses 20 and 12 at 5 and 15 of a total of 24: off +1 and +3, bias 2, worst at 15
 */
export function auditGuesses(
  seen: readonly { readonly distanceM: number; readonly guessM: number }[],
  total: Estimate,
): Result<GuessAudit> {
  if (seen.length === 0)
    return err("no-guesses", "entries", "Nobody noted the display's guess: type it as ~28mi left.");
  const guesses = seen.map(({ distanceM, guessM }) => ({
    distanceM,
    guessM,
    offM: distanceM + guessM - total.mean,
  }));
  return ok({
    guesses,
    biasM: meanOf(guesses.map(({ offM }) => offM)),
    worst: guesses.reduce((worst, each) => (Math.abs(each.offM) > Math.abs(worst.offM) ? each : worst)),
  });
}
