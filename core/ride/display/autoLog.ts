import type { EntryBody } from "#core/ride/log";
import { METRES_PER_MILE } from "#core/base";
import type { DisplaySample } from "./sample.ts";

/** An entry a device's readings call for, with its moment in seconds since the epoch. */
export interface Logged {
  readonly timeS: number;
  readonly body: EntryBody;
}

/** Where a log that writes itself stands. */
export interface AutoLog {
  readonly last: DisplaySample | null;
  readonly nextM: number;
  readonly bars: number | null;
  readonly level: string | null;
  readonly lowPower: boolean;
}

/** Way between check-ins of a log that writes itself, m. */
export const AUTO_LOG_EVERY_M = METRES_PER_MILE;

/** A log that goes on from what the device shows now: nothing of before is written again. */
export function autoLogFrom(shown: DisplaySample | null): AutoLog {
  return {
    last: shown,
    nextM: (shown?.distanceM ?? shown?.displayM ?? 0) + AUTO_LOG_EVERY_M,
    bars: shown?.bars ?? null,
    level: shown?.level ?? null,
    lowPower: shown?.lowPower ?? false,
  };
}

/** The figures of a moment as an entry holds them. Volts are under load unless the bike stands. */
export function sightingOf(shown: DisplaySample) {
  const { distanceM, displayM, percent, bars, volts, amps, speedMps, airTempC, rangeGuessM } = shown;
  const standing = (speedMps ?? 0) < 0.3 && Math.abs(amps ?? 0) < 1;
  return {
    ...(distanceM !== undefined && { distanceM: Math.round(distanceM) }),
    ...(displayM !== undefined && { displayM: Math.round(displayM) }),
    ...(percent !== undefined && { percent }),
    ...(bars !== undefined && { bars }),
    ...(volts !== undefined && { packVolts: volts, underLoad: !standing }),
    ...(amps !== undefined && { amps }),
    ...(speedMps !== undefined && { speedMps }),
    ...(airTempC !== undefined && { airTempC }),
    ...(rangeGuessM !== undefined && { rangeGuessM: Math.round(rangeGuessM) }),
  };
}

const placeOf = ({ distanceM, displayM }: DisplaySample) => ({
  ...(distanceM !== undefined && { distanceM: Math.round(distanceM) }),
  ...(displayM !== undefined && { displayM: Math.round(displayM) }),
});

/** The start as a log that writes itself has it: nobody says that the charger was done. */
export function startOf(shown: DisplaySample): Logged {
  const { level } = shown;
  return {
    timeS: shown.timeS,
    body: { kind: "start", ...sightingOf(shown), ...(level !== undefined && { level }) },
  };
}

/**
 * What a moment adds to a log that writes itself: a check-in each mile and at each change of level, bars as they go, the
 * beginning of low-power mode.
 */
export function autoLog(
  state: AutoLog,
  shown: DisplaySample,
): { state: AutoLog; entries: readonly Logged[] } {
  const entries: Logged[] = [];
  const add = (body: EntryBody) => entries.push({ timeS: shown.timeS, body });
  let { nextM, bars, level, lowPower } = state;
  if (shown.bars !== undefined && bars !== null)
    for (let bar = bars; bar > shown.bars; bar -= 1) add({ kind: "barLost", bar, ...placeOf(shown) });
  bars = shown.bars === undefined ? bars : bars === null ? shown.bars : Math.min(bars, shown.bars);
  if (shown.lowPower && !lowPower) {
    lowPower = true;
    add({ kind: "lowPower", ...placeOf(shown) });
  }
  const atM = shown.distanceM ?? shown.displayM;
  const changed = shown.level !== undefined && level !== null && shown.level !== level;
  if (atM !== undefined && (atM >= nextM || changed)) {
    // Speed, air and volts under load are in the samples.
    const {
      speedMps: _speed,
      airTempC: _air,
      packVolts,
      underLoad,
      amps: _amps,
      ...seen
    } = sightingOf(shown);
    const sighting = { ...seen, ...(underLoad === false && { packVolts, underLoad }) };
    add({ kind: "checkIn", ...sighting, ...(shown.level !== undefined && { level: shown.level }) });
    if (atM >= nextM) nextM = atM + AUTO_LOG_EVERY_M;
  }
  level = shown.level ?? level;
  return { state: { last: shown, nextM, bars, level, lowPower }, entries };
}
