import { and, desc, eq, inArray, lt, or, sql } from "drizzle-orm";
import type { Database } from "../client.ts";
import { entry, ride } from "../schema.ts";
import { phone, trail, user } from "./schema.ts";

/** One change: when, by whom, of what, and which columns became what. */
export interface Change {
  readonly id: number;
  readonly at: string;
  readonly by: string;
  readonly tableName: string;
  readonly what: string;
  readonly before: Readonly<Record<string, unknown>> | null;
  readonly after: Readonly<Record<string, unknown>> | null;
}

const PART = 50;

/** Who an actor is, by name: a person, a phone, or whoever sits at this machine. */
async function namesOf(db: Database, actors: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const phones = actors.filter((actor) => actor.startsWith("phone/")).map((actor) => actor.slice(6));
  const people = actors.filter((actor) => actor !== "" && !actor.startsWith("phone/"));
  const [users, devices] = await Promise.all([
    people.length
      ? db.select({ id: user.id, name: user.name }).from(user).where(inArray(user.id, people))
      : [],
    phones.length
      ? db.select({ id: phone.id, name: phone.name }).from(phone).where(inArray(phone.id, phones))
      : [],
  ]);
  return new Map([
    ["", "this machine"],
    ...users.map(({ id, name }) => [id, name] as const),
    ...devices.map(({ id, name }) => [`phone/${id}`, name] as const),
  ]);
}

/**
 * The changes of one row, the newest first; of a test those of its rides and their entries as well.
 *
 * @param before only those older than this one, by its number
 */
export async function changesOf(
  db: Database,
  tableName: string,
  rowId: string,
  before?: number,
): Promise<{ readonly changes: readonly Change[]; readonly more: boolean }> {
  const ofRow = and(eq(trail.tableName, tableName), eq(trail.rowId, rowId));
  const rides = sql`(select ${ride.id}::text from ${ride} where ${ride.testId} = ${rowId})`;
  const entries = sql`(select ${entry.id}::text from ${entry} join ${ride} on ${ride.id} = ${entry.rideId} where ${ride.testId} = ${rowId})`;
  const which =
    tableName === "test"
      ? or(
          ofRow,
          and(eq(trail.tableName, "ride"), sql`${trail.rowId} in ${rides}`),
          and(eq(trail.tableName, "entry"), sql`${trail.rowId} in ${entries}`),
        )
      : ofRow;
  const rows = await db
    .select()
    .from(trail)
    .where(and(which, before === undefined ? undefined : lt(trail.id, before)))
    .orderBy(desc(trail.id))
    .limit(PART + 1);
  const names = await namesOf(db, [...new Set(rows.map(({ actor }) => actor))]);
  return {
    changes: rows.slice(0, PART).map(({ actor, at, deskId: _, rowId: __, ...rest }) => ({
      ...rest,
      at: at.toISOString(),
      by: names.get(actor) ?? "somebody who is gone",
    })),
    more: rows.length > PART,
  };
}
