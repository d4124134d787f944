import { METRES_PER_MILE } from "#core/base";
import type { DisplaySample } from "./sample.ts";

/** How a device does: fine, silent for a while, stuck at one reading, or at odds with itself. */
export type DisplayHealth = "fine" | "silent" | "frozen" | "odd";

/** No word for this long, by the person's clock, is silence, ms. */
const SILENT_MS = 5000;
/** Moving by its own speed for this long with the same distance and amps is a frozen display, s. */
const FROZEN_S = 20;
/** A trip meter this far off the recorder, beyond its own step, is a wrong wheel setting. */
const WHEEL_SHARE = 0.03;
const TRIP_STEP_M = METRES_PER_MILE / 10;

/** A device as watched: its latest moment, and since when it has shown the very same. */
export interface Watched {
  readonly last: DisplaySample | null;
  readonly sameSinceS: number;
}

export const UNWATCHED: Watched = { last: null, sameSinceS: 0 };

const same = (a: DisplaySample, b: DisplaySample) =>
  a.distanceM === b.distanceM && a.displayM === b.displayM && a.amps === b.amps && a.speedMps === b.speedMps;

/** Takes in the next moment. */
export function watch({ last, sameSinceS }: Watched, shown: DisplaySample): Watched {
  return { last: shown, sameSinceS: last && same(last, shown) ? sameSinceS : shown.timeS };
}

/**
 * How a device does now, and what to do about it, in a sentence.
 *
 * @param quietMs since its last word, by the person's own clock
 */
export function displayHealth(
  { last, sameSinceS }: Watched,
  quietMs: number,
): { health: DisplayHealth; sentence: string } {
  if (quietMs > SILENT_MS)
    return {
      health: "silent",
      sentence:
        "The display says nothing any more. Read the instruments and type; it is picked up when it returns.",
    };
  const moves = (last?.speedMps ?? 0) > 1;
  if (last && moves && last.timeS - sameSinceS >= FROZEN_S)
    return {
      health: "frozen",
      sentence:
        "The display is frozen: the same figures while riding. Nothing is logged from it until it moves.",
    };
  const { distanceM, displayM } = last ?? {};
  if (distanceM !== undefined && displayM !== undefined && distanceM > 0) {
    const share = displayM / distanceM - 1;
    if (Math.abs(displayM - distanceM) > WHEEL_SHARE * distanceM + TRIP_STEP_M)
      return {
        health: "odd",
        sentence: `The display's distance is ${Math.round(Math.abs(share) * 100)} % ${share > 0 ? "over" : "under"} the recorder's: its wheel setting is off. The recorder's is taken.`,
      };
  }
  return { health: "fine", sentence: "" };
}
