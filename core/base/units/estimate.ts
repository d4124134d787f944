/** A value with its standard deviation, both in the same unit. */
export interface Estimate {
  readonly mean: number;
  readonly sd: number;
  /** What it cannot be less than, where that is more than nought: a range is never less than what was ridden. */
  readonly floor?: number;
}

/** One-sided 95 % of a normal, in sds. */
export const Z_ONE_SIDED_95 = 1.644854;
/** Half-width of the central 95 % of a normal, in sds. The interface's plus-or-minus is this many sds. */
export const Z_95 = 1.959964;

/**
 * The plus-or-minus a person sees: half the 95 % span. Example: `plusOrMinus({ mean: 14, sd: 0.5 })` is 0.98.
 *
 * @example halfWidth95({ mean: 12, sd: 1 }).toFixed(2) === "1.96"
 */
export function halfWidth95(value: Estimate): number {
  return Z_95 * value.sd;
}

/**
 * Multiplies both by a constant, for a change of unit.
 *
 * @example scale({ mean: 14, sd: 0.5 }, 10).mean === 140
 */
export function scale(value: Estimate, factor: number): Estimate {
  const { mean, sd, floor } = value;
  return {
    mean: mean * factor,
    sd: sd * Math.abs(factor),
    ...(floor !== undefined && factor > 0 && { floor: floor * factor }),
  };
}

/** Adds a relative error, in quadrature, for example the distance's to a Wh/mi. `withRelative({mean:10,sd:0},0.01).sd === 0.1`. */
export function withRelative(value: Estimate, relativeSd: number): Estimate {
  return { mean: value.mean, sd: Math.hypot(value.sd, value.mean * relativeSd) };
}

/** Widens the sd alone by a factor, as when readings disagree. `widen({ mean: 10, sd: 1 }, 2).sd === 2`. */
export function widen({ mean, sd }: Estimate, factor: number): Estimate {
  return { mean, sd: sd * factor };
}
