import { asc, eq, sql } from "drizzle-orm";
import { entrySchema, type Entry } from "#core/log";
import type { Database } from "./client.ts";
import { entry } from "./schema.ts";

/** The log of a ride in its own order. */
export async function listEntries(db: Database, rideId: string): Promise<readonly Entry[]> {
  const rows = await db
    .select()
    .from(entry)
    .where(eq(entry.rideId, rideId))
    .orderBy(asc(entry.seq), asc(entry.id));
  return rows.map((row) =>
    entrySchema.parse({
      id: row.id,
      seq: row.seq,
      at: row.at && new Date(row.at).toISOString(),
      body: row.body,
      supersedes: row.supersedes,
      ...(row.clockOffsetS !== null && { clockOffsetS: row.clockOffsetS }),
      ...(row.device !== null && { device: row.device }),
    }),
  );
}

/** Appends entries, all or none; an id already there changes nothing. */
export async function appendEntries(db: Database, rideId: string, entries: readonly Entry[]): Promise<void> {
  if (entries.length === 0) return;
  await db.transaction(async (tx) => {
    for (let start = 0; start < entries.length; start += 500)
      await tx
        .insert(entry)
        .values(
          entries
            .slice(start, start + 500)
            .map(({ id, seq, at, body, supersedes, clockOffsetS, device }) => ({
              id,
              rideId,
              seq,
              at,
              kind: body.kind,
              body,
              supersedes,
              clockOffsetS: clockOffsetS ?? null,
              device: device ?? null,
            })),
        )
        .onConflictDoNothing();
  });
}

/** The place after the last entry of a ride's log. */
export async function nextSeq(db: Database, rideId: string): Promise<number> {
  const [row] = await db
    .select({ next: sql<string>`coalesce(max(${entry.seq}) + 1, 0)` })
    .from(entry)
    .where(eq(entry.rideId, rideId));
  return Number(row?.next ?? 0);
}
