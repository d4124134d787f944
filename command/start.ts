import { once } from "node:events";
import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { setTimeout } from "node:timers/promises";
import { connect } from "#db/client";
import { migrateDatabase } from "#db/migrate";
import { DEMO_DESK } from "#db/schema";
import { setDemoDesk } from "#db/seed";
import { buildApp } from "./build.ts";
import { deskCluster } from "./cluster.ts";
import { DATA, MIGRATIONS } from "./paths.ts";
import { freePort, isFree } from "./ports.ts";
import { runningHere, takeFolder } from "./running.ts";
import { say } from "./say.ts";
import { serve } from "./serve.ts";
import { share } from "./share.ts";
import { backupBeforeUpgrade } from "./upgrade.ts";
import { scheduleBackups, superviseDatabase } from "./supervise.ts";

const FIRST_PORT = 4180;
/** How long a start waits for another one in the same folder that has not come up yet, s. */
const PATIENCE_S = 90;

/** The address of a start that serves from this folder; waits for one that is still coming up. */
async function alreadyServing(): Promise<string | null> {
  for (let waited = 0; waited < PATIENCE_S; waited += 1) {
    const running = runningHere();
    if (!running) return null;
    if (running.address !== null) {
      const live = await fetch(`${running.address}/live`, { signal: AbortSignal.timeout(2000) }).catch(
        () => null,
      );
      return live?.ok ? running.address : null;
    }
    await setTimeout(1000);
  }
  return null;
}

/** The value of an option, with a space or an equals sign between. */
function valueOf(args: readonly string[], option: string): string | null {
  const at = args.indexOf(option);
  if (at >= 0) return args[at + 1] ?? "";
  return args.find((each) => each.startsWith(`${option}=`))?.slice(option.length + 1) ?? null;
}

async function choosePort(args: readonly string[]): Promise<number> {
  const wanted = Number(valueOf(args, "--port") ?? process.env["PORT"] ?? FIRST_PORT);
  if (!Number.isInteger(wanted) || wanted < 1 || wanted > 65_535)
    throw new Error(`“${process.env["PORT"]}” in PORT is no port: give a number from 1 to 65535.`);
  if (!(await isFree(wanted)))
    say(`Port ${wanted} is taken by another program, so Barometron takes the next one.`);
  return wanted;
}

/** The desk beside the first that was asked for; null for the first. */
function deskNamed(args: readonly string[]): string | null {
  const name = valueOf(args, "--desk");
  if (name === null) return null;
  if (!/^[a-z][a-z0-9_]{0,30}$/.test(name))
    throw new Error("Name the desk in small letters: ./barometron start --desk old");
  return name;
}

/** Sets up what is missing, starts the database, brings it up to date, builds, serves; stops cleanly on Ctrl-C. */
export async function start(options: {
  readonly demo: boolean;
  readonly args: readonly string[];
}): Promise<number> {
  mkdirSync(DATA, { recursive: true });
  const desk = deskNamed(options.args);
  const folder = takeFolder();
  if (!folder) {
    const running = await alreadyServing();
    say(
      running
        ? `Barometron already runs from this folder: ${running}`
        : "Another start from this folder is under way and does not answer. Stop it, then start again.",
    );
    return running ? 0 : 1;
  }
  const stops: (() => Promise<void> | void)[] = [() => folder.release()];
  const stopAll = async () => {
    for (const stop of stops.splice(0).reverse()) await stop();
  };
  // Asked to stop, it stops wherever it is: also while it builds.
  const asked = new AbortController();
  const ended = once(asked.signal, "abort");
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"] as const) process.once(signal, () => asked.abort());
  try {
    // What the environment named at first: later it names the desk's own, for the server.
    const own = process.env["DATABASE_URL"] ?? "";
    const again = () => deskCluster(desk ?? undefined, own);
    const cluster = await again();
    stops.push(() => cluster.stop());
    const backups = join(DATA, "backups");
    await backupBeforeUpgrade(cluster.url, backups);
    await migrateDatabase(cluster.url, MIGRATIONS);
    if (options.demo) {
      const { at, close } = connect(cluster.url, 2);
      try {
        if (await setDemoDesk(at({ deskId: DEMO_DESK, actor: "" })))
          say("The demo desk is set: five invented bikes and their tests.");
      } finally {
        await close();
      }
    }
    process.env["BAROMETRON_BUILD"] = await buildApp(asked.signal);
    asked.signal.throwIfAborted();
    process.env["BAROMETRON_BACKUPS"] = backups;
    process.env["DATABASE_URL"] = cluster.url;
    process.env["NODE_ENV"] ??= "production";
    const port = await freePort(await choosePort(options.args));
    if (options.args.includes("--share")) {
      const front = await share(cluster.url, port, valueOf(options.args, "--at"));
      stops.push(() => front.stop());
    }
    const serving = await serve(port);
    stops.push(() => serving.close());
    stops.push(superviseDatabase(cluster, again), scheduleBackups(cluster.url, backups, MIGRATIONS));
    folder.serve(serving.address);
    const address = `${process.env["PUBLIC_URL"] ?? serving.address}${options.demo ? "/demo" : ""}`;
    say(`Barometron is ready: ${address}   (Ctrl-C stops it; the data stays)`);
    await ended;
    say("Stopping ...");
    return 0;
  } catch (error) {
    if (!asked.signal.aborted) throw error;
    say("Stopped before it was ready.");
    return 0;
  } finally {
    await stopAll();
  }
}
