import type { ErrorSource } from "#core/battery/readings";
import type { LinearForm } from "./linearForm.ts";

/** One independent error of a row; `source` is null where it is no error source but a loose start. */
export interface LedgerError {
  readonly source: ErrorSource | null;
  readonly sd: number;
}

/** One row of the ledger: a form equals a value, within its errors. In fractions of the pack, or Wh for energy readings. */
export interface LedgerRow {
  readonly form: LinearForm;
  readonly value: number;
  readonly errors: readonly LedgerError[];
  /** What linearising added to both sides: taken off again where the row is shown. */
  readonly shift?: number;
  /** Least sd an exact row is given, so that no row is infinitely sure. */
  readonly floor: number;
}

/** The sd of what is called exact, in fractions of the pack: 0.02 Wh of a middling one. Much less would drown in rounding. */
export const EXACT = 3e-5;

/** The budget's name of what legs scatter about their level's rate. */
export const ROAD = "road scatter" satisfies ErrorSource;

/** How rows are weighed. */
export interface Weighing {
  /** The road's scatter against the usual; 1 unless said. */
  readonly scatter?: number;
  /** An error source taken as exactly known. */
  readonly without?: ErrorSource | undefined;
}

/** A row's sd. */
export function rowSd({ errors, floor }: LedgerRow, { scatter = 1, without }: Weighing = {}): number {
  let variance = 0;
  for (const { source, sd } of errors)
    if (source === null || source !== without) variance += (source === ROAD ? scatter * sd : sd) ** 2;
  return Math.max(Math.sqrt(variance), floor);
}
