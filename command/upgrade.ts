import { join } from "node:path";
import { withClient } from "#db/backup/databases";
import { migrationNames } from "#db/backup/migrations";
import { schemaOf, writeBackup } from "#db/backup/write";
import { MIGRATIONS } from "./paths.ts";
import { say } from "./say.ts";

/** How many migrations made a database; none where it is empty. */
async function schemaThere(url: string): Promise<number> {
  return withClient(url, async (client) => {
    const { rows } = await client.query<{ there: string | null }>(
      "select to_regclass('drizzle.__drizzle_migrations')::text as there",
    );
    return rows[0]?.there ? schemaOf(client) : 0;
  });
}

/**
 * Before a newer version changes the schema, all data goes to a file as it is: the version before takes it back with
 * `restore`.
 *
 * @returns the file; null where nothing is to be changed, or nothing is there yet
 */
export async function backupBeforeUpgrade(url: string, folder: string): Promise<string | null> {
  const [there, newest] = [await schemaThere(url), migrationNames(MIGRATIONS).length];
  if (there === 0 || there >= newest) return null;
  const file = join(folder, `before-upgrade-${migrationNames(MIGRATIONS)[there - 1] ?? there}.backup`);
  await writeBackup(url, file, MIGRATIONS);
  say(`This version changes how data is kept. As it was, it is in ${file}: the version before restores it.`);
  return file;
}
