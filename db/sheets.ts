import { and, desc, eq, max } from "drizzle-orm";
import { sheetOptionsSchema, type EditionBody, type SheetOptions } from "#core/telling";
import { listed } from "./bikes.ts";
import type { Database } from "./client.ts";
import { saveEntity, type Seen } from "./entities.ts";
import { edition, sheet } from "./schema.ts";
import { readRow, readRows, type Unreadable } from "./unreadable.ts";

/** What a page is of: a test, a bench discharge, or neither for a comparison. */
export interface SheetOf {
  readonly testId: string | null;
  readonly benchId: string | null;
}

export interface SheetLine extends SheetOf {
  readonly id: string;
  readonly options: SheetOptions;
  readonly archived: boolean;
  /** In the trash. */
  readonly deleted: boolean;
  readonly version: number;
}

type Row = typeof sheet.$inferSelect;

const lineOf = ({ id, testId, benchId, body, archivedAt, deletedAt, version }: Row): SheetLine => ({
  ...{ id, testId, benchId, version },
  options: sheetOptionsSchema.parse(body),
  archived: archivedAt !== null,
  deleted: deletedAt !== null,
});

/** Pages of the desk, the last changed first. */
export async function listSheets(
  db: Database,
  { archived, unreadable }: { readonly archived?: boolean; readonly unreadable?: Unreadable[] } = {},
): Promise<readonly SheetLine[]> {
  const rows = await db
    .select()
    .from(sheet)
    .where(listed(sheet, archived))
    .orderBy(desc(sheet.updatedAt), desc(sheet.id));
  return readRows("sheet", rows, lineOf, unreadable);
}

/** Null when there is no such page. @throws UnreadableRow */
export async function findSheet(db: Database, id: string): Promise<SheetLine | null> {
  const [row] = await db.select().from(sheet).where(eq(sheet.id, id));
  return readRow("sheet", row, lineOf);
}

/** Keeps a page. Returns the change's id. @throws StaleSave */
export async function saveSheet(
  db: Database,
  id: string,
  { testId, benchId }: SheetOf,
  options: SheetOptions,
  seen?: Seen,
): Promise<string> {
  return saveEntity(db, "sheet", { id, testId, benchId, body: options }, seen);
}

/** A page as it was published. */
export interface Edition {
  readonly id: string;
  readonly sheetId: string;
  readonly number: number;
  readonly at: string;
  readonly body: EditionBody;
  readonly inputs: string;
  readonly withdrawnAt: string | null;
}

type EditionRow = typeof edition.$inferSelect;
const editionOf = ({ at, withdrawnAt, deskId: _, ...row }: EditionRow): Edition => ({
  ...row,
  at: at.toISOString(),
  withdrawnAt: withdrawnAt?.toISOString() ?? null,
});

/** Editions without what they hold, the newest first: of a page, or of all. */
export async function listEditions(
  db: Database,
  sheetId?: string,
): Promise<readonly Omit<Edition, "body">[]> {
  const { id, number, at, inputs, withdrawnAt } = edition;
  const rows = await db
    .select({ id, sheetId: edition.sheetId, number, at, inputs, withdrawnAt })
    .from(edition)
    .where(sheetId ? eq(edition.sheetId, sheetId) : undefined)
    .orderBy(desc(edition.at));
  return rows.map((row) => ({
    ...row,
    at: row.at.toISOString(),
    withdrawnAt: row.withdrawnAt?.toISOString() ?? null,
  }));
}

export async function findEdition(db: Database, sheetId: string, number: number): Promise<Edition | null> {
  const [row] = await db
    .select()
    .from(edition)
    .where(and(eq(edition.sheetId, sheetId), eq(edition.number, number)));
  return row ? editionOf(row) : null;
}

export async function findEditionById(db: Database, id: string): Promise<Edition | null> {
  const [row] = await db.select().from(edition).where(eq(edition.id, id));
  return row ? editionOf(row) : null;
}

/**
 * Keeps a page as it is now, as its next edition. Asked twice with one id, one is kept.
 *
 * @returns its number
 */
export async function publishSheet(
  db: Database,
  id: string,
  sheetId: string,
  body: EditionBody,
  inputs: string,
): Promise<number> {
  return db.transaction(async (tx) => {
    // Two that publish at once come one after the other.
    await tx.select().from(sheet).where(eq(sheet.id, sheetId)).for("update");
    const [made] = await tx.select().from(edition).where(eq(edition.id, id));
    if (made) return made.number;
    const [last] = await tx
      .select({ number: max(edition.number) })
      .from(edition)
      .where(eq(edition.sheetId, sheetId));
    const number = (last?.number ?? 0) + 1;
    await tx.insert(edition).values({ id, sheetId, number, body, inputs });
    return number;
  });
}

/** Takes an edition back, or lets it stand again: it is kept either way. */
export async function withdrawEdition(
  db: Database,
  sheetId: string,
  number: number,
  isBack: boolean,
): Promise<void> {
  await db
    .update(edition)
    .set({ withdrawnAt: isBack ? new Date() : null })
    .where(and(eq(edition.sheetId, sheetId), eq(edition.number, number)));
}
