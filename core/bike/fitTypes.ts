import type { Ground } from "#core/fields";
import type { Estimate } from "#core/base";
import type { RoadState } from "./power.ts";

/** Energy per metre at one steady speed on one ground, and how it was ridden. SI units. */
export interface RoadRow {
  /** In words, for when it stands off: "15 mph on brick". */
  readonly name: string;
  readonly state: RoadState & { readonly ground: Ground };
  /** Wh per metre. */
  readonly measured: Estimate;
  /** Ridden one way only: wind and slope may be in it. */
  readonly oneWay: boolean;
  /** Doubt of what the rider put in, W. */
  readonly riderSdW: number;
}

/** One thing that was fitted, in its own unit, against what is assumed of it. */
export interface FitParameter {
  readonly name: string;
  readonly value: Estimate;
  readonly assumed: Estimate;
  /** Rows that bear on it; none: it is what was assumed. */
  readonly rows: number;
}

export interface RoadFit {
  /** Rolling resistance by ground, drag area, the motor's share: in sds of their assumptions, in the order of `names`. */
  readonly z: readonly number[];
  readonly covariance: readonly (readonly number[])[];
  readonly grounds: readonly Ground[];
  readonly parameters: readonly FitParameter[];
  readonly rows: readonly {
    readonly name: string;
    readonly measured: Estimate;
    /** Wh per metre. */
    readonly fitted: number;
    /** Residual in sds of the row. */
    readonly standing: number;
    readonly outlier: boolean;
    readonly oneWay: boolean;
  }[];
  /** Squared residuals of the rows, over their number. */
  readonly chi2PerRow: number;
  /** What the fit knows and does not, in sentences. */
  readonly words: readonly string[];
}
