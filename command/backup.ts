import { existsSync } from "node:fs";
import { join, resolve } from "node:path";
import { migrateDatabase } from "#db/migrate";
import { deskCluster } from "./cluster.ts";
import { needPostgres } from "./packages.ts";
import { MIGRATIONS } from "./paths.ts";
import { run } from "./run.ts";
import { say } from "./say.ts";
import { runningHere } from "./running.ts";

/** Runs one of PostgreSQL's tools against the desk's cluster, starting it for that if it is not running. */
async function withDesk(work: (url: string, programs: string) => void): Promise<void> {
  const keepRunning = runningHere();
  const cluster = await deskCluster();
  try {
    await migrateDatabase(cluster.url, MIGRATIONS);
    work(cluster.url, needPostgres());
  } finally {
    if (!keepRunning) cluster.stop();
  }
}

/** Writes all data to one compressed file, consistent even while the app is in use. */
export async function backup(file: string | undefined): Promise<number> {
  if (!file) {
    say("Name the file to write: ./barometron backup desk.backup");
    return 2;
  }
  const target = resolve(file);
  await withDesk((url, programs) => {
    const done = run(join(programs, "pg_dump"), ["--format=custom", "--no-owner", "--file", target, url]);
    if (done.code !== 0) throw new Error(`The backup was not written: ${done.out.trim()}`);
  });
  say(`All data is in ${target}.`);
  return 0;
}

/** Puts a backup in place of the data here, all or nothing. */
export async function restore(file: string | undefined): Promise<number> {
  const source = file && resolve(file);
  if (!source || !existsSync(source)) {
    say(
      file ? `There is no file ${file}.` : "Name the backup to bring back: ./barometron restore desk.backup",
    );
    return 2;
  }
  await withDesk((url, programs) => {
    const check = run(join(programs, "pg_restore"), ["--list", source]);
    if (check.code !== 0 || !check.out.includes("TABLE DATA public entry"))
      throw new Error(`${file} is not a backup of Barometron; nothing was changed.`);
    const done = run(join(programs, "pg_restore"), [
      "--clean",
      "--if-exists",
      "--single-transaction",
      "--no-owner",
      "--dbname",
      url,
      source,
    ]);
    if (done.code !== 0)
      throw new Error(`The backup was not brought back; nothing was changed: ${done.out.trim()}`);
  });
  say(`The data of ${source} is in place.`);
  return 0;
}
