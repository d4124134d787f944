import { sheetPage } from "#app/services/sheets/sheetPage.server";
import { found, idOf } from "#app/ui/require.server";
import type { System } from "#core/base";
import type { Database } from "#db/client";
import { findEdition, findSheet, type Edition, type SheetLine } from "#db/sheets";

const GONE = "There is no such sheet.";
const GONE_SUBJECT = "What this sheet was of is no longer there.";
const NO_EDITION = "There is no such edition.";

/** A sheet by the id of an address. */
export const sheetAt = async (db: Database, id: string | undefined): Promise<SheetLine> =>
  found(await findSheet(db, idOf(id, GONE)), GONE);

/** A sheet with its page, as the desk is now. */
export async function pageAt(db: Database, request: Request, id: string | undefined, system: System) {
  const line = await sheetAt(db, id);
  return { line, gathered: found(await sheetPage(db, request, line, system), GONE_SUBJECT) };
}

/** A published page by the address of its sheet and its number. */
export async function editionAt(
  db: Database,
  params: { readonly sheetId: string; readonly number: string },
): Promise<{ readonly line: SheetLine; readonly edition: Edition }> {
  const line = await sheetAt(db, params.sheetId);
  const number = /^\d{1,6}$/.test(params.number) ? Number(params.number) : 0;
  return { line, edition: found(await findEdition(db, line.id, number), NO_EDITION) };
}
