import type { DisplaySample } from "./sample.ts";

/** Samples to a row of the store. */
export const CHUNK = 4096;

/** A row of a device's samples as it grows; columns of one length. */
export interface Samples {
  readonly timeS: number[];
  readonly volts: number[];
  readonly amps: number[];
  readonly speedMps: number[];
  readonly distanceM: number[];
}

export const noSamples = (): Samples => ({ timeS: [], volts: [], amps: [], speedMps: [], distanceM: [] });

/**
 * Adds a moment in place; one without volts or amps, or not after the last, says nothing of energy and is left out. Returns
 * whether the row is full.
 */
export function addSample(
  samples: Samples,
  { timeS, volts, amps, speedMps, distanceM }: DisplaySample,
): boolean {
  const { timeS: times } = samples;
  if (volts === undefined || amps === undefined || timeS <= (times.at(-1) ?? -Infinity)) return false;
  times.push(timeS);
  samples.volts.push(volts);
  samples.amps.push(amps);
  samples.speedMps.push(speedMps ?? 0);
  samples.distanceM.push(distanceM ?? samples.distanceM.at(-1) ?? 0);
  return times.length >= CHUNK;
}

/** The row as it is kept. */
export function recordOf(samples: Samples, logger: string): Samples & { readonly logger: string } {
  return {
    logger,
    timeS: [...samples.timeS],
    volts: [...samples.volts],
    amps: [...samples.amps],
    speedMps: [...samples.speedMps],
    distanceM: [...samples.distanceM],
  };
}
