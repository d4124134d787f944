import type { Entry } from "#core/ride/log";

/** Kinds that speak of an earlier entry: they stand after all there is. */
const JUDGEMENTS = ["strike", "restore"];
/** A stored place beyond this cannot be read, and pushes no other there. */
const LAST_PLACE = 4.2e12;

/**
 * Places in a ride's log for entries that are new to it. An entry with a time stands at its moment, in milliseconds, so
 * that what two phones noted falls in order whichever came in first; one without follows the entry sent before it; the
 * first, corrections and judgements stand after all there is. No two share a place.
 *
 * @param entries new to the log, in the order they were sent
 * @param taken places of the log so far
 * @returns the entries with their places, in the order they were sent
 */
export function placeEntries(entries: readonly Entry[], taken: readonly number[]): readonly Entry[] {
  const used = new Set(taken);
  let last = taken.reduce((most, seq) => (seq <= LAST_PLACE && seq > most ? seq : most), -1);
  let before: number | null = null;
  return entries.map((entry) => {
    const later = entry.supersedes !== null || JUDGEMENTS.includes(entry.body.kind);
    const moment =
      entry.at === null || later ? null : Math.round(Date.parse(entry.at) + 1000 * (entry.clockOffsetS ?? 0));
    let seq = moment !== null && moment >= 0 ? moment : later || before === null ? last + 1 : before + 1;
    while (used.has(seq)) seq += 1;
    used.add(seq);
    last = Math.max(last, seq);
    if (!later) before = seq;
    return { ...entry, seq };
  });
}
