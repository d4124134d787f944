import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Entry } from "#core/log";

/** An entry on its way to the server. */
export interface Waiting {
  readonly id: string;
  readonly testId: string;
  readonly rideId: string;
  readonly entry: Entry;
}

interface Schema extends DBSchema {
  waiting: { key: string; value: Waiting; indexes: { byTest: string } };
}

let opened: Promise<IDBPDatabase<Schema>> | null = null;

const store = () =>
  (opened ??= openDB<Schema>("barometron", 1, {
    upgrade: (db) => {
      db.createObjectStore("waiting", { keyPath: "id" }).createIndex("byTest", "testId");
    },
  }));

/** Entries of a test that the server has not said it holds, in the order they were made. */
export async function waitingOf(testId: string): Promise<readonly Waiting[]> {
  const all = await (await store()).getAllFromIndex("waiting", "byTest", testId);
  return all.sort((a, b) => a.entry.seq - b.entry.seq || a.id.localeCompare(b.id));
}

export async function keepWaiting(waiting: Waiting): Promise<void> {
  await (await store()).put("waiting", waiting);
}

export async function dropWaiting(ids: readonly string[]): Promise<void> {
  const transaction = (await store()).transaction("waiting", "readwrite");
  await Promise.all([...ids.map((id) => transaction.store.delete(id)), transaction.done]);
}
