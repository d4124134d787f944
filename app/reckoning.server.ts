import type { Problem, Result } from "#core/problems";
import { good } from "#core/problems";
import { reckonTest, type TestResults } from "#core/results";
import type { Database } from "#db/client";
import { cachedResults, keepResult } from "#db/results";
import { loadRecord, type TestLine } from "#db/tests";

/** The build the results come from: another build reckons anew. Without one, as in development, nothing is cached. */
const build = process.env["BAROMETRON_BUILD"] ?? null;

const gone: readonly Problem[] = [{ code: "gone", path: "", sentence: "The test is no longer there." }];

/** Results of tests, from the cache where its stamp still holds, else reckoned and kept. */
export async function resultsOf(
  db: Database,
  lines: readonly TestLine[],
): Promise<ReadonlyMap<string, Result<TestResults>>> {
  const cached =
    build === null
      ? new Map<string, never>()
      : await cachedResults(
          db,
          lines.map(({ id }) => id),
        );
  const results = await Promise.all(
    lines.map(async ({ id, stamp }): Promise<readonly [string, Result<TestResults>]> => {
      const full = `${build}/${stamp}`;
      const hit = cached.get(id);
      if (hit?.stamp === full) return [id, good(hit.body)];
      const record = await loadRecord(db, id);
      if (!record) return [id, { ok: false, problems: gone }];
      const result = reckonTest(record);
      if (result.ok && build !== null) await keepResult(db, id, full, result.value);
      return [id, result];
    }),
  );
  return new Map(results);
}
