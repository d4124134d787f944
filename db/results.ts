import { inArray } from "drizzle-orm";
import { digestOf, type TestDigest, type TestResults } from "#core/results";
import type { Database } from "./client.ts";
import { result } from "./schema.ts";

/** A result with the stamp and the hash of the inputs it was reckoned from. */
export interface CachedResult {
  readonly stamp: string;
  readonly inputs: string;
  readonly body: TestResults;
}

/** Cached results by test id. */
export async function cachedResults(
  db: Database,
  testIds: readonly string[],
): Promise<ReadonlyMap<string, CachedResult>> {
  if (testIds.length === 0) return new Map();
  const rows = await db
    .select()
    .from(result)
    .where(inArray(result.testId, [...testIds]));
  return new Map(rows.map(({ testId, ...cached }) => [testId, cached]));
}

/** Digests of cached results by test id, with their stamps: the bodies stay in the database. */
export async function cachedDigests(
  db: Database,
): Promise<ReadonlyMap<string, { readonly stamp: string; readonly digest: TestDigest }>> {
  const rows = await db
    .select({ testId: result.testId, stamp: result.stamp, digest: result.digest })
    .from(result);
  return new Map(
    rows.flatMap(({ testId, stamp, digest }) => (digest ? [[testId, { stamp, digest }] as const] : [])),
  );
}

export async function keepResult(db: Database, testId: string, cached: CachedResult): Promise<void> {
  const row = { ...cached, digest: digestOf(cached.body) };
  await db
    .insert(result)
    .values({ testId, ...row })
    .onConflictDoUpdate({ target: result.testId, set: row });
}
