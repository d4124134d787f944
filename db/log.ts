import { isDeepStrictEqual } from "node:util";
import { asc, eq, inArray } from "drizzle-orm";
import { entrySchema, type Entry } from "#core/ride/log";
import type { Database } from "./client.ts";
import { placeEntries } from "./places.ts";
import { entry, ride } from "./schema.ts";
import { restampRide } from "./stamps.ts";
import { readRows, type Unreadable } from "./unreadable.ts";

const entryOf = (row: typeof entry.$inferSelect): Entry =>
  entrySchema.parse({
    id: row.id,
    seq: row.seq,
    at: row.at && new Date(row.at).toISOString(),
    body: row.body,
    supersedes: row.supersedes,
    ...(row.clockOffsetS !== null && { clockOffsetS: row.clockOffsetS }),
    ...(row.device !== null && { device: row.device }),
    ...(row.source !== null && { source: row.source }),
  });

/**
 * The log of a ride in its own order.
 *
 * @param unreadable is told the entries that cannot be read, which are left out
 */
export async function listEntries(
  db: Database,
  rideId: string,
  unreadable?: Unreadable[],
): Promise<readonly Entry[]> {
  const rows = await db
    .select()
    .from(entry)
    .where(eq(entry.rideId, rideId))
    .orderBy(asc(entry.seq), asc(entry.id));
  return readRows("entry", rows, entryOf, unreadable);
}

/** How many entries the log of a test holds, over all its rides. */
export async function countEntries(db: Database, testId: string): Promise<number> {
  const rides = db.select({ id: ride.id }).from(ride).where(eq(ride.testId, testId));
  return db.$count(entry, inArray(entry.rideId, rides));
}

/** What became of an entry that was sent: kept; there already, just so; or there already as something else. */
export interface Verdict {
  readonly id: string;
  readonly told: "kept" | "same" | "conflict";
}

type Stored = Pick<typeof entry.$inferSelect, "id" | "rideId" | "at" | "body" | "supersedes">;

const asJson = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

/** Whether what is stored under an entry's id is that entry, word for word; its place is the server's. */
function isSame(stored: Stored, rideId: string, sent: Entry): boolean {
  const moment = (at: string | null) => (at === null ? null : Date.parse(at));
  return (
    stored.rideId === rideId &&
    moment(stored.at) === moment(sent.at) &&
    stored.supersedes === sent.supersedes &&
    isDeepStrictEqual(asJson(stored.body), asJson(sent.body))
  );
}

/**
 * Appends entries to a ride's log, all or none. The server gives each its place, under the ride's lock. An id that is
 * there already changes nothing: the answer says whether it is the same entry or another one.
 *
 * @returns one verdict for each entry, in order
 * @throws when there is no such ride
 */
export async function appendEntries(
  db: Database,
  rideId: string,
  entries: readonly Entry[],
): Promise<readonly Verdict[]> {
  if (entries.length === 0) return [];
  return db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    const [locked] = await tx
      .select({ id: ride.id })
      .from(ride)
      .where(eq(ride.id, rideId))
      .for("no key update");
    if (!locked) throw new Error("there is no such ride");
    const there = await tx
      .select({
        id: entry.id,
        rideId: entry.rideId,
        at: entry.at,
        body: entry.body,
        supersedes: entry.supersedes,
      })
      .from(entry)
      .where(
        inArray(
          entry.id,
          entries.map(({ id }) => id),
        ),
      );
    const known = new Map<string, Stored>(there.map((row) => [row.id, row]));
    const fresh: Entry[] = [];
    const verdicts = entries.map((sent): Verdict => {
      const stored = known.get(sent.id);
      if (stored) return { id: sent.id, told: isSame(stored, rideId, sent) ? "same" : "conflict" };
      known.set(sent.id, { ...sent, rideId });
      fresh.push(sent);
      return { id: sent.id, told: "kept" };
    });
    if (fresh.length === 0) return verdicts;
    const taken = await tx.select({ seq: entry.seq }).from(entry).where(eq(entry.rideId, rideId));
    const placed = placeEntries(
      fresh,
      taken.map(({ seq }) => seq),
    );
    for (let start = 0; start < placed.length; start += 500)
      await tx.insert(entry).values(
        placed
          .slice(start, start + 500)
          .map(({ id, seq, at, body, supersedes, clockOffsetS, device, source }) => ({
            id,
            rideId,
            seq,
            at,
            kind: body.kind,
            body,
            supersedes,
            clockOffsetS: clockOffsetS ?? null,
            device: device ?? null,
            source: source ?? null,
          })),
      );
    await restampRide(tx, rideId);
    return verdicts;
  });
}
