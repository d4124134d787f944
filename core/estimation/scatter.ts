import { DEFAULTS, nth } from "#core/base";
import type { Part } from "./mixture.ts";
import type { GaussianPosterior } from "./posterior.ts";

/**
 * How much the road scatters is learned on the ride: the scales tried, steps of root 2. A hill, a headwind or a stop makes
 * some rides far more uneven than others.
 */
export const SCATTER_SCALES = [0.5, 0.71, 1, 1.41, 2, 2.83, 4, 5.66, 8] as const;

/** Log prior of a scale: ln scale ~ N(0, lnSd). */
const logPrior = (scale: number) => -0.5 * (Math.log(scale) / (DEFAULTS.scatterLnSd || 1)) ** 2;

/** Log density of a ledger's readings, the road's scatter integrated: what weighs one account of them against another. */
export function logEvidence(parts: readonly Part[]): number {
  const logs = parts.map(({ scatter, posterior }) => posterior.logDensity + logPrior(scatter));
  const best = Math.max(...logs);
  return best + Math.log(logs.reduce((sum, log) => sum + Math.exp(log - best), 0));
}

/**
 * The answer under each scale of the road's scatter, weighed by the density of the readings under it.
 *
 * Where the scatter is not in doubt, the usual scale alone.
 *
 * @param solveAt solves the ledger at one scale; null when it cannot be solved
 */
export function scatterParts(solveAt: (scale: number) => GaussianPosterior | null): readonly Part[] | null {
  const found: Omit<Part, "weight">[] = [];
  for (const scatter of DEFAULTS.scatterLnSd > 0 ? SCATTER_SCALES : [1]) {
    const posterior = solveAt(scatter);
    if (!posterior) return null;
    found.push({ scatter, posterior });
  }
  return weighedParts(found);
}

/** Answers under each scale, weighed by the density of the readings under it and the scale's prior. */
export function weighedParts(found: readonly Omit<Part, "weight">[]): readonly Part[] {
  const logs = found.map(({ scatter, posterior }) => posterior.logDensity + logPrior(scatter));
  const best = Math.max(...logs);
  const sum = logs.reduce((total, log) => total + Math.exp(log - best), 0);
  return found.map((part, i) => ({ ...part, weight: Math.exp(nth(logs, i) - best) / sum }));
}

/** The scales with their probabilities, whatever else the parts differ in. */
export function scalesOf(parts: readonly Part[]): readonly (readonly [scale: number, weight: number])[] {
  const found = new Map<number, number>();
  for (const { scatter, weight } of parts) found.set(scatter, (found.get(scatter) ?? 0) + weight);
  return [...found];
}
