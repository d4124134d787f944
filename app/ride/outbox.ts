import { openDB, type DBSchema, type IDBPDatabase } from "idb";
import type { Entry } from "#core/ride/log";
import type { TelemetryRecord } from "#core/records";

/** An entry as this browser keeps it: until the server holds it, and for a while after. */
export interface KeptEntry {
  readonly id: string;
  readonly testId: string;
  readonly rideId: string;
  readonly entry: Entry;
  /** The server said it holds it. */
  readonly sent: boolean;
  /** Why the server will not have it; it is not sent again until a person says so. */
  readonly refused?: string | undefined;
  /** How often the server failed on it when it went out alone. */
  readonly tries?: number;
}

/** A row of a device's samples on its way to the server. */
export interface KeptChunk {
  /** Its ride and first moment. */
  readonly id: string;
  readonly testId: string;
  readonly rideId: string;
  readonly record: TelemetryRecord;
  /** More samples may still be added. */
  readonly open: boolean;
  /** Why the server will not have it. */
  readonly refused?: string;
}

/** A photograph on its way to the server, after its entry. */
export interface KeptPhotograph {
  readonly id: string;
  readonly testId: string;
  readonly rideId: string;
  readonly entryId: string;
  readonly picture: Blob;
  /** ISO 8601. */
  readonly takenAt: string;
  /** Why the server will not have it. */
  readonly refused?: string;
}

interface Schema extends DBSchema {
  log: { key: string; value: KeptEntry; indexes: { byTest: string } };
  chunks: { key: string; value: KeptChunk; indexes: { byTest: string } };
  photographs: { key: string; value: KeptPhotograph; indexes: { byTest: string } };
  facts: { key: string; value: { readonly key: string; readonly value: unknown } };
}

/** How long entries that the server holds are kept here too, ms: a page opened with no network still shows them. */
const KEEP_SENT_MS = 60 * 86_400_000;

let opened: Promise<IDBPDatabase<Schema>> | null = null;

const store = () =>
  (opened ??= openDB<Schema>("barometron", 3, {
    upgrade: async (db, from, _to, transaction) => {
      db.createObjectStore("photographs", { keyPath: "id" }).createIndex("byTest", "testId");
      if (from === 2) return;
      const log = db.createObjectStore("log", { keyPath: "id" });
      log.createIndex("byTest", "testId");
      db.createObjectStore("chunks", { keyPath: "id" }).createIndex("byTest", "testId");
      db.createObjectStore("facts", { keyPath: "key" });
      if (from === 1) {
        // The first layout held only what was not sent yet.
        const old = transaction.objectStore("waiting" as "log");
        for (const kept of await old.getAll()) await log.put({ ...kept, sent: false });
        db.deleteObjectStore("waiting" as "log");
      }
    },
    // Another tab brings a newer layout: let it.
    blocking: (_from, _to, event) => (event.target as IDBDatabase).close(),
  }).catch((error: unknown) => {
    opened = null;
    throw error;
  }));

/** Lets go of the database, so that the next call opens it anew, as a fresh page would. */
export async function closeOutbox(): Promise<void> {
  (await opened)?.close();
  opened = null;
}

/** All this browser knows of a test's log, in the order it was made. */
export async function keptOf(testId: string): Promise<readonly KeptEntry[]> {
  const all = await (await store()).getAllFromIndex("log", "byTest", testId);
  return all.sort((a, b) => a.entry.seq - b.entry.seq || a.id.localeCompare(b.id));
}

export async function keep(kept: KeptEntry): Promise<void> {
  await (await store()).put("log", kept);
}

async function change(ids: readonly string[], with_: Partial<KeptEntry>): Promise<void> {
  const transaction = (await store()).transaction("log", "readwrite");
  for (const id of ids) {
    const kept = await transaction.store.get(id);
    if (kept) await transaction.store.put({ ...kept, ...with_ });
  }
  await transaction.done;
}

/** Notes that the server holds entries. */
export const markSent = (ids: readonly string[]) => change(ids, { sent: true });

/** Notes that the server will not have an entry, and why. */
export const markRefused = (id: string, why: string) => change([id], { refused: why });

/** Notes that the server failed on an entry once more. */
export const markTried = (id: string, tries: number) => change([id], { tries });

/** Lets an entry that was set aside go out again. */
export const sendAgain = (id: string) => change([id], { refused: undefined, tries: 0 });

/** Drops what the server has held for long. */
export async function dropOld(nowMs: number): Promise<void> {
  const transaction = (await store()).transaction("log", "readwrite");
  for (let at = await transaction.store.openCursor(); at; at = await at.continue()) {
    const { sent, entry } = at.value;
    if (sent && entry.at !== null && Date.parse(entry.at) < nowMs - KEEP_SENT_MS) await at.delete();
  }
  await transaction.done;
}

export async function chunksOf(testId: string): Promise<readonly KeptChunk[]> {
  return (await store()).getAllFromIndex("chunks", "byTest", testId);
}

export async function keepChunk(chunk: KeptChunk): Promise<void> {
  await (await store()).put("chunks", chunk);
}

export async function dropChunk(id: string): Promise<void> {
  await (await store()).delete("chunks", id);
}

export async function photographsOf(testId: string): Promise<readonly KeptPhotograph[]> {
  return (await store()).getAllFromIndex("photographs", "byTest", testId);
}

export async function keepPhotograph(photograph: KeptPhotograph): Promise<void> {
  await (await store()).put("photographs", photograph);
}

export async function dropPhotograph(id: string): Promise<void> {
  await (await store()).delete("photographs", id);
}

/** Something this browser remembers: its own name, how far its clock is off. */
export async function fact<T>(key: string): Promise<T | undefined> {
  return (await (await store()).get("facts", key))?.value as T | undefined;
}

export async function keepFact(key: string, value: unknown): Promise<void> {
  await (await store()).put("facts", { key, value });
}
