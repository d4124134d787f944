import { eq, getTableColumns, lt, sql } from "drizzle-orm";
import type { PgColumn, PgTable } from "drizzle-orm/pg-core";
import { v7 as uuidv7 } from "uuid";
import type { Database } from "./client.ts";
import {
  bench,
  bike,
  change,
  climb,
  course,
  instrument,
  method,
  pack,
  plan,
  rider,
  setUp,
  sweep,
} from "./schema.ts";

/** What a person keeps, changes, puts away and may want back. */
const TABLES = { bike, pack, setUp, rider, instrument, bench, course, method, plan, sweep, climb } as const;
export type KeptKind = keyof typeof TABLES;
export const KEPT_KINDS = Object.keys(TABLES) as readonly KeptKind[];

type Row = Readonly<Record<string, unknown>> & { readonly id: string };
/** All these tables have an id, a mark of being put away, and the time of their last change. */
type KeptTable = PgTable & { readonly id: PgColumn; readonly archivedAt: PgColumn };

const tableOf = (kind: KeptKind) => TABLES[kind] as unknown as KeptTable;

/** How long a change can be undone. */
const UNDO_DAYS = 7;

async function rowOf(db: Database, kind: KeptKind, id: string): Promise<Row | null> {
  const table = tableOf(kind);
  const [row] = await db.select().from(table).where(eq(table.id, id));
  return (row as Row | undefined) ?? null;
}

async function write(db: Database, kind: KeptKind, row: Row): Promise<void> {
  const table = tableOf(kind);
  const value = { ...row, updatedAt: new Date() } as never;
  await db.insert(table).values(value).onConflictDoUpdate({ target: table.id, set: value });
}

/**
 * Writes a row, new or changed, and remembers what it was before.
 *
 * @returns the change's id, by which it can be undone
 */
export async function keep(db: Database, kind: KeptKind, row: Row): Promise<string> {
  const id = uuidv7();
  await db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    const before = await rowOf(tx, kind, row.id);
    await write(tx, kind, row);
    await tx.insert(change).values({ id, kind, rowId: row.id, before });
    await tx.delete(change).where(lt(change.at, sql`now() - make_interval(days => ${UNDO_DAYS})`));
  });
  return id;
}

/** Puts a row away, or back: it stays, and lists leave it out. Returns the change's id; null when there is no such row. */
export async function putAway(db: Database, kind: KeptKind, id: string, away = true): Promise<string | null> {
  const row = await rowOf(db, kind, id);
  return row && keep(db, kind, { ...row, archivedAt: away ? new Date() : null });
}

/** A row as it was, its times read back from JSON. */
function revived(kind: KeptKind, before: Readonly<Record<string, unknown>>): Row {
  const columns = getTableColumns(tableOf(kind));
  return Object.fromEntries(
    Object.entries(before).map(([name, value]) => [
      name,
      typeof value === "string" && columns[name]?.dataType === "date" ? new Date(value) : value,
    ]),
  ) as Row;
}

/** Undoes one change: the row as it was before, or put away when it was not there. False when it is too long ago. */
export async function undo(db: Database, changeId: string): Promise<boolean> {
  const [found] = await db.select().from(change).where(eq(change.id, changeId));
  if (!found) return false;
  const kind = found.kind as KeptKind;
  if (found.before === null) await putAway(db, kind, found.rowId);
  else await keep(db, kind, revived(kind, found.before));
  await db.delete(change).where(eq(change.id, changeId));
  return true;
}
