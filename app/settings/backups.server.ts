import { mkdtemp, rm, writeFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { BadBackup } from "#db/backup/format";
import { backupNamed, keepBackup, listBackups } from "#db/backup/keeping";
import { restoreBackup } from "#db/backup/restore";
import type { Database } from "#db/client";
import { compute } from "#app/services/compute/pool.server";
import { deskAddress, deskFolders } from "#app/services/desk.server";
import { backupNotice } from "#app/services/notices.server";
import { uploadedBytes } from "#app/ui/forms/upload.server";

/** Largest backup that is sent over a form; a larger one is put in the folder of the backups. */
export const LIMIT_BYTES = 30 * 1024 * 1024;

/** The desk's backups and how the last one went; null where the desk keeps none, as on a database of one's own. */
export function backupsHere() {
  const { backups, migrations } = deskFolders;
  if (backups === null || migrations === null) return null;
  return { folder: backups, migrations, files: listBackups(backups), notice: backupNotice(Date.now()) };
}

/** What came of a request about backups, in a sentence; `field` says where it belongs when it was refused. */
export interface BackupAnswer {
  readonly done: boolean;
  readonly sentence: string;
  readonly field?: "file" | "name" | "sure" | "zip";
}

const refuse = (field: NonNullable<BackupAnswer["field"]>, sentence: string): BackupAnswer => ({
  done: false,
  sentence,
  field,
});

/** Works in a folder of its own, which goes with it. */
async function inFolder(work: (folder: string) => Promise<BackupAnswer>): Promise<BackupAnswer> {
  const place = await mkdtemp(join(tmpdir(), "barometron-upload-"));
  try {
    return await work(place);
  } finally {
    await rm(place, { recursive: true, force: true });
  }
}

/** Works with a backup: one of the desk's own by its name, or one that was sent. */
async function withFile(
  form: FormData,
  folder: string,
  work: (file: string) => Promise<BackupAnswer>,
): Promise<BackupAnswer> {
  const name = String(form.get("backup") ?? "");
  if (name !== "") {
    const own = backupNamed(folder, name);
    return own ? work(own) : refuse("file", "That backup is no longer there: choose another.");
  }
  const sent = await uploadedBytes(form.get("file"), LIMIT_BYTES);
  if (!sent.ok) return refuse("file", sent.problems[0]!.sentence);
  return inFolder(async (place) => {
    const file = join(place, "sent.backup");
    await writeFile(file, sent.value.bytes, { mode: 0o600 });
    return work(file);
  });
}

async function restore(form: FormData, folder: string, migrations: string): Promise<BackupAnswer> {
  const name = String(form.get("name") ?? "").trim();
  const beside = form.get("where") !== "here";
  if (beside && !/^[a-z][a-z0-9_]{0,30}$/.test(name))
    return refuse("name", "Name the new desk in small letters, for example: spring.");
  if (!beside && form.get("sure") !== "on")
    return refuse("sure", "Tick that it is to take this desk's place. What is here now is kept.");
  return withFile(form, folder, async (file) => {
    const { address, database } = deskAddress();
    try {
      const { unreadable } = await restoreBackup(
        { address, database },
        { file, migrations, programs: deskFolders.programs || null },
        beside ? `${database}_${name}` : undefined,
      );
      const damaged = unreadable
        ? ` ${unreadable} of its rows cannot be read: ./barometron check lists them.`
        : "";
      const where = beside
        ? `It stands beside this desk: ./barometron start --desk ${name} opens it.`
        : "It is in place. What was here is kept: ./barometron restore --undo puts it back.";
      return { done: true, sentence: `${where}${damaged}` };
    } catch (error) {
      if (error instanceof BadBackup) return refuse("file", `${error.message} Nothing was changed.`);
      throw error;
    }
  });
}

/** Takes another desk's open files in. */
export async function takeIn(db: Database, form: FormData): Promise<BackupAnswer> {
  const sent = await uploadedBytes(form.get("zip"), LIMIT_BYTES);
  if (!sent.ok) return refuse("zip", sent.problems[0]!.sentence);
  return inFolder(async (folder) => {
    const file = join(folder, "desk.zip");
    await writeFile(file, sent.value.bytes, { mode: 0o600 });
    const { done, sentence } = await compute(db, "importDesk", { file });
    return done ? { done, sentence } : refuse("zip", sentence);
  });
}

/** Makes a backup, or brings one back. */
export async function actOnBackups(form: FormData): Promise<BackupAnswer> {
  const here = backupsHere();
  if (!here) return refuse("file", "This desk's database is looked after elsewhere, and so are its backups.");
  if (form.get("intent") === "restore") return restore(form, here.folder, here.migrations);
  const { ok, sentence } = await keepBackup(deskAddress().url, here.folder, here.migrations);
  return { done: ok, sentence: ok ? `A backup was made. ${sentence}` : sentence };
}
