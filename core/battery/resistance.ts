import { nth, DEFAULTS, err, ok, type Result, medianOf } from "#core/base";
import { singlePacks } from "./energy.ts";
import type { Pack } from "./schema.ts";

/**
 * Pack resistance when none was measured, ohm: 12 milliohm a series cell over parallel strings of 3 Ah. 13 cells, 15 Ah: 0.0312.
 *
 * @example defaultResistance(13, 15).toFixed(4) === "0.0312"
 */
export function defaultResistance(seriesCells: number, ampHours: number | undefined): number {
  const strings = ampHours === undefined ? 4 : Math.max(1, ampHours / DEFAULTS.stringAh);
  return (DEFAULTS.cellOhm * seriesCells) / strings;
}

/**
 * Resistance of a pack as it stands: measured, else the default; packs side by side share the current. Ohm.
 *
 * @example packResistance({ chemistry: "NMC", resistanceOhm: 0.2, beside: [{ chemistry: "NMC", resistanceOhm: 0.2 }] }) === 0.1
 */
export function packResistance(pack: Pack): number {
  const conductance = singlePacks(pack).reduce((sum, { resistanceOhm, seriesCells, ampHours }) => {
    const cells = seriesCells ?? pack.seriesCells ?? 1;
    return sum + 1 / (resistanceOhm ?? defaultResistance(cells, ampHours));
  }, 0);
  return 1 / conductance;
}

/** Volts at rest and under load within two minutes, at the same charge. */
export interface RestLoadPair {
  readonly restVolts: number;
  readonly loadVolts: number;
  readonly amps: number;
}

/**
 * Resistance from readings at rest and under load: (Vrest - Vload) / I, the median of the pairs.
 *
 * @example pairs (50.1, 48.6, 6) (49.2, 46.4, 12) (47.8, 45.5, 9) give 0.25 ohm
 */
export function resistanceFromPairs(pairs: readonly RestLoadPair[]): Result<number> {
  const found = pairs
    .filter(({ amps }) => amps > 0)
    .map(({ restVolts, loadVolts, amps }) => (restVolts - loadVolts) / amps);
  const ohm = found.length ? medianOf(found) : NaN;
  return ohm > 0
    ? ok(ohm)
    : err(
        "no-sag",
        "pairs",
        "Give volts at rest and under load with the amps drawn: the loaded volts must be the lower.",
      );
}

/** Least change of amps that counts as a step, and longest time it may take. */
const STEP_AMPS = 3;
const STEP_S = 3;
/** Least steps that make a measurement. */
const LEAST_STEPS = 5;

/** Resistance from the steps of a ride's telemetry: the median of -dV/dI over jumps of 3 A or more. */
export function resistanceFromSteps(
  timeS: readonly number[],
  volts: readonly number[],
  amps: readonly number[],
): Result<number> {
  const found: number[] = [];
  for (let i = 1; i < timeS.length; i += 1) {
    const change = nth(amps, i) - nth(amps, i - 1);
    if (nth(timeS, i) - nth(timeS, i - 1) > STEP_S || Math.abs(change) < STEP_AMPS) continue;
    found.push(-(nth(volts, i) - nth(volts, i - 1)) / change);
  }
  const ohm = found.length >= LEAST_STEPS ? medianOf(found) : NaN;
  return ohm > 0
    ? ok(ohm)
    : err(
        "no-steps",
        "telemetry",
        `Fewer than ${LEAST_STEPS} steps of ${STEP_AMPS} A: the resistance cannot be read off.`,
      );
}
