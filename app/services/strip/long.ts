import { foldLog, type LiveEntry } from "#core/ride/log";
import type { Database } from "#db/client";
import { listEntries } from "#db/log";
import { cachedAnalysis } from "#db/results";
import { listRides } from "#db/tests";
import type { Unreadable } from "#db/unreadable";
import { lighter, stripResults, type StripResults } from "./view";

/** Entries from which on a strip is sent after its page, made ready where it holds nobody up. */
export const LONG_ENTRIES = 1000;

/** What the page of a long strip fetches. */
export interface LongStrip {
  readonly rides: readonly {
    readonly id: string;
    readonly log: readonly LiveEntry[];
    readonly unreadable: readonly Unreadable[];
  }[];
  readonly sent: StripResults | null;
  readonly problems: readonly string[];
}

/** The logs and results of a long strip, written out as JSON. */
export async function longStrip(db: Database, { testId }: { readonly testId: string }): Promise<string> {
  const [rides, cached] = await Promise.all([listRides(db, testId), cachedAnalysis(db, testId)]);
  const logs = await Promise.all(
    rides.map(async ({ id }) => {
      const unreadable: Unreadable[] = [];
      return { id, log: foldLog(await listEntries(db, id, unreadable)), unreadable };
    }),
  );
  const result = cached?.result;
  return JSON.stringify({
    rides: logs,
    sent: result?.ok ? lighter(stripResults(result.value)) : null,
    problems: result && !result.ok ? result.problems.map(({ sentence }) => sentence) : [],
  } satisfies LongStrip);
}
