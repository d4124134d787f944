import { eq, sql } from "drizzle-orm";
import type { PgColumn, PgTable } from "drizzle-orm/pg-core";
import { v7 as uuidv7 } from "uuid";
import type { z } from "zod";
import { courseSchema } from "#core/route";
import { entrySchema } from "#core/ride/log";
import { methodSchema, planSchema } from "#core/planning";
import {
  benchSchema,
  bikeSchema,
  climbSchema,
  instrumentSchema,
  packRecordSchema,
  referenceSchema,
  riderSchema,
  setUpSchema,
  sweepSchema,
  testSchema,
} from "#core/records";
import { sheetOptionsSchema } from "#core/telling";
import type { Database } from "./client.ts";
import {
  bench,
  bike,
  climb,
  course,
  entry,
  instrument,
  method,
  pack,
  plan,
  reference,
  rider,
  setAside,
  setUp,
  sheet,
  sweep,
  test,
  track,
} from "./schema.ts";
import { restamp, restampRide } from "./stamps.ts";
import { trackOfRow } from "./tracks.ts";
import { bySchema, readRows, type Unreadable } from "./unreadable.ts";

type Row = Readonly<Record<string, unknown>> & { readonly id: string };
type Kept = PgTable & { readonly id: PgColumn };

interface Checked {
  readonly table: Kept;
  /** Reads a row, or throws. */
  readonly read: (row: Row) => unknown;
  /** Others refer to it: its unreadable fields are emptied in place, and the row as it was is set aside. */
  readonly schema?: z.ZodType<object>;
}

const columns = (table: unknown, schema: z.ZodType<object>): Checked => ({
  table: table as Kept,
  read: bySchema(schema),
  schema,
});
const body = (table: unknown, schema: z.ZodType): Checked => ({
  table: table as Kept,
  read: (row) => schema.parse(row["body"]),
});

/** Every table with a schema of core behind it. */
const CHECKED: ReadonlyMap<string, Checked> = new Map([
  ["bike", columns(bike, bikeSchema)],
  ["pack", columns(pack, packRecordSchema)],
  ["rider", columns(rider, riderSchema)],
  ["instrument", columns(instrument, instrumentSchema)],
  ["set_up", columns(setUp, setUpSchema)],
  ["test", columns(test, testSchema)],
  ["bench", body(bench, benchSchema)],
  ["course", body(course, courseSchema)],
  ["method", body(method, methodSchema)],
  ["plan", body(plan, planSchema)],
  ["sweep", body(sweep, sweepSchema)],
  ["climb", body(climb, climbSchema)],
  ["reference", body(reference, referenceSchema)],
  ["sheet", body(sheet, sheetOptionsSchema)],
  [
    "entry",
    {
      table: entry as unknown as Kept,
      read: (row) =>
        entrySchema.parse({
          id: row.id,
          seq: row["seq"],
          at: row["at"] === null ? null : new Date(String(row["at"])).toISOString(),
          body: row["body"],
          supersedes: row["supersedes"],
        }),
    },
  ],
  [
    "track",
    {
      table: track as unknown as Kept,
      read: (row) => trackOfRow(row as never),
    },
  ],
]);

const PART = 1000;

/** Rows of a table that cannot be read. */
async function damageIn(
  db: Database,
  name: string,
  { table, read }: Checked,
): Promise<readonly Unreadable[]> {
  const damaged: Unreadable[] = [];
  for (let offset = 0; ; offset += PART) {
    const rows = (await db.select().from(table).orderBy(table.id).limit(PART).offset(offset)) as Row[];
    readRows(name, rows, read, damaged);
    if (rows.length < PART) return damaged;
  }
}

/** Every stored row that cannot be read, table by table. */
export async function listDamage(db: Database): Promise<readonly Unreadable[]> {
  const all: Unreadable[] = [];
  for (const [name, checked] of CHECKED) all.push(...(await damageIn(db, name, checked)));
  return all;
}

/** Empties the fields of a row that cannot be read, one after the other, until it can. Null when that does not help. */
function mended(row: Row, schema: z.ZodType<object>): Record<string, unknown> | null {
  const changed: Record<string, unknown> = {};
  const now: Record<string, unknown> = { ...row };
  for (let tries = 0; tries < 40; tries += 1) {
    const found = schema.safeParse(
      Object.fromEntries(Object.entries(now).filter(([, value]) => value !== null && value !== undefined)),
    );
    if (found.success) {
      const value = found.data as Readonly<Record<string, unknown>>;
      return Object.fromEntries(Object.keys(changed).map((key) => [key, value[key] ?? null]));
    }
    for (const { path } of found.error.issues) {
      const key = String(path[0] ?? "");
      if (key in changed || key === "") {
        // Emptied and still wrong: it has to hold something.
        const stand = STANDING_IN.get(key);
        if (stand === undefined || now[key] === stand) return null;
        now[key] = stand;
      } else now[key] = null;
      changed[key] = null;
    }
  }
  return null;
}

/** What stands in for a field that may not be empty. */
const STANDING_IN: ReadonlyMap<string, unknown> = new Map<string, unknown>([
  ["name", "could not be read"],
  ["title", "could not be read"],
  ["day", "2000-01-01"],
  ["levels", ["level"]],
  ["labelWh", 500],
]);

/**
 * Sets an unreadable row aside: it is kept whole in a table of its own. A row that others refer to stays, with the fields
 * that could not be read emptied.
 *
 * @returns what was done, in a sentence
 */
export async function setRowAside(db: Database, damaged: Unreadable): Promise<string> {
  const checked = CHECKED.get(damaged.table);
  if (!checked) return "It is of a table nobody knows.";
  const { table, schema } = checked;
  return db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    const [row] = (await tx
      .select()
      .from(table)
      .where(eq(table.id, damaged.id))
      .for("no key update")) as Row[];
    if (!row) return "It is gone already.";
    const why = damaged.sentences.join(" ").slice(0, 2000);
    await tx.insert(setAside).values({ id: uuidv7(), tableName: damaged.table, rowId: damaged.id, row, why });
    if (schema) {
      const changes = mended(row, schema);
      if (!changes)
        throw new Error(`${damaged.table} ${damaged.id} could not be mended; nothing was changed.`);
      await tx
        .update(table)
        .set(changes as never)
        .where(eq(table.id, damaged.id));
      if (damaged.table !== "instrument")
        await restamp(tx, damaged.table === "set_up" ? "setUp" : (damaged.table as "bike"), damaged.id);
      return `Its fields ${Object.keys(changes).join(", ")} were emptied; the row as it was is kept aside.`;
    }
    if (damaged.table === "course")
      await tx.update(plan).set({ courseId: null }).where(eq(plan.courseId, damaged.id));
    if (damaged.table === "plan") await tx.execute(sql`delete from plan_tick where plan_id = ${damaged.id}`);
    await tx.delete(table).where(eq(table.id, damaged.id));
    const rideId = row["rideId"];
    if (typeof rideId === "string") await restampRide(tx, rideId);
    return "It is kept aside whole.";
  });
}
