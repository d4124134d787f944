import { desc, eq, max } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import { referenceSchema, type ReferenceRecord } from "#core/records";
import type { Estimate } from "#core/base";
import type { Reference } from "#core/bike";
import type { Database } from "./client.ts";
import { published, reference } from "./schema.ts";
import { readRows } from "./unreadable.ts";

/** One version of a reference set of the desk's own. */
export interface ReferenceVersion {
  readonly version: number;
  readonly body: ReferenceRecord;
}

/** Every version of every set, the newest first. */
export async function listReferences(db: Database): Promise<readonly ReferenceVersion[]> {
  const rows = await db.select().from(reference).orderBy(desc(reference.version));
  return readRows("reference", rows, ({ version, body }) => ({ version, body: referenceSchema.parse(body) }));
}

/**
 * Keeps a set as the next version of its name; earlier ones stay as they are.
 *
 * @param after the version that ships under this name, 0 where none does
 */
export async function saveReference(db: Database, body: ReferenceRecord, after: number): Promise<number> {
  return db.transaction(async (tx) => {
    const [last] = await tx
      .select({ version: max(reference.version) })
      .from(reference)
      .where(eq(reference.name, body.name));
    const version = Math.max(after, last?.version ?? 0) + 1;
    await tx.insert(reference).values({ id: uuidv7(), name: body.name, version, body });
    return version;
  });
}

/** A figure as it was published. */
export interface Published {
  readonly id: string;
  readonly whPerM: Estimate;
  readonly reference: Reference;
  readonly at: string;
}

export async function listPublished(db: Database, testId: string): Promise<readonly Published[]> {
  const rows = await db
    .select()
    .from(published)
    .where(eq(published.testId, testId))
    .orderBy(desc(published.at));
  return rows.map(({ id, whPerM, reference: set, at }) => ({
    id,
    whPerM,
    reference: set,
    at: at.toISOString(),
  }));
}

/** Keeps a figure with the very conditions it was brought to: later versions of the set do not move it. */
export async function publish(db: Database, testId: string, whPerM: Estimate, set: Reference): Promise<void> {
  await db.insert(published).values({ id: uuidv7(), testId, whPerM, reference: set });
}
