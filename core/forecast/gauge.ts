import { DEFAULTS, Z_95, type Estimate } from "#core/base";
import type { CellCurve } from "#core/battery";

/** Least and most of the central 95 %, and what is expected. */
export interface Span {
  readonly expected: number;
  readonly low: number;
  readonly high: number;
}

/** A display and the pack behind it. */
export interface Display {
  /** 0 when it shows none. */
  readonly percentStep: number;
  readonly counts: "charge" | "energy" | "volts";
  readonly bars: number;
  /** 0 when it shows none. */
  readonly meterStepV: number;
  readonly seriesCells: number | undefined;
  readonly curve: CellCurve;
}

const within = (fraction: number) => Math.min(1, Math.max(0, fraction));

/** The span of something that falls as the fraction used rises. */
function falling(used: Estimate, sd: number, read: (fraction: number) => number): Span {
  const half = Z_95 * Math.hypot(used.sd, sd);
  return { expected: read(used.mean), low: read(used.mean + half), high: read(used.mean - half) };
}

/** Percent shown at a fraction used: the gauge's slow error and its step in the span. Null when it shows none. */
export function percentAt({ percentStep, counts, curve }: Display, used: Estimate): Span | null {
  if (percentStep === 0) return null;
  const shown = (fraction: number) =>
    100 * (counts === "energy" ? 1 - within(fraction) : curve.chargeAtFraction(within(fraction)));
  const { expected, low, high } = falling(used, DEFAULTS.smoothSd, shown);
  const step = (value: number, round: (value: number) => number) =>
    Math.min(100, Math.max(0, round(value / percentStep - 1e-9) * percentStep));
  return {
    expected: step(expected, Math.round),
    low: step(low, Math.floor),
    high: step(high, Math.ceil),
  };
}

/** Bars shown at a fraction used, each going where equal bars would, give or take. Null when it shows none. */
export function barsAt({ bars }: Display, used: Estimate): Span | null {
  if (bars === 0) return null;
  const shown = (fraction: number) =>
    Math.min(bars, Math.max(0, Math.ceil(bars * (1 - within(fraction)) - 1e-9)));
  return falling(used, DEFAULTS.barThresholdSd / bars, shown);
}

/** Volts with the load off at a fraction used. Null when it shows none, or its cells are not known. */
export function restVoltsAt({ meterStepV, seriesCells, curve }: Display, used: Estimate): Span | null {
  if (meterStepV === 0 || seriesCells === undefined) return null;
  return falling(
    used,
    DEFAULTS.smoothSd,
    (fraction) => seriesCells * curve.voltsAt(curve.chargeAtFraction(within(fraction))),
  );
}
