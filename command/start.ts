import { mkdirSync, rmSync, writeFileSync } from "node:fs";
import { connect } from "#db/client";
import { migrateDatabase } from "#db/migrate";
import { seedOnce } from "#db/seed";
import { buildApp } from "./build.ts";
import { deskCluster } from "./cluster.ts";
import { DATA, MIGRATIONS } from "./paths.ts";
import { freePort, isFree } from "./ports.ts";
import { RUNNING, runningHere } from "./running.ts";
import { say } from "./say.ts";
import { serve } from "./serve.ts";

const FIRST_PORT = 4180;

/** The address of a start that still serves from this folder, if there is one. */
async function alreadyServing(): Promise<string | null> {
  const running = runningHere();
  if (!running) return null;
  const health = await fetch(`${running.address}/health`, { signal: AbortSignal.timeout(2000) }).catch(
    () => null,
  );
  return health?.ok ? running.address : null;
}

async function choosePort(args: readonly string[]): Promise<number> {
  const asked = Number(args[args.indexOf("--port") + 1] ?? NaN);
  const wanted =
    args.includes("--port") && Number.isInteger(asked) ? asked : Number(process.env["PORT"] ?? FIRST_PORT);
  if (await isFree(wanted)) return wanted;
  const port = await freePort(wanted + 1);
  say(`Port ${wanted} is taken by another program, so Barometron takes ${port}.`);
  return port;
}

/** Sets up what is missing, starts the database, brings it up to date, builds, serves; stops cleanly on Ctrl-C. */
export async function start(options: {
  readonly demo: boolean;
  readonly args: readonly string[];
}): Promise<number> {
  const running = await alreadyServing();
  if (running) {
    say(`Barometron already runs from this folder: ${running}`);
    return 0;
  }
  mkdirSync(DATA, { recursive: true });
  const stops: (() => Promise<void> | void)[] = [];
  const stopAll = async () => {
    for (const stop of stops.splice(0).reverse()) await stop();
  };
  const ended = new Promise<void>((resolve) => {
    for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.once(signal, () => resolve());
  });
  try {
    const cluster = await deskCluster();
    stops.push(() => cluster.stop());
    await migrateDatabase(cluster.url, MIGRATIONS);
    if (options.demo) {
      const { db, close } = connect(cluster.url, 2);
      try {
        if (await seedOnce(db)) say("The demo desk is set: five invented bikes and their tests.");
      } finally {
        await close();
      }
    }
    process.env["BAROMETRON_BUILD"] = await buildApp();
    process.env["DATABASE_URL"] = cluster.url;
    process.env["NODE_ENV"] ??= "production";
    const serving = await serve(await choosePort(options.args));
    stops.push(() => serving.close());
    writeFileSync(RUNNING, JSON.stringify({ pid: process.pid, address: serving.address }));
    stops.push(() => rmSync(RUNNING, { force: true }));
    await fetch(`${serving.address}/compare`).catch(() => null);
    say(`Barometron is ready: ${serving.address}   (Ctrl-C stops it; the data stays)`);
    await ended;
    say("Stopping ...");
    return 0;
  } finally {
    await stopAll();
  }
}
