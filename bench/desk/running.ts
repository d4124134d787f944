import { setTimeout } from "node:timers/promises";
import { connect, type Database } from "#db/client";
import { migrateDatabase } from "#db/migrate";
import { seedOnce } from "#db/seed";
import { buildApp } from "../../command/build.ts";
import { MIGRATIONS } from "../../command/paths.ts";
import { freePort } from "../../command/ports.ts";
import { startServerProcess } from "../../tests/trials/serverProcess.ts";

/** Limits on the machine they were set on, ms; each is held as a multiple of the yardstick. */
export const LIMIT = { standings: 300, afterOne: 500, page: 250, delay: 200, sixteen: 5000 };

export interface Running {
  readonly address: string;
  readonly db: Database;
  readonly build: string;
  stop(): Promise<void>;
}

/** A server in a process of its own, on a database that `prepare` fills. */
export async function running(url: string, prepare: (db: Database) => Promise<void>): Promise<Running> {
  await migrateDatabase(url, MIGRATIONS);
  const build = await buildApp();
  const { db, close } = connect(url, 3);
  await seedOnce(db);
  await prepare(db);
  const server = await startServerProcess(url, await freePort(4380), { BAROMETRON_BUILD: build });
  return {
    address: server.address,
    db,
    build,
    stop: async () => {
      await server.kill();
      await close();
    },
  };
}

/** Asks for a page, waits for the whole of it, and holds it to its status; what is still being reckoned is asked again. */
export async function page(address: string, path: string, whole = true): Promise<string> {
  for (;;) {
    const response = await fetch(address + path);
    const text = await response.text();
    if (response.status === 200) return text;
    if (response.status !== 202) throw new Error(`${path} answered ${response.status}`);
    if (!whole) return text;
    await setTimeout(20);
  }
}

export async function until(done: () => Promise<boolean>): Promise<void> {
  while (!(await done())) await setTimeout(100);
}

export const timed = async (work: () => Promise<unknown>): Promise<number> => {
  const beganMs = performance.now();
  await work();
  return performance.now() - beganMs;
};
