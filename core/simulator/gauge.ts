import { nth, DEFAULTS } from "#core/base";
import type { CellCurve } from "#core/battery";
import type { Rng } from "#core/world";

/** Places along the charge at which a slow error is drawn, and how far each reaches. */
const KNOTS = 24;

/**
 * A slow error along the charge with the sd and reach the model assumes: many bumps of random height, scaled to the sd.
 * Made otherwise than the ledger's nodes, on purpose.
 */
export function slowError(chance: Rng, sd: number): (f: number) => number {
  const reach = DEFAULTS.smoothLength / Math.SQRT2;
  const places = Array.from({ length: KNOTS }, (_, i) => -0.4 + (1.8 * i) / (KNOTS - 1));
  const heights = places.map(() => chance.normal());
  // The sum of squared bumps at the middle, the same everywhere on so dense a row.
  const power = places.reduce((sum, place) => sum + Math.exp(-((0.5 - place) ** 2) / reach ** 2), 0);
  return (f) =>
    (sd / Math.sqrt(power)) *
    places.reduce(
      (sum, place, i) => sum + nth(heights, i) * Math.exp(-((f - place) ** 2) / (2 * reach ** 2)),
      0,
    );
}

/** A display as it truly is. */
export interface TrueGauge {
  readonly percentStep: number;
  readonly bars: number;
  /** Fraction used at which each bar goes, first bar to go first. */
  readonly barsGo: readonly number[];
  readonly error: (f: number) => number;
  readonly stuckBelow: number;
  /** How much of the sag, as a fraction of the charge, the bars show. */
  readonly sagShare: number;
}

/** Draws a display: unequal bars, a slow error. */
export function drawGauge(
  chance: Rng,
  options: { readonly percentStep: number; readonly bars: number; readonly stuckBelow: number },
): TrueGauge {
  const { bars } = options;
  const barsGo = Array.from({ length: Math.max(0, bars - 1) }, (_, i) =>
    chance.normal((i + 1) / bars, DEFAULTS.barThresholdSd / bars),
  ).sort((a, b) => a - b);
  return {
    ...options,
    barsGo,
    error: slowError(chance, DEFAULTS.smoothSd),
    sagShare: chance.between(0.2, 0.6),
  };
}

/** Percent shown at a fraction used: counts charge, rounds, stands still at the bottom when stuck. */
export function percentShown(gauge: TrueGauge, curve: CellCurve, f: number): number {
  const q = curve.chargeAtFraction(f + gauge.error(f));
  const held = Math.max(q, gauge.stuckBelow);
  return Math.min(100, Math.max(0, Math.round((held * 100) / gauge.percentStep) * gauge.percentStep));
}

/** Bars shown: those whose point lies below; a load pulls them down, rest brings them back. */
export function barsShown(gauge: TrueGauge, f: number, sag: number): number {
  const seen = f + gauge.sagShare * sag;
  return gauge.bars - gauge.barsGo.filter((at) => at <= seen).length;
}
