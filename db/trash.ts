import { and, count, eq, inArray, isNotNull, isNull, lt, notExists, sql } from "drizzle-orm";
import type { Database } from "./client.ts";
import { saveTogether } from "./entities.ts";
import {
  counted,
  ENTITY_KINDS,
  LINKING,
  linkColumn,
  linkedRows,
  lockedRow,
  nameOf,
  Refused,
  tableOf,
  type EntityKind,
  type Found,
  type Row,
} from "./kinds.ts";
import { change, edition, sheet } from "./schema.ts";

/** What was deleted: it can be brought back for a time, and is then gone for good. */

/** A record and all that belongs to it, down to the last. */
async function withBelongings(db: Database, found: Found): Promise<readonly Found[]> {
  const all = [found];
  for (const link of LINKING[found.kind].filter(({ belongs }) => belongs))
    for (const row of await linkedRows(db, link, found.row.id))
      all.push(...(await withBelongings(db, { kind: link.kind, row })));
  return all;
}

/** Counts of records, as a list: "2 tests and one plan". */
function countsText(counts: ReadonlyMap<EntityKind, number>): string {
  const parts = [...counts].map(([kind, many]) => counted(kind, many));
  return new Intl.ListFormat("en").format(parts);
}

/** @throws Refused when something that stays needs a record that would go, or a report of it is published */
async function refuseNeeded(db: Database, going: readonly Found[]): Promise<void> {
  const ids = new Set(going.map(({ row }) => row.id));
  for (const { kind, row } of going) {
    const users = new Map<EntityKind, Set<string>>();
    for (const link of LINKING[kind].filter(({ belongs }) => !belongs))
      for (const { id } of await linkedRows(db, link, row.id))
        if (!ids.has(id)) users.set(link.kind, (users.get(link.kind) ?? new Set()).add(id));
    if (users.size) {
      const counts = new Map([...users].map(([user, rows]) => [user, rows.size]));
      throw new Refused(
        `${nameOf(kind, row)} is used by ${countsText(counts)}. Delete those first, or archive ${nameOf(kind, row)}.`,
      );
    }
    const [published] = await db
      .select({ editions: count() })
      .from(edition)
      .innerJoin(sheet, eq(sheet.id, edition.sheetId))
      .where(and(eq(sheet.id, row.id), isNull(edition.withdrawnAt)));
    if (published?.editions)
      throw new Refused(`The report ${nameOf(kind, row)} is published. Withdraw it first, or archive.`);
  }
}

/**
 * Moves a record and all that belongs to it to the trash.
 *
 * @returns the change's id; null when there is no such record
 * @throws Refused when a record that stays uses it, or a report of it is published
 */
export async function deleteEntity(db: Database, kind: EntityKind, id: string): Promise<string | null> {
  return saveTogether(db, async (tx, save) => {
    const row = await lockedRow(tx, kind, id);
    if (!row) return false;
    const going = await withBelongings(tx, { kind, row });
    await refuseNeeded(tx, going);
    const deletedAt = new Date();
    for (const each of going)
      await save(each.kind, { ...each.row, archivedAt: each.row["archivedAt"] ?? deletedAt, deletedAt });
    return true;
  });
}

/** Brings a record back from the trash, with what was deleted with it and what it links to. */
export async function bringBack(db: Database, kind: EntityKind, id: string): Promise<string | null> {
  return saveTogether(db, async (tx, save) => {
    const row = await lockedRow(tx, kind, id);
    if (!row) return false;
    const back = new Map<string, Found>([[id, { kind, row }]]);
    for (const each of await deletedWith(tx, { kind, row })) back.set(each.row.id, each);
    for (const each of [...back.values()])
      for (const linked of await deletedLinks(tx, each)) back.set(linked.row.id, linked);
    for (const each of back.values()) {
      const wasArchived = asTime(each.row["archivedAt"]) < asTime(each.row["deletedAt"]);
      await save(each.kind, {
        ...each.row,
        archivedAt: wasArchived ? each.row["archivedAt"] : null,
        deletedAt: null,
      });
    }
    return true;
  });
}

