import { there, nth, sumOf } from "#core/base";
import type { Estimate } from "#core/base";

/**
 * A figure with its errors told apart: what one sd of each named source does to it. Figures that lean on the same source
 * share its name, so that it cancels between them as far as it moves both alike.
 */
export interface ErrorComponents {
  readonly mean: number;
  /** By source, "capacity:PACK" or "drag:BIKE": change for one sd, in the figure's unit. */
  readonly effects: Readonly<Record<string, number>>;
}

/**
 * The figure with all its errors in one sd.
 *
 * @example combine({ mean: 14, effects: { capacity: 3, wind: 4 } }).sd === 5
 */
export function combine({ mean, effects }: ErrorComponents): Estimate {
  let variance = 0;
  for (const key in effects) variance += nth(effects, key) * nth(effects, key);
  return { mean, sd: Math.sqrt(variance) };
}

/** A sum of figures x factors: shared sources add up before they are squared. */
export function weightedSum(terms: readonly (readonly [ErrorComponents, number])[]): ErrorComponents {
  const effects: Record<string, number> = {};
  let mean = 0;
  for (const [figure, factor] of terms) {
    mean += factor * figure.mean;
    for (const key in figure.effects) effects[key] = (effects[key] ?? 0) + factor * nth(figure.effects, key);
  }
  return { mean, effects };
}

/** One less another, with what they share cancelled. `differenceOf(x, x)` is zero without error. */
export function differenceOf(a: ErrorComponents, b: ErrorComponents): ErrorComponents {
  return weightedSum([
    [a, 1],
    [b, -1],
  ]);
}

/** A function of a figure, by its value and slope there (the delta method). */
export function mapComponents(
  { mean, effects }: ErrorComponents,
  value: (x: number) => number,
  slope: number,
): ErrorComponents {
  return {
    mean: value(mean),
    effects: Object.fromEntries(Object.entries(effects).map(([key, effect]) => [key, effect * slope])),
  };
}

/** Sources that only one of the figures leans on. */
function ownSources(figures: readonly ErrorComponents[]): (key: string) => boolean {
  const count = new Map<string, number>();
  for (const { effects } of figures) for (const key in effects) count.set(key, (count.get(key) ?? 0) + 1);
  return (key) => count.get(key) === 1;
}

/**
 * Several figures of one thing as one: weighed by their own variances, errors they share kept whole, and widened where
 * they disagree by more than their own errors allow.
 *
 * @returns the only one as it is; at least one must be given
 */
export function weightedMean(figures: readonly ErrorComponents[]): ErrorComponents {
  const [only] = figures;
  if (figures.length === 1) return there(only);
  const own = ownSources(figures);
  const variances = figures.map(({ effects }) =>
    Object.entries(effects).reduce((sum, [key, effect]) => sum + (own(key) ? effect * effect : 0), 0),
  );
  const least = Math.max(...variances) * 1e-9 || 1;
  const weights = variances.map((variance) => 1 / Math.max(variance, least));
  const whole = sumOf(weights);
  const pool = weightedSum(figures.map((figure, i) => [figure, nth(weights, i) / whole] as const));
  const misfit =
    figures.reduce((sum, { mean }, i) => sum + nth(weights, i) * (mean - pool.mean) ** 2, 0) /
    (figures.length - 1);
  if (!(misfit > 1)) return pool;
  const wide = Math.sqrt(misfit);
  return {
    mean: pool.mean,
    effects: Object.fromEntries(
      Object.entries(pool.effects).map(([key, effect]) => [key, own(key) ? effect * wide : effect]),
    ),
  };
}
