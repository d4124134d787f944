import { isDeepStrictEqual } from "node:util";
import { eq } from "drizzle-orm";
import { analyseTest } from "#core/analysis";
import type { Database } from "#db/client";
import { cachedAnalysis, cachedStamps, fullStamp } from "#db/results";
import { result } from "#db/schema";
import { listTests } from "#db/tests";
import { loadRecord } from "#db/record";
import { UnreadableRow } from "#db/unreadable";

/** An analysis that is not what its test comes to when it is reckoned anew. */
export interface Differing {
  readonly id: string;
  readonly title: string;
  readonly why: string;
}

const asJson = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

/**
 * Reckons every test anew whose analysis counts as fresh, and sets it against what is cached.
 *
 * @param by the build whose analyses are looked at; @param forget those that differ
 */
export async function checkAnalyses(
  db: Database,
  by: string,
  forget: boolean,
): Promise<{ readonly checked: number; readonly differ: readonly Differing[] }> {
  const [lines, stamps] = await Promise.all([listTests(db), cachedStamps(db)]);
  const fresh = lines.filter(({ id, stamp }) => stamps.get(id) === fullStamp(by, stamp));
  const differ: Differing[] = [];
  for (const { id, test } of fresh) {
    const cached = await cachedAnalysis(db, id);
    const record = await loadRecord(db, id).catch((error: unknown) => {
      if (error instanceof UnreadableRow) return null;
      throw error;
    });
    if (!record) continue;
    const anew = analyseTest(record);
    const same =
      cached !== null &&
      cached.result.ok === anew.ok &&
      (!anew.ok || !cached.result.ok || isDeepStrictEqual(asJson(cached.result.value), asJson(anew.value)));
    if (same) continue;
    const why = cached === null ? "it cannot be read" : "reckoned anew it comes to something else";
    differ.push({ id, title: test.title, why });
    if (forget) await db.delete(result).where(eq(result.testId, id));
  }
  return { checked: fresh.length, differ };
}
