import { inArray } from "drizzle-orm";
import type { TestResults } from "#core/results";
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

export async function keepResult(db: Database, testId: string, cached: CachedResult): Promise<void> {
  await db
    .insert(result)
    .values({ testId, ...cached })
    .onConflictDoUpdate({ target: result.testId, set: cached });
}
