import { eq, lt, sql } from "drizzle-orm";
import type { Database } from "./client.ts";
import { derived } from "./schema.ts";

/** How long a cached value is kept without being asked for again, days. */
const KEPT_DAYS = 30;

/** A cached value by the hash of what it was reckoned from. */
export async function findDerived(db: Database, key: string): Promise<{ readonly body: unknown } | null> {
  const [row] = await db.select({ body: derived.body }).from(derived).where(eq(derived.key, key));
  return row ?? null;
}

export async function keepDerived(db: Database, key: string, body: unknown): Promise<void> {
  await db
    .insert(derived)
    .values({ key, body })
    .onConflictDoUpdate({ target: derived.key, set: { body, at: new Date() } });
  await db.delete(derived).where(lt(derived.at, sql`now() - make_interval(days => ${KEPT_DAYS})`));
}
