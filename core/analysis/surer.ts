import { rankMeasurements, type NextMeasure, type Solved } from "#core/estimation";
import type { Surer } from "./types.ts";

const WORDS: Readonly<Record<NextMeasure, string>> = {
  bench: "measure the pack on a bench",
  refill: "read a wall meter over the next full charge",
  restVolts: "let it stand ten minutes and read the volts",
  tenMiles: "ride ten more miles and read again",
  meteredRepeat: "ride the course again with an energy counter on",
};

/**
 * What to measure next: each thing with the sd it would leave, by gain per minute.
 *
 * @param wide factor of the sds; @param distanceSd of the Wh per metre from the distance alone, which none of these mend
 */
export function surer(solved: Solved, wide: number, distanceSd: number): readonly Surer[] {
  return rankMeasurements(solved).map(({ measure, minutes, sdLeft, gainPerMinute }) => ({
    measure,
    what: WORDS[measure],
    minutes,
    sdLeft: Math.hypot(sdLeft * wide, distanceSd),
    gainPerMinute: gainPerMinute * wide,
  }));
}
