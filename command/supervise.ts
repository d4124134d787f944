import { setTimeout } from "node:timers/promises";
import { backupStatus, keepBackup } from "#db/backup/keeping";
import { connect } from "#db/client";
import { forgetExpired } from "#db/people/expired";
import { emptyTrash } from "#db/trash";
import type { Cluster } from "./cluster.ts";
import { say } from "./say.ts";

/** How often the database is looked after, and how often the hour of the backup is looked at, ms. */
const LOOK_MS = 2000;
const BACKUP_LOOK_MS = 600_000;
/** A backup is due when the last good one is older than this, ms; the first waits until the desk has settled. */
const DUE_MS = 22 * 3_600_000;
const SETTLED_MS = 60_000;

/** Looks after the desk's database until it is told to stop: one that died is started again. */
export function superviseDatabase(cluster: Cluster, again: () => Promise<Cluster>): () => void {
  const stopped = new AbortController();
  const watch = async () => {
    for (;;) {
      await setTimeout(LOOK_MS, undefined, { signal: stopped.signal });
      try {
        if (cluster.lives()) continue;
        say("The database has died; starting it again ...");
        const anew = await again();
        if (anew.url !== cluster.url)
          say("The database came up elsewhere: stop with Ctrl-C and start again.");
        else say("The database is back.");
      } catch (error) {
        say(`The database did not come back: ${error instanceof Error ? error.message : String(error)}`);
      }
    }
  };
  watch().catch(() => undefined);
  return () => stopped.abort();
}

/** Drops what has run out of those who may come in, and what was long enough in the trash. */
async function tidy(url: string): Promise<void> {
  const { db, close } = connect(url, 1);
  await Promise.all([forgetExpired(db), emptyTrash(db)]).finally(close);
}

/** Writes a backup each day until it is told to stop. */
export function scheduleBackups(url: string, folder: string, migrations: string): () => void {
  const stopped = new AbortController();
  const watch = async () => {
    for (let pause = SETTLED_MS; ; pause = BACKUP_LOOK_MS) {
      await setTimeout(pause, undefined, { signal: stopped.signal, ref: false });
      const last = backupStatus(folder);
      if (last?.ok && Date.now() - Date.parse(last.at) < DUE_MS) continue;
      const { ok, sentence } = await keepBackup(url, folder, migrations);
      if (!ok) say(`The daily backup failed. ${sentence}`);
      await tidy(url).catch(() => undefined);
    }
  };
  watch().catch(() => undefined);
  return () => stopped.abort();
}
