import { isDeepStrictEqual } from "node:util";
import { and, desc, eq, getTableColumns, gt, inArray, lt, lte, or, sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import type { Database } from "./client.ts";
import { lockedRow, tableOf, type EntityKind, type Row } from "./kinds.ts";
import { change } from "./schema.ts";
import { restamp } from "./stamps.ts";

/** How long a change can be undone. */
const UNDO_DAYS = 7;
/** Columns that say nothing of what a row holds. */
const BESIDES = ["version", "updatedAt", "archivedAt", "deletedAt", "stamp"];

/** Thrown by a save that names a version which is no longer the row's: somebody changed it meanwhile. */
export class StaleSave extends Error {
  readonly kind: EntityKind;
  readonly id: string;
  /** The version the row has now. */
  readonly version: number;

  constructor(kind: EntityKind, id: string, version: number) {
    super(`${kind} was changed meanwhile`);
    this.kind = kind;
    this.id = id;
    this.version = version;
  }
}

/** What a form saw and did: so that its own saves, whose answers it may not have had yet, are no other's change. */
export interface Hand {
  /** The version it saw. */
  readonly version: number;
  /** Of this save: sent again it is carried out once. */
  readonly saveId: string | null;
  /** Of the form's saves before it. */
  readonly own: readonly string[];
}

/** The version a person saw, alone or with the saves of their form. */
export type Seen = number | Hand;

/** Whether all that changed a row since a version were a form's own saves. */
async function isOwn(
  tx: Database,
  rowId: string,
  [from, to]: readonly [number, number],
  own: readonly string[],
) {
  if (own.length === 0) return false;
  const since = await tx
    .select({ id: change.id })
    .from(change)
    .where(and(eq(change.rowId, rowId), gt(change.made, from), lte(change.made, to)));
  return since.length === to - from && since.every(({ id }) => own.includes(id));
}

/** What a row goes by, and went by before. */
const namesOf = (row: Row | null): readonly unknown[] =>
  row ? [row["name"], ...((row["formerNames"] as readonly string[] | undefined) ?? [])] : [];

/** Whether two rows hold the same, whatever their version and whether they are put away. */
function holdsSame(before: Row, after: Row): boolean {
  const asStored = (value: unknown) => (value === undefined ? null : JSON.parse(JSON.stringify(value)));
  return Object.keys(after).every(
    (key) => BESIDES.includes(key) || isDeepStrictEqual(asStored(before[key]), asStored(after[key])),
  );
}

/**
 * Writes a row, new or changed, and remembers what it was before.
 *
 * @param seen the version the person saw, and their form's own saves; left out where nobody could have seen one
 * @returns the change's id, by which it can be undone
 * @throws StaleSave when the row has another version by now, and holds something else
 */
export async function saveEntity(db: Database, kind: EntityKind, row: Row, seen?: Seen): Promise<string> {
  const hand = typeof seen === "object" ? seen : null;
  const version = typeof seen === "number" ? seen : hand?.version;
  const id = hand?.saveId ?? uuidv7();
  await db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    const before = await lockedRow(tx, kind, row.id);
    const now = before ? (before["version"] as number) : 0;
    const [done] = hand?.saveId ? await tx.select().from(change).where(eq(change.id, id)) : [];
    if (done) return;
    // What is sent again because its answer was lost is what is there already: that is no other's change.
    if (
      version !== undefined &&
      before &&
      version !== now &&
      !holdsSame(before, row) &&
      !(await isOwn(tx, row.id, [version, now], hand?.own ?? []))
    )
      throw new StaleSave(kind, row.id, now);
    const made = now + 1;
    const table = tableOf(kind);
    const value = { ...row, version: made, updatedAt: new Date() };
    // The id is not set again: an update that names a key locks out whoever refers to the row.
    const { id: _, ...columns } = value;
    await tx
      .insert(table)
      .values(value as never)
      .onConflictDoUpdate({ target: table.id, set: columns as never });
    if (!before || !holdsSame(before, row))
      await restamp(tx, kind, row.id, [...namesOf(before), ...namesOf(row)]);
    await tx.insert(change).values({ id, kind, rowId: row.id, before, made });
    await tx.delete(change).where(lt(change.at, sql`now() - make_interval(days => ${UNDO_DAYS})`));
  });
  return id;
}

/** The version a save made, by its change; null where it was undone since. */
export async function versionMade(db: Database, changeId: string): Promise<number | null> {
  const [row] = await db.select({ made: change.made }).from(change).where(eq(change.id, changeId));
  return row?.made ?? null;
}

/** Saves one row of several that are changed together. */
export type SaveOne = (kind: EntityKind, row: Row) => Promise<void>;

/**
 * Changes several rows at once, all or none, to be undone together. No row is saved twice.
 *
 * @param work says whether there was something to do
 * @returns the id by which all of it can be undone; null when there was nothing to do
 */
export async function saveTogether(
  db: Database,
  work: (tx: Database, save: SaveOne) => Promise<boolean>,
): Promise<string | null> {
  return db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    const [batch, changes]: [string, string[]] = [uuidv7(), []];
    const done = await work(tx, async (kind, row) => void changes.push(await saveEntity(tx, kind, row)));
    if (changes.length) await tx.update(change).set({ batch }).where(inArray(change.id, changes));
    return done ? batch : null;
  });
}

/** A row as it was, its times read back from JSON. */
function revived(kind: EntityKind, before: Readonly<Record<string, unknown>>): Row {
  const columns = getTableColumns(tableOf(kind));
  return Object.fromEntries(
    Object.entries(before).flatMap(([name, value]) => {
      if (name === "stamp") return [];
      const isTime = typeof value === "string" && columns[name]?.dataType === "date";
      return [[name, isTime ? new Date(value) : value]];
    }),
  ) as Row;
}

/** The row before a change; one that was not there goes to the trash. Null when there is no row to undo. */
async function rowBefore(tx: Database, { kind, rowId, before }: typeof change.$inferSelect) {
  if (before) return revived(kind as EntityKind, before);
  const row = await lockedRow(tx, kind as EntityKind, rowId);
  const now = new Date();
  return row && { ...row, archivedAt: now, deletedAt: now };
}

/** What came of an undoing: done; too long ago; or refused, since the row was changed again after it. */
export type Undone = "yes" | "late" | "changed";

/** Undoes one change, or several that were made together, all or none: each row as it was before. */
export async function undo(db: Database, changeId: string): Promise<Undone> {
  try {
    return await db.transaction(async (transaction) => {
      const tx = transaction as unknown as Database;
      const found = await tx
        .select()
        .from(change)
        .where(or(eq(change.id, changeId), eq(change.batch, changeId)))
        .orderBy(desc(change.id));
      for (const each of found) {
        const row = await rowBefore(tx, each);
        if (row) await saveEntity(tx, each.kind as EntityKind, row, each.made);
        await tx.delete(change).where(eq(change.id, each.id));
        // The row is as the change before this one left it: that can be undone next.
        await tx
          .update(change)
          .set({ made: each.made + 1 })
          .where(and(eq(change.rowId, each.rowId), eq(change.made, each.made - 1)));
      }
      return found.length ? "yes" : "late";
    });
  } catch (error) {
    if (error instanceof StaleSave) return "changed";
    throw error;
  }
}
