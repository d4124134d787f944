import { analyseTest } from "#core/analysis";
import type { Database } from "#db/client";
import { cachedStamp, fullStamp, keepAnalysis, renewStamp, cachedAnalysis } from "#db/results";
import { findTest } from "#db/tests";
import { loadRecord } from "#db/record";
import { UnreadableRow, type Unreadable } from "#db/unreadable";
import { build, hashOf } from "../build.server";

/**
 * Reckons a test and keeps its analysis under the stamp it had when its record was read: a change meanwhile leaves it
 * stale, and it is reckoned again. Where only the stamp moved and the inputs are the same, nothing is reckoned.
 */
export async function analyse(db: Database, testId: string): Promise<void> {
  const line = await findTest(db, testId).catch(asUnreadable);
  if (line === null) return;
  const stamp = line instanceof UnreadableRow ? null : fullStamp(build, line.stamp);
  if (stamp === null) return;
  const cached = await cachedStamp(db, testId);
  if (cached?.stamp === stamp && (await cachedAnalysis(db, testId))) return;
  const unreadable: Unreadable[] = [];
  const record = await loadRecord(db, testId, unreadable).catch(asUnreadable);
  if (record === null) return;
  if (record instanceof UnreadableRow) {
    const sentence = `What the test rests on cannot be read: ${record.row.sentences.join(" ")}`;
    const problems = [{ code: "unreadable", path: record.row.table, sentence }];
    return keepAnalysis(db, testId, { stamp, inputs: "", result: { ok: false, problems }, notes: [] });
  }
  const inputs = `${build}/${hashOf(record)}`;
  if (cached?.inputs === inputs && (await cachedAnalysis(db, testId))) return renewStamp(db, testId, stamp);
  await keepAnalysis(db, testId, { stamp, inputs, result: reckonSafely(record), notes: notesOf(unreadable) });
}

/** An exception of the core is a problem of that test alone, and is said to be what it is: a fault of ours. */
function reckonSafely(record: Parameters<typeof analyseTest>[0]): ReturnType<typeof analyseTest> {
  try {
    return analyseTest(record);
  } catch (error) {
    console.error("a test could not be reckoned:", error instanceof Error ? error.stack : error);
    const sentence =
      "This test could not be calculated, by a fault of Barometron: its entries are kept, and nothing is wrong with them. The log of the start command says more.";
    return { ok: false, problems: [{ code: "fault", path: "", sentence }] };
  }
}

const NAMES: ReadonlyMap<string, string> = new Map([
  ["track", "The track"],
  ["telemetry_import", "The logger's recording"],
]);

/** What besides entries could not be read; those are told where they stand in the log. */
const notesOf = (unreadable: readonly Unreadable[]) =>
  unreadable
    .filter(({ table }) => table !== "entry")
    .map(({ table, label, sentences }) => ({
      code: "unreadable",
      path: table,
      sentence: `${NAMES.get(table) ?? "A recording"} “${label}” cannot be read and is left out: ${sentences.join(" ")}`,
    }));

function asUnreadable(error: unknown): UnreadableRow {
  if (error instanceof UnreadableRow) return error;
  throw error;
}
