import type { BudgetLine } from "#core/ledger";
import type { Course } from "#core/log";
import type { Uncertain } from "#core/quantities";

/** A figure with the sentence that says where it comes from. */
export interface Explained {
  readonly value: Uncertain;
  readonly because: string;
  /** Reckoned beyond what was measured: drawn in pencil. */
  readonly pencil: boolean;
}

export interface PlainResult {
  readonly energyWh: number;
  /** Wh per metre. */
  readonly whPerM: number;
  readonly rangeM: number;
  readonly because: string;
}

/** The discharge curve at a mark, fraction used with its sd. */
export interface CurvePoint {
  readonly distanceM: number;
  readonly used: Uncertain;
}

/** One reading as drawn on the strip: where it puts the curve, and how far it stands from the rest. */
export interface DrawnReading {
  readonly rootId: string;
  readonly field: string | null;
  readonly kind: string;
  readonly mark: number;
  readonly distanceM: number;
  /** Fraction used that the reading says, with its own 1 sd; null for energy readings. */
  readonly says: Uncertain | null;
  readonly struck: boolean;
  /** Residual against the answer without it, sds; null when struck. */
  readonly standing: number | null;
  readonly text: string;
}

export interface Flag {
  readonly rootId: string;
  readonly field: string | null;
  readonly distanceM: number;
  readonly standing: number;
  readonly sentence: string;
}

export interface StretchUse {
  readonly fromM: number;
  readonly toM: number;
  readonly level: string;
  readonly ground: string;
  readonly whPerM: Uncertain;
}

export interface PartUse {
  readonly level: string;
  readonly ground: string;
  readonly distanceM: number;
  /** Null when the readings do not tell this part from the others. */
  readonly whPerM: Uncertain | null;
}

/** Everything the screens show of one test. SI: Wh per metre, metres, Wh. All sds are widened and hold the distance error where they should. */
export interface TestResults {
  readonly best: Explained;
  readonly plain: PlainResult | null;
  readonly plainMissing: string | null;
  /** Why plain and best differ, in one sentence; null without a plain answer. */
  readonly difference: string | null;
  readonly energy: Explained;
  readonly distance: Explained;
  readonly capacity: Explained;
  readonly rangeTotal: Explained | null;
  readonly rangeFullPower: Explained | null;
  readonly rangeWithReserve: Explained | null;
  readonly movingS: number | null;
  readonly meanSpeedMps: number | null;
  readonly topSpeedMps: number | null;
  readonly climbM: number | null;
  readonly curve: readonly CurvePoint[];
  readonly stretches: readonly StretchUse[];
  readonly parts: readonly PartUse[];
  readonly readings: readonly DrawnReading[];
  readonly flags: readonly Flag[];
  /** Wh per metre were the readings in question set aside; null when none is. */
  readonly bestWithoutFlags: Uncertain | null;
  readonly budget: readonly BudgetLine[];
  /** Factor by which disagreement among the readings widened every sd; 1 when they agree. */
  readonly widened: number;
  readonly chi2PerReading: number;
  readonly odometer: {
    readonly k: number;
    readonly sd: number;
    readonly warn: boolean;
    readonly impliedCircumferenceMm: number | null;
  } | null;
  readonly notices: readonly string[];
  readonly course: Course;
}
