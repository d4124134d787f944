import { scopeOf, type Database } from "#db/client";
import { findDerived, keepDerived } from "#db/derived";
import { build, hashOf } from "./build.server";
import { deskMemory } from "./deskMemory.server";
import { Memo } from "./memo";

const MOST = 500;
const memoryOf = deskMemory(() => new Memo<Promise<unknown>>(MOST));

/**
 * Something reckoned from several tests or sweeps, from memory or the database where its inputs are the same.
 *
 * @param kind of what is reckoned; @param from everything it is reckoned from, by value or by stamp
 */
export async function derivedOf<T>(db: Database, kind: string, from: unknown, reckon: () => T): Promise<T> {
  const key = `${kind}/${build}/${hashOf([scopeOf(db)?.deskId ?? "", from])}`;
  const remembered = memoryOf(db);
  const found = async () => {
    const hit = await findDerived(db, key);
    if (hit) return hit.body;
    const value = reckon() ?? null;
    await keepDerived(db, key, value);
    return value;
  };
  const value = remembered.of(key, found);
  // A failure is not remembered.
  value.catch(() => remembered.forget(key));
  return value as Promise<T>;
}
