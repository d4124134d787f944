import { and, asc, desc, eq, isNull } from "drizzle-orm";
import { courseSchema, type Course } from "#core/route";
import { methodSchema, planSchema, type Method, type Plan } from "#core/planning";
import { listed, type Kept } from "./bikes.ts";
import type { Database } from "./client.ts";
import { saveEntity, type Seen } from "./entities.ts";
import { lockedRow } from "./kinds.ts";
import { bike, course, method, pack, plan, planTick, rider, setUp, test } from "./schema.ts";
import { readRow, readRows, type Unreadable } from "./unreadable.ts";

/** Who, on what and where a plan rides. */
export interface PlanLinks {
  readonly bikeId: string;
  readonly packId: string;
  readonly setUpId: string | null;
  readonly riderId: string | null;
  readonly courseId: string | null;
  readonly testId: string | null;
}

export interface PlanLine extends PlanLinks {
  readonly id: string;
  readonly plan: Plan;
  readonly bikeName: string;
  readonly setUpName: string | null;
  readonly riderName: string | null;
  readonly courseName: string | null;
  readonly archived: boolean;
  readonly version: number;
}

const courseOf = ({ id, body, archivedAt, version }: typeof course.$inferSelect): Kept<Course> => ({
  ...courseSchema.parse(body),
  id,
  archived: archivedAt !== null,
  version,
});

export async function listCourses(
  db: Database,
  { archived = false, unreadable }: { readonly archived?: boolean; readonly unreadable?: Unreadable[] } = {},
): Promise<readonly Kept<Course>[]> {
  const rows = await db.select().from(course).where(listed(course, archived));
  return [...readRows("course", rows, courseOf, unreadable)].sort((a, b) => a.name.localeCompare(b.name));
}

export async function findCourse(db: Database, id: string): Promise<Kept<Course> | null> {
  const [row] = await db.select().from(course).where(eq(course.id, id));
  return readRow("course", row, courseOf);
}

export function saveCourse(db: Database, id: string, body: Course, seen?: Seen): Promise<string> {
  return saveEntity(db, "course", { id, body }, seen);
}

/** A person's own templates of method. */
export async function listMethods(db: Database, unreadable?: Unreadable[]): Promise<readonly Kept<Method>[]> {
  const rows = await db.select().from(method).where(isNull(method.archivedAt)).orderBy(asc(method.id));
  return readRows(
    "method",
    rows,
    ({ id, body, version }) => ({ ...methodSchema.parse(body), id, archived: false, version }),
    unreadable,
  );
}

export function saveMethod(db: Database, id: string, body: Method, seen?: Seen): Promise<string> {
  return saveEntity(db, "method", { id, body }, seen);
}

interface PlanFilter {
  readonly id?: string;
  readonly archived?: boolean;
  /** Told the plans that cannot be read, which are left out. */
  readonly unreadable?: Unreadable[];
}

/** Lines that are ticked, by plan. */
async function ticksOf(db: Database, planId?: string): Promise<ReadonlyMap<string, readonly string[]>> {
  const rows = await db
    .select()
    .from(planTick)
    .where(planId ? eq(planTick.planId, planId) : undefined)
    .orderBy(asc(planTick.at), asc(planTick.line));
  const ticks = new Map<string, string[]>();
  for (const { planId: of, line } of rows) ticks.set(of, [...(ticks.get(of) ?? []), line]);
  return ticks;
}

async function planRows(db: Database, { id, archived }: PlanFilter) {
  return db
    .select({
      ...{ plan, bikeName: bike.name, setUpName: setUp.name, riderName: rider.name, course: course.body },
      // A test in the trash is none: the plan can be ridden again.
      testId: test.id,
    })
    .from(plan)
    .innerJoin(bike, eq(bike.id, plan.bikeId))
    .innerJoin(pack, eq(pack.id, plan.packId))
    .leftJoin(setUp, eq(setUp.id, plan.setUpId))
    .leftJoin(rider, eq(rider.id, plan.riderId))
    .leftJoin(course, eq(course.id, plan.courseId))
    .leftJoin(test, and(eq(test.id, plan.testId), isNull(test.deletedAt)))
    .where(and(id ? eq(plan.id, id) : undefined, id ? undefined : listed(plan, archived)))
    .orderBy(desc(plan.day), desc(plan.id));
}
type PlanRow = Awaited<ReturnType<typeof planRows>>[number];

const lineOf = (row: PlanRow, ticked: readonly string[]): PlanLine => ({
  id: row.plan.id,
  bikeId: row.plan.bikeId,
  packId: row.plan.packId,
  setUpId: row.plan.setUpId,
  riderId: row.plan.riderId,
  courseId: row.plan.courseId,
  testId: row.testId,
  plan: { ...planSchema.parse(row.plan.body), ticked: [...ticked] },
  bikeName: row.bikeName,
  setUpName: row.setUpName,
  riderName: row.riderName,
  courseName: typeof row.course?.name === "string" ? row.course.name : null,
  archived: row.plan.archivedAt !== null,
  version: row.plan.version,
});

/** Plans, the next day first among those to come. */
export async function listPlans(db: Database, filter: PlanFilter = {}): Promise<readonly PlanLine[]> {
  const [rows, ticks] = await Promise.all([planRows(db, filter), ticksOf(db)]);
  const read = (row: PlanRow) => lineOf(row, ticks.get(row.plan.id) ?? []);
  return readRows("plan", rows, read, filter.unreadable, (row) => row.plan);
}

/** A plan by its id; null when there is none. @throws UnreadableRow */
export async function findPlan(db: Database, id: string): Promise<PlanLine | null> {
  const [[row], ticks] = await Promise.all([planRows(db, { id }), ticksOf(db, id)]);
  return readRow(
    "plan",
    row,
    (found) => lineOf(found, ticks.get(id) ?? []),
    (each) => each.plan,
  );
}

/** Keeps a plan; its ticks are rows of their own. @throws StaleSave */
export function savePlan(
  db: Database,
  id: string,
  links: PlanLinks,
  body: Plan,
  seen?: Seen,
): Promise<string> {
  const { bikeId, packId, setUpId, riderId, courseId, testId } = links;
  const { ticked: _ticked, ...kept } = body;
  const row = { id, bikeId, packId, setUpId, riderId, courseId, testId, day: body.day, body: kept };
  return saveEntity(db, "plan", row, seen);
}

/** Ticks a line of a plan's lists, or takes the tick back. */
export async function tickPlan(db: Database, planId: string, line: string, done: boolean): Promise<void> {
  if (done) await db.insert(planTick).values({ planId, line }).onConflictDoNothing();
  else await db.delete(planTick).where(and(eq(planTick.planId, planId), eq(planTick.line, line)));
}

/**
 * Starts the test a plan becomes, once: under the plan's lock, so that however often it is pressed there is one test.
 *
 * @param make makes the test and gives its id
 * @returns the test's id, made now or before; null when there is no such plan
 */
export async function startPlan(
  db: Database,
  planId: string,
  make: (tx: Database) => Promise<string>,
): Promise<string | null> {
  return db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    const [row] = await tx.select().from(plan).where(eq(plan.id, planId)).for("no key update");
    if (!row) return null;
    const ridden = row.testId ? await lockedRow(tx, "test", row.testId) : null;
    if (ridden && ridden["deletedAt"] === null) return ridden.id;
    const testId = await make(tx);
    await saveEntity(tx, "plan", { ...row, testId });
    return testId;
  });
}
