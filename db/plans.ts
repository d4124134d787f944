import { and, asc, desc, eq, isNull } from "drizzle-orm";
import { courseSchema, type Course } from "#core/course";
import { methodSchema, planSchema, type Method, type Plan } from "#core/plan";
import type { Kept } from "./bikes.ts";
import type { Database } from "./client.ts";
import { keep } from "./kept.ts";
import { bike, course, method, pack, plan, rider, setUp } from "./schema.ts";

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
}

export async function listCourses(
  db: Database,
  { archived = false }: { readonly archived?: boolean } = {},
): Promise<readonly Kept<Course>[]> {
  const rows = await db
    .select()
    .from(course)
    .where(archived ? undefined : isNull(course.archivedAt));
  return rows
    .map(({ id, body, archivedAt }) => ({ ...courseSchema.parse(body), id, archived: archivedAt !== null }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

export async function findCourse(db: Database, id: string): Promise<Kept<Course> | null> {
  const [row] = await db.select().from(course).where(eq(course.id, id));
  return row ? { ...courseSchema.parse(row.body), id: row.id, archived: row.archivedAt !== null } : null;
}

export function saveCourse(db: Database, id: string, body: Course): Promise<string> {
  return keep(db, "course", { id, body });
}

/** A person's own templates of method. */
export async function listMethods(db: Database): Promise<readonly Kept<Method>[]> {
  const rows = await db.select().from(method).where(isNull(method.archivedAt)).orderBy(asc(method.id));
  return rows.map(({ id, body }) => ({ ...methodSchema.parse(body), id, archived: false }));
}

export function saveMethod(db: Database, id: string, body: Method): Promise<string> {
  return keep(db, "method", { id, body });
}

/** Plans, the next day first among those to come. */
export async function listPlans(
  db: Database,
  filter: { readonly id?: string; readonly archived?: boolean } = {},
): Promise<readonly PlanLine[]> {
  const rows = await db
    .select({ plan, bikeName: bike.name, setUpName: setUp.name, riderName: rider.name, course: course.body })
    .from(plan)
    .innerJoin(bike, eq(bike.id, plan.bikeId))
    .innerJoin(pack, eq(pack.id, plan.packId))
    .leftJoin(setUp, eq(setUp.id, plan.setUpId))
    .leftJoin(rider, eq(rider.id, plan.riderId))
    .leftJoin(course, eq(course.id, plan.courseId))
    .where(
      and(
        filter.id ? eq(plan.id, filter.id) : undefined,
        filter.archived || filter.id ? undefined : isNull(plan.archivedAt),
      ),
    )
    .orderBy(desc(plan.day), desc(plan.id));
  return rows.map((row) => ({
    id: row.plan.id,
    bikeId: row.plan.bikeId,
    packId: row.plan.packId,
    setUpId: row.plan.setUpId,
    riderId: row.plan.riderId,
    courseId: row.plan.courseId,
    testId: row.plan.testId,
    plan: planSchema.parse(row.plan.body),
    bikeName: row.bikeName,
    setUpName: row.setUpName,
    riderName: row.riderName,
    courseName: row.course?.name ?? null,
    archived: row.plan.archivedAt !== null,
  }));
}

export async function findPlan(db: Database, id: string): Promise<PlanLine | null> {
  return (await listPlans(db, { id }))[0] ?? null;
}

export function savePlan(db: Database, id: string, links: PlanLinks, body: Plan): Promise<string> {
  const { bikeId, packId, setUpId, riderId, courseId, testId } = links;
  return keep(db, "plan", { id, bikeId, packId, setUpId, riderId, courseId, testId, day: body.day, body });
}
