import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join, resolve } from "node:path";
import { BadBackup, type Manifest } from "#db/backup/format";
import { readBackup, type Source } from "#db/backup/read";
import { restoreBackup, undoRestore } from "#db/backup/restore";
import { isSealed, unseal } from "#db/backup/sealed";
import { writeBackup } from "#db/backup/write";
import { migrateDatabase } from "#db/migrate";
import { deskCluster, deskDatabase, type Cluster } from "./cluster.ts";
import { postgresPrograms } from "./packages.ts";
import { MIGRATIONS } from "./paths.ts";
import { say } from "./say.ts";
import { runningHere } from "./running.ts";

/** Works with the desk's cluster, starting it for that if it is not running. */
export async function withDesk<T>(work: (cluster: Cluster) => Promise<T>): Promise<T> {
  const keepRunning = runningHere();
  const cluster = await deskCluster();
  try {
    return await work(cluster);
  } finally {
    if (!keepRunning) cluster.stop();
  }
}

const sourceOf = (file: string): Source => ({ file, migrations: MIGRATIONS, programs: postgresPrograms() });

/** A backup to be read: a sealed one is opened first, for as long as it is worked with. */
async function opened<T>(file: string, work: (source: Source) => Promise<T>): Promise<T> {
  if (!(await isSealed(file))) return work(sourceOf(file));
  const passphrase = process.env["BAROMETRON_BACKUP_PASSPHRASE"];
  if (!passphrase) throw new BadBackup("It is sealed: set BAROMETRON_BACKUP_PASSPHRASE to its passphrase.");
  const folder = mkdtempSync(join(tmpdir(), "barometron-opened-"));
  try {
    const plain = join(folder, "desk.backup");
    await unseal(file, plain, passphrase);
    return await work(sourceOf(plain));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

const inWords = ({ tables, madeAt, schemaName }: Manifest) =>
  `${tables.reduce((sum, { rows }) => sum + rows, 0).toLocaleString("en")} rows in ${tables.length} tables${madeAt ? `, written ${madeAt.slice(0, 16).replace("T", " ")} UTC` : ""}, schema ${schemaName}`;

/** The file asked for; null, with a word about it, when it is not there. */
export function fileAt(file: string | undefined, usage: string): string | null {
  const path = file && resolve(file);
  if (path && existsSync(path)) return path;
  say(file ? `There is no file ${file}.` : usage);
  return null;
}

/** Says what is wrong with a backup, and that nothing was changed. */
function refused(file: string, error: unknown): number {
  if (!(error instanceof BadBackup)) throw error;
  say(`${file}: ${error.message} Nothing was changed.`);
  return 1;
}

/** `backup FILE` writes all data to one file, as it is at one moment; `backup verify FILE` reads one through. */
export async function backup([first, second]: readonly string[]): Promise<number> {
  if (first === "verify") {
    const file = fileAt(second, "Name the backup to verify: ./barometron backup verify desk.backup");
    if (!file) return 2;
    try {
      const manifest = await opened(file, readBackup);
      say(`${second} is whole: ${inWords(manifest)}.`);
      for (const { name, rows } of manifest.tables) say(`  ${name.padEnd(18)} ${rows}`);
      return 0;
    } catch (error) {
      return refused(second!, error);
    }
  }
  if (!first) {
    say("Name the file to write: ./barometron backup desk.backup");
    return 2;
  }
  const target = resolve(first);
  const manifest = await withDesk(async ({ url }) => {
    await migrateDatabase(url, MIGRATIONS);
    return writeBackup(url, target, MIGRATIONS);
  });
  say(`All data is in ${target}: ${inWords(manifest)}.`);
  return 0;
}

/**
 * `restore FILE` puts a backup in place of the data here, which is kept; `restore FILE --beside NAME` makes another desk of
 * it; `restore --undo` puts back what was here before.
 */
export async function restore(args: readonly string[]): Promise<number> {
  if (args.includes("--undo")) {
    const done = await withDesk(({ address, url }) =>
      undoRestore({ address: address ?? "", database: deskDatabase(url) }),
    );
    say(done ? "What was here before the last restore is in place again." : "There is nothing to put back.");
    return done ? 0 : 1;
  }
  const at = args.indexOf("--beside");
  const name = at < 0 ? null : (args[at + 1] ?? "");
  if (name !== null && !/^[a-z][a-z0-9_]{0,30}$/.test(name)) {
    say("Name the new desk in small letters: ./barometron restore desk.backup --beside old");
    return 2;
  }
  const [asked] = args.filter((each, i) => !each.startsWith("--") && (at < 0 || i !== at + 1));
  const file = fileAt(asked, "Name the backup to bring back: ./barometron restore desk.backup");
  if (!file) return 2;
  try {
    const { manifest, unreadable, before } = await opened(file, (source) =>
      withDesk(({ address, url }) => {
        const database = deskDatabase(url);
        return restoreBackup(
          { address: address ?? "", database },
          source,
          name === null ? undefined : `${database}_${name}`,
        );
      }),
    );
    say(`${asked} is in place: ${inWords(manifest)}.`);
    if (unreadable) say(`${unreadable} of its rows cannot be read: ./barometron check lists them.`);
    if (before) say("What was here before is kept: ./barometron restore --undo puts it back.");
    else say(`It stands beside the desk: ./barometron start --desk ${name}`);
    return 0;
  } catch (error) {
    return refused(asked!, error);
  }
}
