import { cpSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

interface Journal {
  readonly entries: readonly { readonly tag: string; readonly when: number }[];
}

const journalOf = (folder: string) =>
  JSON.parse(readFileSync(join(folder, "meta", "_journal.json"), "utf8")) as Journal;

/** Names of the migrations, the first first. */
export const migrationNames = (folder: string): readonly string[] =>
  journalOf(folder).entries.map(({ tag }) => tag);

/** How many migrations had been made by the time one was, given as the database notes it; null when none was. */
export function migrationAt(folder: string, when: number): number | null {
  const at = journalOf(folder).entries.findIndex((entry) => entry.when === when);
  return at < 0 ? null : at + 1;
}

/** Works with a folder that holds the first few migrations only, so that a database can be made as it once was. */
export async function withMigrationsUpTo<T>(
  folder: string,
  count: number,
  work: (folder: string) => Promise<T>,
): Promise<T> {
  const part = mkdtempSync(join(tmpdir(), "barometron-migrations-"));
  try {
    const journal = journalOf(folder);
    const entries = journal.entries.slice(0, count);
    mkdirSync(join(part, "meta"));
    for (const { tag } of entries) cpSync(join(folder, `${tag}.sql`), join(part, `${tag}.sql`));
    writeFileSync(join(part, "meta", "_journal.json"), JSON.stringify({ ...journal, entries }));
    return await work(part);
  } finally {
    rmSync(part, { recursive: true, force: true });
  }
}
