import type { LiveEntry } from "./fold.ts";
import type { PlacedEntry } from "./places.ts";
import { SAME_PLACE_M } from "./possible.ts";

/** A ride up to its end, and how far one went on after it. */
export interface UpToEnd {
  readonly placed: readonly PlacedEntry[];
  /** Pedalled home, pushed, carried: no part of the range, m. */
  readonly afterM: number;
  /** The pack was done: what follows without a charge is no part of the test either. */
  readonly done: boolean;
}

const isCharge = ({ body, struck }: LiveEntry) =>
  !struck && (body.kind === "refill" || (body.kind === "start" && body.chargerDone === true));

/** Whether a ride begins or goes on with a charge. */
export const isCharged = (entries: readonly LiveEntry[]): boolean => entries.some(isCharge);

/**
 * A ride's entries up to its end. What was noted after it and further on is left out; what was noted late, of a place before
 * it, stays, and so does a charge.
 */
export function upToEnd(placed: readonly PlacedEntry[]): UpToEnd {
  const end = [...placed].reverse().find(({ entry }) => !entry.struck && entry.body.kind === "end");
  if (!end) return { placed, afterM: 0, done: false };
  const later = ({ entry }: PlacedEntry) =>
    entry.timeS !== null && end.entry.timeS !== null
      ? entry.timeS >= end.entry.timeS && entry.seq !== end.entry.seq
      : entry.seq > end.entry.seq;
  const beyond = new Set(
    placed.filter(
      (each) =>
        later(each) && each.distanceM > end.distanceM + SAME_PLACE_M && each.entry.body.kind !== "refill",
    ),
  );
  const charged = placed.some(({ entry }) => entry.body.kind === "refill" && !entry.struck);
  // Charged and ridden on: the end was none.
  if (charged && beyond.size) return { placed, afterM: 0, done: false };
  return {
    placed: placed.filter((each) => !beyond.has(each)),
    afterM: Math.max(0, ...[...beyond].map(({ distanceM }) => distanceM - end.distanceM)),
    done: end.entry.body.kind === "end" && end.entry.body.reason !== "byChoice" && !charged,
  };
}
