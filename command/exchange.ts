import { countOf } from "#core/base";
import { resolve } from "node:path";
import { exportDesk } from "#db/exchange/exportDesk";
import { BadDesk } from "#db/exchange/format";
import { importDesk } from "#db/exchange/importDesk";
import { migrateDatabase } from "#db/migrate";
import { FIRST_DESK } from "#db/schema";
import { fileAt, withDesk } from "./backup.ts";
import { MIGRATIONS } from "./paths.ts";
import { say } from "./say.ts";

/** `export FILE.zip` writes everything of the first desk as open files; other desks are exported by their owners. */
export async function exportTo([file = ""]: readonly string[]): Promise<number> {
  return withDesk(async ({ url }) => {
    await migrateDatabase(url, MIGRATIONS);
    const { tables } = await exportDesk(url, resolve(file), { deskId: FIRST_DESK, actor: "" });
    const rows = tables.reduce((sum, { rows: own }) => sum + own, 0);
    say(`${file} holds ${rows.toLocaleString("en")} rows in ${tables.length} tables.`);
    return 0;
  });
}

/** `import FILE.zip` takes another desk's open files in, all of them or none. */
export async function importFrom([file]: readonly string[]): Promise<number> {
  const path = fileAt(file, "Name the zip to take in: ./barometron import desk.zip");
  if (!path) return 2;
  return withDesk(async ({ url }) => {
    await migrateDatabase(url, MIGRATIONS);
    try {
      const { added, there, unreadable } = await importDesk(url, path);
      say(`New: ${countOf(added, "row")}. Here already, and left as they are: ${there}.`);
      if (unreadable) say(`${unreadable} rows cannot be read: ./barometron check lists them.`);
      return 0;
    } catch (error) {
      if (!(error instanceof BadDesk)) throw error;
      say(`${file}: ${error.message} Nothing was changed.`);
      return 1;
    }
  });
}
