import { spawnSync } from "node:child_process";
import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { v7 as uuidv7 } from "uuid";
import { reckonTest } from "#core/results";
import { connect } from "#db/client";
import { appendEntries } from "#db/log";
import { migrateDatabase } from "#db/migrate";
import { seedOnce } from "#db/seed";
import { listTests, saveTest } from "#db/tests";
import { longRide, SMALL_LEDGER } from "../bench/inputs.ts";
import { median, yardstick } from "../bench/measure.ts";
import { buildApp } from "./build.ts";
import { startCluster } from "./cluster.ts";
import { needChromium } from "./packages.ts";
import { MIGRATIONS, ROOT } from "./paths.ts";
import { freePort } from "./ports.ts";
import { serve } from "./serve.ts";

/** Times the core, calc, the server's pages and the strip in a browser; each also as a multiple of a fixed yardstick. */
export async function bench(): Promise<number> {
  const unit = await median(5, yardstick);
  const report = (what: string, ms: number, limit?: number) => {
    const verdict = limit === undefined ? "" : ms <= limit ? `within ${limit} ms` : `OVER ${limit} ms`;
    process.stdout.write(
      `${what.padEnd(52)} ${ms.toFixed(1).padStart(9)} ms ${(ms / unit).toFixed(2).padStart(8)} x  ${verdict}\n`,
    );
    return limit === undefined || ms <= limit;
  };
  const fine: boolean[] = [report("yardstick", unit)];
  fine.push(report("core: ride of 20 marks", await median(9, () => reckonTest(longRide(20)))));
  fine.push(report("core: ride of 60 marks", await median(5, () => reckonTest(longRide(60)))));
  fine.push(report("core: ride of 300 marks", await median(3, () => reckonTest(longRide(300)))));
  const many = JSON.stringify(Array.from({ length: 400 }, () => SMALL_LEDGER));
  fine.push(
    report(
      "calc: 400 small ledgers in one call",
      await median(3, () => spawnSync("./barometron", ["calc", "-"], { cwd: ROOT, input: many })),
      20_000,
    ),
  );

  const folder = mkdtempSync(join(tmpdir(), "barometron-bench-"));
  chmodSync(folder, 0o755);
  const cluster = await startCluster({ folder, port: 56_180, throwaway: true });
  try {
    await migrateDatabase(cluster.url, MIGRATIONS);
    const { db, close } = connect(cluster.url, 2);
    await seedOnce(db);
    const [line] = await listTests(db);
    const long = longRide(300);
    const ids = { test: uuidv7(), ride: uuidv7() };
    await saveTest(db, ids.test, line!, long.test, ids.ride);
    await appendEntries(db, ids.ride, long.rides[0]!.entries);
    await close();
    process.env["BAROMETRON_BUILD"] = buildApp();
    process.env["DATABASE_URL"] = cluster.url;
    process.env["NODE_ENV"] = "production";
    const before = performance.now();
    const serving = await serve(await freePort(4580));
    await (await fetch(`${serving.address}/health`)).text();
    fine.push(report("server: from import to first answer", performance.now() - before));
    for (const path of [
      "/",
      "/bikes",
      "/strip",
      "/compare",
      "/settings",
      `/bikes/${line!.bikeId}`,
      `/strip/${line!.id}`,
    ])
      fine.push(
        report(
          `page ${path.replace(/[0-9a-f-]{36}/, "ID")}`,
          await median(15, async () => (await fetch(serving.address + path)).text()),
          150,
        ),
      );
    fine.push(
      report(
        "page of the 300-mark ride",
        await median(7, async () => (await fetch(`${serving.address}/strip/${ids.test}`)).text()),
      ),
    );
    const browser = await chromium.launch({
      executablePath: needChromium(),
      args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
    });
    const page = await browser.newPage();
    fine.push(
      report(
        "strip of 300 marks: from address to the keys answer",
        await median(3, async () => {
          await page.goto(`${serving.address}/strip/${ids.test}`, { waitUntil: "commit" });
          while ((await page.getByText("energy left").count()) === 0) await page.keyboard.press("ArrowRight");
        }),
        1000,
      ),
    );
    await browser.close();
    await serving.close();
  } finally {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
  return fine.every(Boolean) ? 0 : 1;
}
