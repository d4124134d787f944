import { statfs } from "node:fs/promises";

/** Where the desk keeps its files, as the start command says; null where nobody said, as on a database of one's own. */
export const deskFolders = {
  backups: process.env["BAROMETRON_BACKUPS"] ?? null,
  migrations: process.env["BAROMETRON_MIGRATIONS"] ?? null,
  programs: process.env["BAROMETRON_POSTGRES"] ?? null,
};

/** Server and database of the desk's address. */
export function deskAddress(): { readonly address: string; readonly database: string; readonly url: string } {
  const url = process.env["DATABASE_URL"] ?? "";
  const parsed = new URL(url);
  return {
    url,
    address: url.slice(0, url.lastIndexOf("/")),
    database: decodeURIComponent(parsed.pathname.slice(1)),
  };
}

/** Room left where the desk's files lie, bytes; null where it cannot be told. */
export async function roomLeft(): Promise<number | null> {
  if (deskFolders.backups === null) return null;
  const folder = deskFolders.backups.replace(/\/[^/]+$/, "");
  const found = await statfs(folder).catch(() => null);
  return found && found.bavail * found.bsize;
}