const asTime = (value: unknown) => (value instanceof Date ? value.getTime() : 0);

/** What belongs to a record and was deleted at the same time. */
async function deletedWith(db: Database, { kind, row }: Found): Promise<readonly Found[]> {
  const deletedAt = row["deletedAt"];
  if (!(deletedAt instanceof Date)) return [];
  const all: Found[] = [];
  for (const link of LINKING[kind].filter(({ belongs }) => belongs)) {
    const table = tableOf(link.kind);
    const rows = await db
      .select()
      .from(table)
      .where(and(eq(linkColumn(link.kind, link.column), row.id), eq(table.deletedAt, deletedAt)));
    for (const each of rows as unknown as readonly Row[]) {
      const found = { kind: link.kind, row: each };
      all.push(found, ...(await deletedWith(db, found)));
    }
  }
  return all;
}

/** What a record links to that is in the trash. */
async function deletedLinks(db: Database, { kind, row }: Found): Promise<readonly Found[]> {
  const all: Found[] = [];
  for (const [target, linking] of Object.entries(LINKING))
    for (const link of linking.filter((each) => each.kind === kind)) {
      const id = row[link.column];
      const linked = typeof id === "string" ? await lockedRow(db, target as EntityKind, id) : null;
      if (linked?.["deletedAt"]) all.push({ kind: target as EntityKind, row: linked });
    }
  return all;
}

/** Something in the trash. */
export interface Trashed {
  readonly kind: EntityKind;
  readonly id: string;
  readonly name: string;
  readonly deletedAt: Date;
  /** What was deleted with it, in words; empty for nothing. */
  readonly with: string;
}

async function trashedRows(db: Database, kind: EntityKind): Promise<readonly Found[]> {
  const table = tableOf(kind);
  const rows = await db.select().from(table).where(isNotNull(table.deletedAt));
  return (rows as unknown as readonly Row[]).map((row) => ({ kind, row }));
}

/** What is in the trash, the last deleted first; what went with something else is counted with that. */
export async function listTrash(db: Database): Promise<readonly Trashed[]> {
  const all = (await Promise.all(ENTITY_KINDS.map((kind) => trashedRows(db, kind)))).flat();
  const byId = new Map(all.map((each) => [each.row.id, each]));
  const ownerOf = ({ kind, row }: Found): Found | null => {
    for (const linking of Object.values(LINKING))
      for (const { column } of linking.filter((link) => link.belongs && link.kind === kind)) {
        const owner = byId.get(String(row[column]));
        if (owner && asTime(owner.row["deletedAt"]) === asTime(row["deletedAt"])) return owner;
      }
    return null;
  };
  const rootOf = (found: Found): Found => {
    const owner = ownerOf(found);
    return owner ? rootOf(owner) : found;
  };
  const withRoot = new Map<string, Map<EntityKind, number>>();
  for (const each of all) {
    const root = rootOf(each);
    const counts = withRoot.get(root.row.id) ?? new Map<EntityKind, number>();
    if (root !== each) counts.set(each.kind, (counts.get(each.kind) ?? 0) + 1);
    withRoot.set(root.row.id, counts);
  }
  return all
    .flatMap(({ kind, row }) => {
      const counts = withRoot.get(row.id);
      const deletedAt = row["deletedAt"] as Date;
      return counts
        ? [{ kind, id: row.id, name: nameOf(kind, row), deletedAt, with: countsText(counts) }]
        : [];
    })
    .sort((a, b) => asTime(b.deletedAt) - asTime(a.deletedAt));
}

/** Something that is archived. */
export type Archived = Pick<Trashed, "kind" | "id" | "name">;

