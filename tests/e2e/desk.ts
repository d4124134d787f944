import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { dropDatabase, withClient } from "#db/backup/databases";
import { ensureDatabase } from "../../command/cluster";
import { freePort } from "../../command/ports";
import { startServerProcess, type ServerProcess } from "../trials/serverProcess";

/** A desk of one spec file's own: a copy of the demo desk, with a server of its own. */
interface Desk {
  readonly file: string;
  readonly server: ServerProcess;
  readonly url: string;
  /** Where its backups lie. */
  readonly folder: string;
}

let current: Desk | null = null;
let made = 0;

async function startDesk(file: string, place: number): Promise<Desk> {
  const address = process.env["DESK_ADDRESS"]!;
  const name = `desk_${place}_${(made += 1)}_${process.pid}`;
  await ensureDatabase(address, name, process.env["DESK_TEMPLATE"]);
  const url = `${address}/${name}`;
  const port = await freePort(4380 + 60 * place);
  const folder = mkdtempSync(join(tmpdir(), "barometron-desk-"));
  const server = await startServerProcess(url, port, { BAROMETRON_BACKUPS: join(folder, "backups") });
  return { file, server, url, folder };
}

/** Ends the desk at hand: its server, then its database. */
export async function endDesk(): Promise<void> {
  if (!current) return;
  const { server, url, folder } = current;
  current = null;
  await server.kill();
  rmSync(folder, { recursive: true, force: true });
  await withClient(`${process.env["DESK_ADDRESS"]}/postgres`, (admin) =>
    dropDatabase(admin, url.slice(url.lastIndexOf("/") + 1)),
  );
}

/** The desk of a spec file; each file gets a fresh one, so that none sees what another did. */
export async function deskOf(file: string, place: number): Promise<Desk> {
  if (current?.file !== file) {
    await endDesk();
    current = await startDesk(file, place);
  }
  return current!;
}
