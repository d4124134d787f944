import type { EntryBody, LiveEntry, ReadingField, StrikeField } from "#core/ride/log";
import { there, fixed, unitToken } from "#core/base";

/** A reading that asks to be explained at once, with answers that are each one entry. */
export interface Odd {
  readonly rootId: string;
  readonly field: StrikeField | null;
  readonly sentence: string;
  readonly answers: readonly OddAnswer[];
}

export interface OddAnswer {
  readonly words: string;
  readonly body: EntryBody;
  /** When it was so, s since the epoch; null for now. */
  readonly atS: number | null;
}

/** A gauge that counts charge flickers by a point; more up than this is a question. */
const FLICKER = 1;
/** A recorder's own wander, m. */
const NEAR_M = 50;

interface Seen {
  readonly entry: LiveEntry;
  readonly value: number;
}

const counts = ({ struck, struckFields }: LiveEntry, field: ReadingField) =>
  !struck && !struckFields.includes(field);

/** Entries in the order of their times where all have one, else of the log. */
function inOrder(entries: readonly LiveEntry[]): readonly LiveEntry[] {
  const timed = entries.every(({ timeS }) => timeS !== null);
  return [...entries].sort((a, b) => (timed ? there(a.timeS) - there(b.timeS) : 0) || a.seq - b.seq);
}

/** Values of one field in order, a charge in between shown as null. */
function seenOf(entries: readonly LiveEntry[], field: "percent" | "bars"): readonly (Seen | null)[] {
  return entries.flatMap((entry): readonly (Seen | null)[] => {
    if (entry.body.kind === "refill" && !entry.struck) return [null];
    const value =
      field in entry.body ? (entry.body as { percent?: number; bars?: number })[field] : undefined;
    return value !== undefined && counts(entry, field) ? [{ entry, value }] : [];
  });
}

const distanceOf = ({ body }: LiveEntry) => ("distanceM" in body ? body.distanceM : undefined);

function risen(entries: readonly LiveEntry[], field: "percent" | "bars"): readonly Odd[] {
  const noted = new Set(
    entries.flatMap(({ struck, body }) => (!struck && body.kind === "note" ? [body.note] : [])),
  );
  const seen = seenOf(inOrder(entries), field);
  return seen.flatMap((now, i) => {
    const before = seen[i - 1];
    if (!now || !before || now.value - before.value <= (field === "percent" ? FLICKER : 0)) return [];
    const write = (value: number) => (field === "percent" ? `${fixed(value, 0)} %` : `${value} bars`);
    const what = `${write(now.value)} after ${write(before.value)}`;
    const rebound = `Rebound: ${what}`;
    if (noted.has(rebound)) return [];
    const atM = distanceOf(before.entry);
    return [
      {
        rootId: now.entry.rootId,
        field,
        sentence: `${what}? A rebound, a typing slip, or charged?`,
        answers: [
          { words: "Rebound", body: { kind: "note", note: rebound }, atS: null },
          { words: "Typing slip", body: { kind: "strike", target: now.entry.rootId, field }, atS: null },
          {
            words: "Charged",
            body: { kind: "refill", toFull: false, ...(atM !== undefined && { distanceM: atM }) },
            // Before the reading that rose.
            atS: now.entry.timeS === null ? null : now.entry.timeS - 1,
          },
        ],
      } satisfies Odd,
    ];
  });
}

/** Entries by their times; one without stands where it was noted, after the one before it. */
function byClock(entries: readonly LiveEntry[]): readonly LiveEntry[] {
  let lastS = -Infinity;
  return [...entries]
    .sort((a, b) => a.seq - b.seq)
    .map((entry) => ({ entry, atS: (lastS = entry.timeS ?? lastS) }))
    .sort((a, b) => (a.atS === b.atS ? 0 : a.atS - b.atS) || a.entry.seq - b.entry.seq)
    .map(({ entry }) => entry);
}

/** Distances that run backward by the clock; one noted late says its time, and is in order. */
function backward(entries: readonly LiveEntry[]): readonly Odd[] {
  let farthestM = 0;
  return byClock(entries)
    .filter(({ struck }) => !struck)
    .flatMap((entry): readonly Odd[] => {
      const metres = distanceOf(entry);
      if (metres === undefined || entry.body.kind === "refill") return [];
      const behindM = farthestM - metres;
      farthestM = Math.max(farthestM, metres);
      if (behindM < NEAR_M) return [];
      return [
        {
          rootId: entry.rootId,
          field: null,
          sentence: `${unitToken(metres, "distance", 1)} after ${unitToken(farthestM, "distance", 1)}? A typing slip? Correct it below, or strike it.`,
          answers: [{ words: "Strike it", body: { kind: "strike", target: entry.rootId }, atS: null }],
        },
      ];
    });
}

/** Readings that ask to be explained at once: a gauge that goes up, a distance that runs back. The newest first. */
export function oddReadings(entries: readonly LiveEntry[]): readonly Odd[] {
  const places = new Map(entries.map(({ rootId, seq }) => [rootId, seq]));
  return [...risen(entries, "percent"), ...risen(entries, "bars"), ...backward(entries)].sort(
    (a, b) => there(places.get(b.rootId)) - there(places.get(a.rootId)),
  );
}
