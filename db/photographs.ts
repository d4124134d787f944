import { and, asc, eq, isNull } from "drizzle-orm";
import type { ReadImage } from "#core/io";
import type { SheetPhotograph } from "#core/telling";
import type { Database } from "./client.ts";
import { photograph } from "./schema.ts";

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
