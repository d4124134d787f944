import {
  chmodSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from "node:fs";
import { join } from "node:path";
import { awayOf, sendAway } from "./away.ts";
import { writeBackup } from "./write.ts";

/** How the last backup by schedule or by hand went. */
export interface BackupStatus {
  readonly at: string;
  readonly ok: boolean;
  readonly sentence: string;
}

export interface BackupFile {
  readonly name: string;
  readonly at: string;
  readonly bytes: number;
}

/** The newest files that stay whatever their day, and how many weeks keep their newest. */
const NEWEST = 7;
const WEEKS = 8;
const DAY_MS = 86_400_000;
const NAME = /^desk-(\d{4})(\d{2})(\d{2})-(\d{2})(\d{2})(\d{2})\.backup$/;

const statusFile = (folder: string) => join(folder, "status.json");

/** Backups of a folder, the newest first. */
export function listBackups(folder: string): readonly BackupFile[] {
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .flatMap((name): readonly BackupFile[] => {
      const at = NAME.exec(name);
      if (!at) return [];
      const [, year, month, day, hour, minute, second] = at;
      return [
        {
          name,
          at: `${year}-${month}-${day}T${hour}:${minute}:${second}.000Z`,
          bytes: statSync(join(folder, name)).size,
        },
      ];
    })
    .sort((a, b) => b.at.localeCompare(a.at));
}

/** A backup's path by its name; null when the folder has no such backup. */
export function backupNamed(folder: string, name: string): string | null {
  return listBackups(folder).some((file) => file.name === name) ? join(folder, name) : null;
}

/** Which of some backups are no longer needed: all but the newest few and the newest of each of the last weeks. */
export function outdated(files: readonly BackupFile[], nowMs: number): readonly BackupFile[] {
  const weeks = new Set<number>();
  return files.filter(({ at }, i) => {
    const week = Math.floor((nowMs - Date.parse(at)) / (7 * DAY_MS));
    const first = week < WEEKS && !weeks.has(week);
    weeks.add(week);
    return i >= NEWEST && !first;
  });
}

/** How the last backup went; null when none was ever made. */
export function backupStatus(folder: string): BackupStatus | null {
  try {
    const status = JSON.parse(readFileSync(statusFile(folder), "utf8")) as BackupStatus;
    return typeof status.at === "string" && typeof status.sentence === "string" ? status : null;
  } catch {
    return null;
  }
}

/** Sends a backup away, sealed, where the environment says so. */
async function copyAway(file: string): Promise<{ readonly ok: boolean; readonly sentence: string }> {
  const away = awayOf(process.env);
  if (!away) return { ok: true, sentence: "" };
  try {
    await sendAway(file, away);
    return { ok: true, sentence: " A sealed copy was sent away." };
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    return { ok: false, sentence: ` The sealed copy was not sent away: ${why}` };
  }
}

/**
 * Writes a backup into the desk's own folder, lets go of those no longer needed, and notes how it went.
 *
 * @param url of the desk's database; @param folder of the backups; @param migrations the folder of the schema's history
 */
export async function keepBackup(url: string, folder: string, migrations: string): Promise<BackupStatus> {
  const now = new Date();
  const stamp = now.toISOString().slice(0, 19).replace(/[-:]/g, "").replace("T", "-");
  let status: BackupStatus;
  try {
    mkdirSync(folder, { recursive: true, mode: 0o700 });
    chmodSync(folder, 0o700);
    const { tables } = await writeBackup(url, join(folder, `desk-${stamp}.backup`), migrations);
    const rows = tables.reduce((sum, table) => sum + table.rows, 0);
    for (const { name } of outdated(listBackups(folder), now.getTime())) rmSync(join(folder, name));
    const sent = await copyAway(join(folder, `desk-${stamp}.backup`));
    status = {
      ...{ at: now.toISOString(), ok: sent.ok },
      sentence: `${rows.toLocaleString("en")} rows were written.${sent.sentence}`,
    };
  } catch (error) {
    const why =
      (error as { code?: string }).code === "ENOSPC"
        ? "the disk is full"
        : ((error as { code?: string }).code ?? "the database did not answer");
    status = { at: now.toISOString(), ok: false, sentence: `It was not written: ${why}.` };
  }
  try {
    writeFileSync(statusFile(folder), JSON.stringify(status), { mode: 0o600 });
  } catch {
    // With no room for a line of status there is none for a backup either: the answer says so.
  }
  return status;
}
