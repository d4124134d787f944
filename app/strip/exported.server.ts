import { analysisOf } from "#app/services/analysis.server";
import { found, idOf } from "#app/ui/require.server";
import type { TestResults } from "#core/analysis";
import type { Database } from "#db/client";
import { findTest, listRides } from "#db/tests";

const GONE = "There is no such test.";

/** A test with its first ride's zone and everything known of it; a sentence where it has no figure. */
export async function exportedTest(db: Database, testId: string) {
  const line = found(await findTest(db, idOf(testId, GONE)), GONE);
  const [[ride], { result }] = await Promise.all([listRides(db, line.id), analysisOf(db, line)]);
  const refusal = !result
    ? "Its figure is still being reckoned: ask again in a moment."
    : result.ok
      ? null
      : `There is no figure yet: ${result.problems.map(({ sentence }) => sentence).join(" ")}`;
  const results: TestResults | null = result?.ok ? result.value : null;
  return { line, zone: ride?.zone ?? "UTC", results, refusal };
}
