import type { ErrorSource } from "./sources.ts";
import type { CellCurve, Pack } from "#core/battery";

/** What a reading needs to know of the bike it was taken on. */
export interface Setting {
  readonly pack: Pack;
  readonly curve: CellCurve;
  /** Smallest step of the percent display: 1, 5, 10. */
  readonly percentStep: number;
  /** Whether the percent gauge counts charge or energy. */
  readonly counts: "charge" | "energy" | "volts";
  /** Bars of the display; 0 when it shows none. */
  readonly bars: number;
}

/** An unknown of the bike that a reading leans on: a bar's threshold, a meter's gain. Normal before any evidence. */
export interface ReadingUnknown {
  readonly key: string;
  /** What it belongs to: a device goes from bike to bike, a gauge's points stay with that gauge. */
  readonly of: "gauge" | "device";
  readonly mean: number;
  readonly sd: number;
  /** The error source it belongs to in the budget. */
  readonly source: ErrorSource;
}

/** One independent error of a reading. */
export interface RowError {
  readonly source: ErrorSource;
  readonly sd: number;
}

/** What may have been meant in place of what was typed: the row's value then, and the reading in words. */
export interface Alternative {
  readonly value: number;
  readonly text: string;
}

/**
 * What one reading says, as a row of the ledger: the sum of coefficients x fractions at marks, plus coefficients x
 * unknowns, equals `value`, within its errors. An energy reading says instead C (V_to - V_from) = wh(f), in Wh.
 */
export interface Row {
  readonly fractions: readonly { readonly mark: number; readonly coefficient: number }[];
  readonly unknowns: readonly { readonly unknown: ReadingUnknown; readonly coefficient: number }[];
  readonly value: number;
  readonly errors: readonly RowError[];
  /** A slow error shared with the other readings of the same process, correlated along f. */
  readonly smooth?: { readonly process: "gauge" | "curve"; readonly f: number } | undefined;
  /** What a slip is likely to have been meant for. */
  readonly alternatives?: readonly Alternative[] | undefined;
  /** Set on energy readings; `from` is absent when energy is counted from full. */
  readonly energy?:
    | {
        readonly from: number | undefined;
        readonly to: number;
        /** The span is a charge, not a ride: the fraction itself falls. */
        readonly charging?: true | undefined;
        /** Wh between the two fractions; depends on them only for a charge counter. */
        readonly wh: (fFrom: number, fTo: number) => number;
        /** Coefficient of the shared gain, Wh per sd. */
        readonly gain: (wh: number) => number;
        readonly gainUnknown: ReadingUnknown;
      }
    | undefined;
}

export const ROOT12 = Math.sqrt(12);

/** A row that fixes the fraction at one mark. */
export function fractionRow(
  mark: number,
  value: number,
  errors: readonly RowError[],
  smooth?: Row["smooth"],
): Row {
  return { fractions: [{ mark, coefficient: 1 }], unknowns: [], value, errors, smooth };
}

/** A row that says the fraction at a mark equals an unknown point of the bike. */
export function pointRow(mark: number, unknown: ReadingUnknown, errors: readonly RowError[]): Row {
  return {
    fractions: [{ mark, coefficient: 1 }],
    unknowns: [{ unknown, coefficient: -1 }],
    value: 0,
    errors,
  };
}
