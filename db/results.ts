import { inArray } from "drizzle-orm";
import type { TestResults } from "#core/results";
import type { Database } from "./client.ts";
import { result } from "./schema.ts";

/** Cached results by test id, with the stamp of the inputs they were reckoned from. */
export async function cachedResults(
  db: Database,
  testIds: readonly string[],
): Promise<ReadonlyMap<string, { readonly stamp: string; readonly body: TestResults }>> {
  if (testIds.length === 0) return new Map();
  const rows = await db
    .select()
    .from(result)
    .where(inArray(result.testId, [...testIds]));
  return new Map(rows.map(({ testId, stamp, body }) => [testId, { stamp, body }]));
}

export async function keepResult(
  db: Database,
  testId: string,
  stamp: string,
  body: TestResults,
): Promise<void> {
  await db
    .insert(result)
    .values({ testId, stamp, body })
    .onConflictDoUpdate({ target: result.testId, set: { stamp, body } });
}
