import { createHash } from "node:crypto";
import type { Problem, Result } from "#core/problems";
import { good } from "#core/problems";
import { reckonTest, type TestResults } from "#core/results";
import type { Database } from "#db/client";
import type { TestRecord } from "#core/records";
import { cachedResults, keepResult, type CachedResult } from "#db/results";
import { loadRecord, type TestLine } from "#db/tests";

/** The build the results come from: another build reckons anew. Without one, as in development, nothing is cached. */
const build = process.env["BAROMETRON_BUILD"] ?? null;

const gone: readonly Problem[] = [{ code: "gone", path: "", sentence: "The test is no longer there." }];

/** A hash of everything a test is reckoned from. */
function hashOf(record: TestRecord): string {
  return createHash("sha256").update(JSON.stringify(record)).digest("base64url");
}

/**
 * Results of tests, from the cache where its stamp still holds; else, where only the stamp moved and the inputs' hash is
 * the same, still from the cache; else reckoned and kept.
 */
export async function resultsOf(
  db: Database,
  lines: readonly TestLine[],
): Promise<ReadonlyMap<string, Result<TestResults>>> {
  const ids = lines.map(({ id }) => id);
  const cached = build === null ? new Map<string, CachedResult>() : await cachedResults(db, ids);
  const results = await Promise.all(
    lines.map(async ({ id, stamp }): Promise<readonly [string, Result<TestResults>]> => {
      const full = `${build}/${stamp}`;
      const hit = cached.get(id);
      if (hit?.stamp === full) return [id, good(hit.body)];
      const record = await loadRecord(db, id);
      if (!record) return [id, { ok: false, problems: gone }];
      const inputs = `${build}/${hashOf(record)}`;
      const result = hit?.inputs === inputs ? good(hit.body) : reckonTest(record);
      if (result.ok && build !== null) await keepResult(db, id, { stamp: full, inputs, body: result.value });
      return [id, result];
    }),
  );
  return new Map(results);
}
