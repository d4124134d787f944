import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { connect, type Database } from "#db/client";
import { migrateDatabase } from "#db/migrate";
import { staleTests } from "#db/results";
import { seedOnce } from "#db/seed";
import { buildApp } from "./build.ts";
import { startCluster, type Cluster } from "./cluster.ts";
import { MIGRATIONS } from "./paths.ts";
import { freePort } from "./ports.ts";
import { serve, type Serving } from "./serve.ts";

/** Runs work on a database cluster of its own, in a temp folder that goes with it. */
export async function withThrowawayCluster<T>(
  work: (cluster: Cluster, folder: string) => Promise<T>,
): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), "barometron-"));
  // The database runs as a user of its own, who must be able to enter.
  chmodSync(folder, 0o755);
  const cluster = await startCluster({ folder, port: 55_180, throwaway: true });
  try {
    return await work(cluster, folder);
  } finally {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Sets the demo desk in a database, lets `prepare` add to it, and reckons every figure, so that pages show them at once. */
export async function setDemo(
  url: string,
  prepare: (db: Database) => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  await migrateDatabase(url, MIGRATIONS);
  const build = await buildApp();
  process.env["BAROMETRON_BUILD"] = build;
  const { db, close } = connect(url, 2);
  try {
    await seedOnce(db);
    await prepare(db);
    // Loaded only now: it bears the build's name from here on.
    const { analyse } = await import("#app/services/compute/analyse");
    for (const id of await staleTests(db, build, Number.MAX_SAFE_INTEGER)) await analyse(db, id);
  } finally {
    await close();
  }
}

/** The demo desk in a database, served by the production build. */
export async function serveDemo(
  url: string,
  prepare: (db: Database) => Promise<void> = () => Promise.resolve(),
): Promise<Serving> {
  await setDemo(url, prepare);
  process.env["DATABASE_URL"] = url;
  process.env["NODE_ENV"] = "production";
  return serve(await freePort(4380));
}

/** Chromium's flags for a machine without graphics or network. */
export const CHROMIUM_FLAGS = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];
