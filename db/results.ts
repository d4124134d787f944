import { and, asc, count, desc, eq, inArray, isNotNull, isNull, sql } from "drizzle-orm";
import { Z_95, type Problem, type Result } from "#core/base";
import { HARDLY_KNOWN } from "#core/compare";
import {
  digestOf,
  headlineOf,
  isDigest,
  type Headline,
  type TestDigest,
  type TestResults,
} from "#core/analysis";
import type { Database } from "./client.ts";
import { bike, result, test } from "./schema.ts";

/** An analysis with the stamp and the hash of the inputs it was reckoned from: a cache, never the truth. */
export interface CachedAnalysis {
  readonly stamp: string;
  readonly inputs: string;
  readonly result: Result<TestResults>;
  /** What of the test could not be read and was left out. */
  readonly notes: readonly Problem[];
}

type Row = typeof result.$inferSelect;

/** A cached body that is no analysis counts as none: it is reckoned again. */
const isAnalysis = (body: unknown): body is TestResults =>
  typeof body === "object" && body !== null && "best" in body && "flags" in body;

function analysisOf({ stamp, inputs, body, problems }: Row): CachedAnalysis | null {
  const said: readonly Problem[] = Array.isArray(problems) ? problems : [];
  if (isAnalysis(body)) return { stamp, inputs, result: { ok: true, value: body }, notes: said };
  return Array.isArray(problems) ? { stamp, inputs, result: { ok: false, problems: said }, notes: [] } : null;
}

/** What is cached of a test, fresh or not; null when nothing is. */
export async function cachedAnalysis(db: Database, testId: string): Promise<CachedAnalysis | null> {
  const [row] = await db.select().from(result).where(eq(result.testId, testId));
  return row ? analysisOf(row) : null;
}

/** Stamp and inputs of what is cached of a test, without its body. */
export async function cachedStamp(db: Database, testId: string) {
  const [row] = await db
    .select({ stamp: result.stamp, inputs: result.inputs })
    .from(result)
    .where(eq(result.testId, testId));
  return row ?? null;
}

/** Keeps an analysis in place of the one before. */
export async function keepAnalysis(
  db: Database,
  testId: string,
  { stamp, inputs, result: found, notes }: CachedAnalysis,
): Promise<void> {
  const { whPerM, ...headline } = headlineOf(found);
  const row = {
    stamp,
    inputs,
    body: found.ok ? found.value : null,
    problems: found.ok ? (notes.length ? notes : null) : found.problems,
    digest: found.ok ? digestOf(found.value) : null,
    whPerM: whPerM?.mean ?? null,
    whPerMSd: whPerM?.sd ?? null,
    ...headline,
  };
  await db
    .insert(result)
    .values({ testId, ...row })
    .onConflictDoUpdate({ target: result.testId, set: row });
}

/** Gives a cached analysis a new stamp: what it was reckoned from is still the same. */
export async function renewStamp(db: Database, testId: string, stamp: string): Promise<void> {
  await db.update(result).set({ stamp }).where(eq(result.testId, testId));
}

/** Stamps of all cached analyses by test. */
export async function cachedStamps(db: Database): Promise<ReadonlyMap<string, string>> {
  const rows = await db.select({ id: result.testId, stamp: result.stamp }).from(result);
  return new Map(rows.map(({ id, stamp }) => [id, stamp]));
}

/** Digests of tests by id; those that have none, or one that cannot be read, are left out. */
export async function cachedDigests(
  db: Database,
  ids: readonly string[],
): Promise<ReadonlyMap<string, TestDigest>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({ id: result.testId, digest: result.digest })
    .from(result)
    .where(inArray(result.testId, [...ids]));
  return new Map(rows.flatMap(({ id, digest }) => (isDigest(digest) ? [[id, digest] as const] : [])));
}

