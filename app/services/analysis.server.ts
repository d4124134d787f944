import type { Result } from "#core/base";
import type { TestDigest, TestResults } from "#core/analysis";
import type { Database } from "#db/client";
import {
  cachedAnalysis,
  cachedDigests,
  cachedStamp,
  cachedStamps,
  countStale,
  fullStamp,
  staleTests,
} from "#db/results";
import type { TestLine } from "#db/tests";
import { build } from "./build.server";
import { compute } from "./compute/pool.server";
import { underWay } from "./deskMemory.server";
import { within } from "./patience.server";

/** Most tests that one page has reckoned ahead of all others. */
const AT_ONCE = 6;
/** Tests taken from the heap at a time. */
const BATCH = 40;

/** Analyses under way, by test and stamp. */
const analysing = underWay<void>();

const analyse = (db: Database, testId: string, stamp: string): Promise<void> =>
  analysing(db, `${testId}/${stamp}`, () => compute(db, "analyse", { testId }));

async function fill(db: Database): Promise<void> {
  const tried = new Set<string>();
  for (;;) {
    const ids = (await staleTests(db, build, BATCH + tried.size)).filter((id) => !tried.has(id));
    if (ids.length === 0) return;
    for (const id of ids) {
      tried.add(id);
      await analyse(db, id, "").catch(() => undefined);
    }
  }
}

/** Desks whose outdated analyses are being calculated. */
const filling = underWay<void>();

/** Calculates in the background, one by one, what is out of date. Nobody waits for it. */
export function fillInBackground(db: Database): void {
  void filling(db, "", () => fill(db).catch(() => undefined));
}

/**
 * Sees to it that the analyses of some tests are up to date: reckons what is not, waits a moment, and tells how many are
 * still under way. What is known meanwhile is shown.
 */
export async function freshen(
  db: Database,
  lines: readonly { readonly id: string; readonly stamp: string }[],
  stamps?: ReadonlyMap<string, string>,
): Promise<number> {
  const cached = stamps ?? (await cachedStamps(db));
  const stale = lines.filter(({ id, stamp }) => cached.get(id) !== fullStamp(build, stamp));
  if (stale.length === 0) return 0;
  let left = stale.length;
  const all = Promise.all(
    stale.slice(0, AT_ONCE).map(({ id, stamp }) =>
      analyse(db, id, stamp).then(
        () => {
          left -= 1;
        },
        () => undefined,
      ),
    ),
  );
  if (stale.length > AT_ONCE) fillInBackground(db);
  await within(all);
  return left;
}

/** A test's analysis as far as it is known: the newest there is, its stamp, and whether a newer one is under way. */
export interface KnownAnalysis {
  readonly result: Result<TestResults> | null;
  /** Stamp of what it was reckoned from. */
  readonly stamp: string;
  readonly pending: boolean;
  /** What of the test could not be read and was left out. */
  readonly notes: readonly string[];
}

/** A test's analysis: from the cache where its stamp still holds, else reckoned; the one before where that takes long. */
export async function analysisOf(db: Database, line: TestLine): Promise<KnownAnalysis> {
  const wanted = fullStamp(build, line.stamp);
  const asKnown = async (): Promise<KnownAnalysis> => {
    const cached = await cachedAnalysis(db, line.id);
    // A body of another build may lack what this one's pages show: it is reckoned anew first.
    const readable = cached?.stamp.startsWith(fullStamp(build, "")) ?? false;
    return {
      result: readable ? cached!.result : null,
      stamp: cached ? cached.stamp.slice(cached.stamp.indexOf("/") + 1) : "",
      pending: cached?.stamp !== wanted,
      notes: cached?.notes.map(({ sentence }) => sentence) ?? [],
    };
  };
  const known = await asKnown();
  if (!known.pending) return known;
  await within(analyse(db, line.id, line.stamp).catch(() => undefined));
  return asKnown();
}

/** Whether a test's analysis is up to date, as `analysisOf`, without reading it: a long one is read where it holds nobody up. */
export async function freshnessOf(db: Database, line: TestLine): Promise<KnownAnalysis> {
  const wanted = fullStamp(build, line.stamp);
  if ((await cachedStamp(db, line.id))?.stamp !== wanted)
    await within(analyse(db, line.id, line.stamp).catch(() => undefined));
  const cached = await cachedStamp(db, line.id);
  const stamp = cached?.stamp ?? "";
  return { result: null, stamp: stamp.slice(stamp.indexOf("/") + 1), pending: stamp !== wanted, notes: [] };
}

/** Digests of tests by id, fresh or as last known, and how many are still being reckoned. */
export async function digestsOf(
  db: Database,
  lines: readonly TestLine[],
): Promise<{ readonly digests: ReadonlyMap<string, TestDigest>; readonly pending: number }> {
  const pending = await freshen(db, lines);
  const ids = lines.map(({ id }) => id);
  return { digests: await cachedDigests(db, ids), pending };
}

/** How many tests of the desk are still being reckoned; sees to it that they are. */
export async function pendingOnDesk(db: Database): Promise<{ readonly stale: number; readonly all: number }> {
  const counts = await countStale(db, build);
  if (counts.stale > 0) fillInBackground(db);
  return counts;
}

/** The same, after a moment's wait for the few that are out of date. */
export async function freshenDesk(db: Database): Promise<{ readonly stale: number; readonly all: number }> {
  const counts = await countStale(db, build);
  if (counts.stale === 0) return counts;
  const ids = await staleTests(db, build, AT_ONCE);
  if (counts.stale > ids.length) {
    fillInBackground(db);
    return counts;
  }
  await within(Promise.all(ids.map((id) => analyse(db, id, "").catch(() => undefined))));
  return countStale(db, build);
}
