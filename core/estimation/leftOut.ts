import { nth } from "#core/base";
import type { Part } from "./mixture.ts";
import type { Residual } from "./posterior.ts";

/** What the others say of one reading. */
export interface LeftOut {
  /** The reading less what the others expect, in the row's own units, and the sd of that. */
  readonly residual: number;
  readonly sd: number;
  /** The residual in its sds: one figure for table and alert. */
  readonly standing: number;
  /** Log density of the others alone over that of all. */
  readonly logRatio: number;
  /** By part: its weight were this reading not there, and the reading in it. */
  readonly parts: readonly {
    readonly weight: number;
    readonly residual: Residual;
    /** The reading less what the others expect, and the variance of that, in the row's units. */
    readonly off: number;
    readonly variance: number;
  }[];
}

const LN_2PI = Math.log(2 * Math.PI);

/**
 * Each reading against the answer without it, from the parts that hold it; no second solve is needed. A part that explains
 * the reading badly weighs more once the reading is away.
 */
export function leaveOneOut(parts: readonly Part[]): readonly LeftOut[] {
  const told = parts.map(({ posterior }) => posterior.residuals());
  return nth(told, 0).map((_, i) => {
    const each = parts.map(({ weight }, p) => {
      const residual = nth(nth(told, p), i);
      const variance = (residual.sd * residual.sd) / residual.free;
      const off = (residual.sd * residual.residual) / residual.free;
      // Log density of the reading given the others.
      const log = -0.5 * (LN_2PI + Math.log(variance) + (off * off) / variance);
      return { residual, variance, off, log: Math.log(Math.max(weight, Number.MIN_VALUE)) - log };
    });
    const most = Math.max(...each.map(({ log }) => log));
    const sum = each.reduce((total, { log }) => total + Math.exp(log - most), 0);
    const weighed = each.map((one) => ({ ...one, weight: Math.exp(one.log - most) / sum }));
    const residual = weighed.reduce((total, { weight, off }) => total + weight * off, 0);
    const variance = weighed.reduce(
      (total, { weight, off, variance: within }) => total + weight * (within + (off - residual) ** 2),
      0,
    );
    const sd = Math.sqrt(variance);
    return {
      residual,
      sd,
      standing: residual / sd,
      logRatio: most + Math.log(sum),
      parts: weighed.map(({ weight, residual: own, off, variance: within }) => ({
        ...{ weight, off },
        residual: own,
        variance: within,
      })),
    };
  });
}
