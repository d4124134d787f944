import { scopeOf, type Database } from "#db/client";

/** Desks whose memories are kept at once: the one that was used longest ago goes first. */
const MOST_DESKS = 200;

/**
 * A memory of the process that is kept for each desk by itself. What outlives a request is kept in one of these and nowhere
 * else, so that no desk's rows can be had by way of another's.
 *
 * @param make a desk's memory when it is first asked for
 * @returns the memory of the desk that a database was opened at
 */
export function deskMemory<Memory>(make: () => Memory): (db: Database) => Memory {
  const kept = new Map<string, Memory>();
  return (db) => {
    const deskId = scopeOf(db)?.deskId ?? "";
    const memory = kept.get(deskId) ?? make();
    kept.delete(deskId);
    kept.set(deskId, memory);
    if (kept.size > MOST_DESKS) kept.delete(kept.keys().next().value!);
    return memory;
  };
}

/** What is under way at a desk, by what was asked: asked for twice at once, it is done once. */
export function underWay<Answer>() {
  const memory = deskMemory(() => new Map<string, Promise<Answer>>());
  return (db: Database, key: string, begin: () => Promise<Answer>): Promise<Answer> => {
    const running = memory(db);
    const known = running.get(key);
    if (known) return known;
    const begun = begin().finally(() => running.delete(key));
    running.set(key, begun);
    begun.catch(() => undefined);
    return begun;
  };
}
