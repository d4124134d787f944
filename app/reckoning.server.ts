import { createHash } from "node:crypto";
import type { Problem, Result } from "#core/problems";
import { good } from "#core/problems";
import { digestOf, reckonTest, type TestDigest, type TestResults } from "#core/results";
import type { Database } from "#db/client";
import { findDerived, keepDerived } from "#db/derived";
import { cachedDigests, cachedResults, keepResult, type CachedResult } from "#db/results";
import { loadRecord, type TestLine } from "#db/tests";

/** The build the results come from: another build reckons anew. Without one, as in development, nothing is cached. */
const build = process.env["BAROMETRON_BUILD"] ?? null;

const gone: readonly Problem[] = [{ code: "gone", path: "", sentence: "The test is no longer there." }];

/** A hash of everything something is reckoned from. */
const hashOf = (from: unknown) => createHash("sha256").update(JSON.stringify(from)).digest("base64url");

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

/** Digests of tests: from the cache where its stamp still holds, without reading whole results; else as `resultsOf`. */
export async function digestsOf(
  db: Database,
  lines: readonly TestLine[],
): Promise<ReadonlyMap<string, TestDigest>> {
  const cached = build === null ? new Map<string, never>() : await cachedDigests(db);
  const fresh = new Map<string, TestDigest>();
  const stale = lines.filter((line) => {
    const hit = cached.get(line.id) as { stamp: string; digest: TestDigest } | undefined;
    if (hit?.stamp !== `${build}/${line.stamp}`) return true;
    fresh.set(line.id, hit.digest);
    return false;
  });
  if (stale.length)
    for (const [id, result] of await resultsOf(db, stale))
      if (result.ok) fresh.set(id, digestOf(result.value));
  return fresh;
}

/**
 * Something reckoned from several tests or sweeps, from the cache where its inputs are the same.
 *
 * @param kind of what is reckoned; @param from everything it is reckoned from, by value or by stamp
 */
export async function derivedOf<T>(db: Database, kind: string, from: unknown, reckon: () => T): Promise<T> {
  if (build === null) return reckon();
  const key = `${kind}/${build}/${hashOf(from)}`;
  const hit = await findDerived(db, key);
  if (hit !== undefined) return hit as T;
  const value = reckon();
  await keepDerived(db, key, value);
  return value;
}
