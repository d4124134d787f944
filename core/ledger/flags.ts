import { fixed, quantityToken } from "#core/quantities";
import { likelySlip, readingText, type Reading } from "#core/readings";
import type { Solved } from "./solve.ts";

/** Standing, in sds, over which a reading is questioned. */
const QUESTION_ABOVE = 3;

/** With more than this in question it is the test, not a reading, that is wrong. */
const MOST_QUESTIONS = 10;

/** A reading in question, by its ride and its place among that ride's readings. */
export interface LedgerFlag {
  readonly ride: number;
  readonly reading: number;
  /** Residual against the answer without it, sds; positive when it says more is used. */
  readonly standing: number;
}

/**
 * Questions readings one at a time: the largest |z| over 3, then the ledger again without it (a slip pushes innocent
 * readings over 3 as well). Nothing is set aside: the answer given still holds every reading.
 *
 * @returns the questioned readings, first found first, and the ledger without them (the same ledger when there are none)
 */
export function questionReadings(solved: Solved): {
  readonly flags: readonly LedgerFlag[];
  readonly without: Solved;
} {
  const names = solved.input.rides.flatMap(({ readings }, ride) =>
    readings.map((_, reading) => ({ ride, reading })),
  );
  const flags: LedgerFlag[] = [];
  let kept = names.map((_, i) => i);
  let without = solved;
  while (kept.length > 2 && flags.length < MOST_QUESTIONS) {
    const z = without.posterior.looStandardised();
    const worst = z.reduce((far, each, i) => (Math.abs(each) > Math.abs(z[far]!) ? i : far), 0);
    if (!(Math.abs(z[worst]!) > QUESTION_ABOVE)) break;
    flags.push({ ...names[kept[worst]!]!, standing: z[worst]! });
    kept = kept.filter((_, i) => i !== worst);
    const next = solved.keeping(kept);
    if (!next) break;
    without = next;
  }
  return { flags, without };
}

/**
 * "62 % at 9.4 mi stands 4.1 sd above what the other readings allow: a typing slip?" A positive standing of a fraction
 * used means too low a charge, so below; of counted energy it means too much, so above. The distance is a token for
 * `spoken`.
 */
export function flagSentence(reading: Reading, distanceM: number, standing: number): string {
  const counted = "wh" in reading || "ah" in reading || "wallWh" in reading;
  const side = standing > 0 === counted ? "above" : "below";
  const place = quantityToken(distanceM, "distance", 1);
  return `${readingText(reading)} at ${place} stands ${fixed(Math.abs(standing), 1)} sd ${side} what the other readings allow: ${likelySlip(reading.kind)}`;
}
