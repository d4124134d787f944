import { there, nth, lastOf } from "#core/base";
import type { Entry, EntryBody, StrikeField } from "./entry.ts";

/** An entry as it stands after corrections and strikes. */
export interface LiveEntry {
  /** The first entry of its chain of corrections: what strikes and corrections point at. */
  readonly rootId: string;
  readonly id: string;
  readonly seq: number;
  readonly timeS: number | null;
  readonly body: Exclude<EntryBody, { kind: "strike" | "restore" }>;
  /** Set aside as a whole. */
  readonly struck: boolean;
  /** Readings of it set aside one by one. */
  readonly struckFields: readonly StrikeField[];
  /** What it said before each correction, oldest first. */
  readonly was: readonly EntryBody[];
  /** The browser that noted it first; null when none did. */
  readonly device: string | null;
  /** What was said and where in the film, when nobody typed it. */
  readonly source?: NonNullable<Entry["source"]>;
}

const byOrder = (a: Entry, b: Entry) => a.seq - b.seq || (a.id < b.id ? -1 : a.id > b.id ? 1 : 0);

/** Whether a later line of the log sets aside or restores. */
function isJudgement(body: EntryBody): body is Extract<EntryBody, { kind: "strike" | "restore" }> {
  return body.kind === "strike" || body.kind === "restore";
}

/**
 * Folds the append-only log of one ride into its live entries. The result depends on the set of entries alone, not on
 * the order they arrive in; a repeated id counts once; the latest correction (by place in the log) wins, at the place of
 * the entry it corrects. A time is put right by what its clock was found to be off.
 */
export function foldLog(entries: readonly Entry[]): readonly LiveEntry[] {
  const unique = [...new Map([...entries].sort(byOrder).map((entry) => [entry.id, entry])).values()];
  const byId = new Map(unique.map((entry) => [entry.id, entry]));
  const rootOf = (id: string): string => {
    const seen = new Set<string>();
    let at = id;
    for (
      let next = byId.get(at)?.supersedes;
      next && byId.has(next) && !seen.has(next);
      next = byId.get(at)?.supersedes
    ) {
      seen.add(at);
      at = next;
    }
    return at;
  };
  const chains = new Map<string, Entry[]>();
  const struck = new Map<string, Set<StrikeField | "">>();
  for (const entry of unique) {
    if (isJudgement(entry.body)) {
      const root = rootOf(entry.body.target);
      const fields = struck.get(root) ?? new Set();
      if (entry.body.kind === "strike") fields.add(entry.body.field ?? "");
      else if (entry.body.field === undefined) fields.clear();
      else fields.delete(entry.body.field);
      struck.set(root, fields);
      continue;
    }
    const root = rootOf(entry.id);
    chains.set(root, [...(chains.get(root) ?? []), entry]);
  }
  return [...chains].map(([rootId, chain]) => {
    const first = nth(chain, 0);
    const latest = lastOf(chain);
    const fields = struck.get(rootId) ?? new Set();
    const timed = [...chain].reverse().find(({ at }) => at !== null);
    return {
      rootId,
      id: latest.id,
      seq: first.seq,
      timeS: timed ? Date.parse(there(timed.at)) / 1000 + (timed.clockOffsetS ?? 0) : null,
      body: latest.body as LiveEntry["body"],
      struck: fields.has(""),
      struckFields: [...fields].filter((field): field is StrikeField => field !== ""),
      was: chain.slice(0, -1).map(({ body }) => body),
      device: first.device ?? null,
      ...(first.source && { source: first.source }),
    };
  });
}