/** What lists show of tests, by id; fresh or as last known. */
export async function headlinesOf(
  db: Database,
  ids: readonly string[],
): Promise<ReadonlyMap<string, Headline>> {
  if (ids.length === 0) return new Map();
  const rows = await db
    .select({
      id: result.testId,
      mean: result.whPerM,
      sd: result.whPerMSd,
      questions: result.questions,
      waits: result.waits,
      hasEnd: result.hasEnd,
    })
    .from(result)
    .where(inArray(result.testId, [...ids]));
  return new Map(
    rows.map(({ id, mean, sd, ...rest }) => [
      id,
      { whPerM: mean !== null && sd !== null ? { mean, sd } : null, ...rest },
    ]),
  );
}

/** A test's stamp as its analysis bears it: the build's name before it, so that another build reckons anew. */
export const fullStamp = (build: string, stamp: string | number) => `${build}/${stamp}`;

const isStale = (build: string) =>
  sql`${result.stamp} is distinct from ${build} || '/' || ${test.stamp}::text`;

/** Tests whose analysis is not there or out of date, the newest first. */
export async function staleTests(db: Database, build: string, limit: number): Promise<readonly string[]> {
  const rows = await db
    .select({ id: test.id })
    .from(test)
    .leftJoin(result, eq(result.testId, test.id))
    .where(and(isNull(test.rehearsal), isStale(build)))
    .orderBy(desc(test.day), desc(test.id))
    .limit(limit);
  return rows.map(({ id }) => id);
}

/** How many tests are still to be reckoned, and how many there are. */
export async function countStale(
  db: Database,
  build: string,
): Promise<{ readonly stale: number; readonly all: number }> {
  const [row] = await db
    .select({ stale: sql<string>`count(*) filter (where ${isStale(build)})`, all: count() })
    .from(test)
    .leftJoin(result, eq(result.testId, test.id))
    .where(isNull(test.rehearsal));
  return { stale: Number(row?.stale ?? 0), all: row?.all ?? 0 };
}

const LINE = { id: test.id, title: test.title, day: test.day, bike: bike.name };

/** Tests that wait for a judgement, the newest first, and how many there are. */
export async function waitingTests(db: Database, limit: number) {
  const query = db
    .select({ ...LINE, why: result.waits })
    .from(result)
    .innerJoin(test, eq(test.id, result.testId))
    .innerJoin(bike, eq(bike.id, test.bikeId))
    .where(and(isNull(test.rehearsal), isNotNull(result.waits)));
  const [rows, all] = await Promise.all([
    query.orderBy(desc(test.day), desc(test.id)).limit(limit),
    db
      .select({ all: count() })
      .from(result)
      .innerJoin(test, eq(test.id, result.testId))
      .where(and(isNull(test.rehearsal), isNotNull(result.waits))),
  ]);
  return { rows: rows.map(({ why, ...line }) => ({ ...line, why: why! })), all: all[0]?.all ?? 0 };
}

/** Figures so vague that they lead no list. */
const isHardlyKnown = sql`${Z_95} * ${result.whPerMSd} > ${HARDLY_KNOWN} * ${result.whPerM}`;

/** Tests with the least Wh per mile as ridden; those that are hardly known come last. */
export async function thriftiestTests(db: Database, limit: number) {
  const rows = await db
    .select({ ...LINE, mean: result.whPerM, sd: result.whPerMSd })
    .from(result)
    .innerJoin(test, eq(test.id, result.testId))
    .innerJoin(bike, eq(bike.id, test.bikeId))
    .where(and(isNull(test.rehearsal), isNotNull(result.whPerM), isNotNull(result.whPerMSd)))
    .orderBy(isHardlyKnown, asc(result.whPerM))
    .limit(limit);
  return rows.map(({ mean, sd, ...line }) => ({ ...line, whPerM: { mean: mean!, sd: sd! } }));
}

/** Tests without an end, the newest first: those that are still ridden. */
export async function openTests(db: Database, limit: number) {
  return db
    .select(LINE)
    .from(test)
    .innerJoin(bike, eq(bike.id, test.bikeId))
    .leftJoin(result, eq(result.testId, test.id))
    .where(and(isNull(test.rehearsal), sql`coalesce(${result.hasEnd}, false) = false`))
    .orderBy(desc(test.day), desc(test.id))
    .limit(limit);
}
