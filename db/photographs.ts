import { and, asc, eq, isNull } from "drizzle-orm";
import type { ReadImage } from "#core/io";
import type { SheetPhotograph } from "#core/telling";
import type { Database } from "./client.ts";
import { entryPhotograph, photograph, ride } from "./schema.ts";

/** The photographs of a sheet in the order in which they were added, without their bytes. */
export async function listPhotographs(db: Database, sheetId: string): Promise<readonly SheetPhotograph[]> {
  const { id, caption, widthPx, heightPx } = photograph;
  return db
    .select({ id, caption, widthPx, heightPx })
    .from(photograph)
    .where(and(eq(photograph.sheetId, sheetId), isNull(photograph.archivedAt)))
    .orderBy(asc(photograph.addedAt), asc(photograph.id));
}

/** A photograph whole, also one that was taken off its sheet: what was published goes on showing it. */
export async function findPhotograph(db: Database, id: string) {
  const [row] = await db.select().from(photograph).where(eq(photograph.id, id));
  return row ? { type: row.type, bytes: new Uint8Array(row.bytes) } : null;
}

/** Adds a photograph to a sheet; asked twice with one id, one is kept. */
export async function addPhotograph(
  db: Database,
  id: string,
  sheetId: string,
  caption: string,
  image: ReadImage,
): Promise<void> {
  await db
    .insert(photograph)
    .values({ id, sheetId, caption, ...image })
    .onConflictDoNothing();
}

/** Takes a photograph off its sheet. */
export async function takeOffPhotograph(db: Database, sheetId: string, id: string): Promise<void> {
  await db
    .update(photograph)
    .set({ archivedAt: new Date() })
    .where(and(eq(photograph.id, id), eq(photograph.sheetId, sheetId)));
}

/** A photograph of an entry, without its bytes. */
export interface EntryPhotograph {
  readonly id: string;
  /** The first of the entry's corrections. */
  readonly entryId: string;
  readonly widthPx: number;
  readonly heightPx: number;
  /** By the camera's clock; null where it does not say. */
  readonly takenAt: string | null;
}

/** Photographs of a ride's entries, in the order in which they came. */
export async function listEntryPhotographs(
  db: Database,
  rideId: string,
): Promise<readonly EntryPhotograph[]> {
  const { id, entryId, widthPx, heightPx, takenAt } = entryPhotograph;
  const rows = await db
    .select({ id, entryId, widthPx, heightPx, takenAt })
    .from(entryPhotograph)
    .where(and(eq(entryPhotograph.rideId, rideId), isNull(entryPhotograph.archivedAt)))
    .orderBy(asc(entryPhotograph.addedAt), asc(id));
  return rows.map((row) => ({ ...row, takenAt: row.takenAt?.toISOString() ?? null }));
}

/** Most photographs that a ride keeps. */
export const MOST_OF_A_RIDE = 200;

/** Keeps a photograph of an entry; sent twice with one id, one is kept. False where the ride has as many as it may. */
export async function addEntryPhotograph(
  db: Database,
  {
    takenAt,
    image,
    ...its
  }: {
    readonly id: string;
    readonly rideId: string;
    readonly entryId: string;
    readonly takenAt: Date | null;
    readonly image: ReadImage;
  },
): Promise<boolean> {
  const there = await db.$count(entryPhotograph, eq(entryPhotograph.rideId, its.rideId));
  if (there >= MOST_OF_A_RIDE) return false;
  await db
    .insert(entryPhotograph)
    .values({ ...its, takenAt, ...image })
    .onConflictDoNothing();
  return true;
}

/** A photograph of an entry of a test, whole. */
export async function findEntryPhotograph(db: Database, testId: string, id: string) {
  const [row] = await db
    .select({ type: entryPhotograph.type, bytes: entryPhotograph.bytes })
    .from(entryPhotograph)
    .innerJoin(ride, eq(ride.id, entryPhotograph.rideId))
    .where(and(eq(entryPhotograph.id, id), eq(ride.testId, testId)));
  return row ? { type: row.type, bytes: new Uint8Array(row.bytes) } : null;
}

/** Takes a photograph off its entry: it is kept, and shown no more. */
export async function takeOffEntryPhotograph(db: Database, rideId: string, id: string): Promise<void> {
  await db
    .update(entryPhotograph)
    .set({ archivedAt: new Date() })
    .where(and(eq(entryPhotograph.id, id), eq(entryPhotograph.rideId, rideId)));
}