/** What is archived and not in the trash, kind by kind, by name. */
export async function listArchived(db: Database): Promise<readonly Archived[]> {
  const found = ENTITY_KINDS.map(async (kind) => {
    const table = tableOf(kind);
    const rows = await db
      .select()
      .from(table)
      .where(and(isNotNull(table.archivedAt), isNull(table.deletedAt)));
    return (rows as unknown as readonly Row[])
      .map((row) => ({ kind, id: row.id, name: nameOf(kind, row) }))
      .sort((a, b) => a.name.localeCompare(b.name));
  });
  return (await Promise.all(found)).flat();
}

/** Days that something stays in the trash. */
export const TRASH_DAYS = 30;

/** Rows that are a record's alone and go for good with it, the innermost first; `$1` is the ids. */
const PARTS: Readonly<Partial<Record<EntityKind, readonly string[]>>> = {
  test: [
    `delete from telemetry_chunk where import_id in
       (select i.id from telemetry_import i join ride r on r.id = i.ride_id where r.test_id = any($1))`,
    ...["telemetry_import", "track", "entry_photograph", "entry"].map(
      (table) => `delete from ${table} where ride_id in (select id from ride where test_id = any($1))`,
    ),
    ...["ride", "result", "published"].map((table) => `delete from ${table} where test_id = any($1)`),
    "update plan set test_id = null where test_id = any($1)",
    "delete from share_link where target_id = any($1)",
  ],
  sheet: [
    `delete from share_link where target_id = any($1)
       or target_id in (select id from edition where sheet_id = any($1))`,
    ...["edition", "photograph"].map((table) => `delete from ${table} where sheet_id = any($1)`),
  ],
  plan: ["delete from plan_tick where plan_id = any($1)"],
};

/** Records in the order in which they can go: none before what links to it. */
const EMPTIED: readonly EntityKind[] = [
  ...(["sheet", "plan", "sweep", "climb", "test", "bench"] as const),
  ...(["setUp", "pack", "rider", "instrument", "course", "method", "bike"] as const),
];

/** Ids of a kind that were deleted before a time and that nothing needs any longer. */
async function goingForGood(tx: Database, kind: EntityKind, before: Date): Promise<readonly string[]> {
  const table = tableOf(kind);
  const free = LINKING[kind].map((link) => {
    const other = tableOf(link.kind);
    return notExists(
      tx
        .select({ one: sql`1` })
        .from(other)
        .where(eq(linkColumn(link.kind, link.column), table.id)),
    );
  });
  const unpublished =
    kind === "sheet"
      ? notExists(
          tx
            .select({ one: sql`1` })
            .from(edition)
            .where(and(eq(edition.sheetId, sheet.id), isNull(edition.withdrawnAt))),
        )
      : undefined;
  const rows = await tx
    .select({ id: table.id })
    .from(table)
    .where(and(lt(table.deletedAt, before), ...free, unpublished));
  return rows.map(({ id }) => id as string);
}

/**
 * Removes for good what was deleted before a time: of the desk, or of all desks where the database is open as a whole. What
 * something else still needs stays until that is gone.
 *
 * @returns how many records went
 */
export async function emptyTrash(db: Database, before = new Date(Date.now() - TRASH_DAYS * 86_400_000)) {
  let gone = 0;
  await db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    // That it was deleted is in the history; what it held is not to stay there.
    await tx.execute(sql`select set_config('app.trail', 'off', true)`);
    for (const kind of EMPTIED) {
      const ids = await goingForGood(tx, kind, before);
      if (ids.length === 0) continue;
      const list = sql`${sql.param(ids)}::uuid[]`;
      for (const part of PARTS[kind] ?? []) {
        const pieces = part.split("$1");
        await tx.execute(
          sql.join(
            pieces.flatMap((piece, i) => (i === 0 ? [sql.raw(piece)] : [list, sql.raw(piece)])),
            sql``,
          ),
        );
      }
      const table = tableOf(kind);
      await tx.delete(change).where(inArray(change.rowId, [...ids]));
      await tx.delete(table).where(inArray(table.id, [...ids]));
      gone += ids.length;
    }
  });
  return gone;
}
