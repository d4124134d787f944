import type { Form } from "./forms.ts";

/** One independent error of a row; `source` is null where it is no error source but a loose start. */
export interface LedgerError {
  readonly source: string | null;
  readonly sd: number;
}

/** One row of the ledger: a form equals a value, within its errors. In fractions of the pack, or Wh for energy readings. */
export interface LedgerRow {
  readonly form: Form;
  readonly value: number;
  readonly errors: readonly LedgerError[];
  /** What linearising added to both sides: taken off again where the row is shown. */
  readonly shift?: number;
  /** Least sd an exact row is given, so that no row is infinitely sure. */
  readonly floor: number;
}

/** The sd of what is called exact, in fractions of the pack: 0.02 Wh of a middling one. Much less would drown in rounding. */
export const EXACT = 3e-5;

/** A row's sd, with one source taken as exactly known if named. */
export function rowSd({ errors, floor }: LedgerRow, without?: string): number {
  const variance = errors.reduce((sum, { source, sd }) => (source === without ? sum : sum + sd * sd), 0);
  return Math.max(Math.sqrt(variance), floor);
}
