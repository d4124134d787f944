import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { spawn, type ChildProcess } from "node:child_process";
import { dropDatabase, withClient } from "#db/backup/databases";
import { ensureDatabase } from "../../command/cluster";
import { ROOT } from "../../command/paths";
import { freePort } from "../../command/ports";

/** A desk of one spec file's own: a copy of the demo desk, with a server of its own. */
interface Desk {
  readonly file: string;
  readonly address: string;
  readonly url: string;
  readonly child: ChildProcess;
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
  const child = spawn("node", ["--import", "tsx", "tests/trials/server.ts", String(port)], {
    cwd: ROOT,
    env: {
      ...process.env,
      DATABASE_URL: url,
      BAROMETRON_BACKUPS: join(folder, "backups"),
      NODE_ENV: "production",
      BAROMETRON_MOST_REQUESTS: "20000",
    },
    stdio: ["ignore", "pipe", "inherit", "ipc"],
  });
  const served = await new Promise<string>((resolve, reject) => {
    child.stdout!.once("data", (text: Buffer) => resolve(text.toString().trim()));
    child.once("exit", (code) => reject(new Error(`the server of ${file} ended with ${code}`)));
  });
  return { file, address: served, url, child, folder };
}

/** Ends the desk at hand: its server, then its database. */
export async function endDesk(): Promise<void> {
  if (!current) return;
  const { child, url, folder } = current;
  current = null;
  if (child.exitCode === null) {
    const gone = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGKILL");
    await gone;
  }
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
