import { chmodSync, mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { connect } from "#db/client";
import { migrateDatabase } from "#db/migrate";
import { seedOnce } from "#db/seed";
import { listTests } from "#db/tests";
import { buildApp } from "./build.ts";
import { startCluster } from "./cluster.ts";
import { needChromium } from "./packages.ts";
import { MIGRATIONS, ROOT } from "./paths.ts";
import { freePort } from "./ports.ts";
import { say } from "./say.ts";
import { serve } from "./serve.ts";

const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

/** One current picture of each main view, from the demo desk on a cluster of its own. */
export async function shots(): Promise<number> {
  const folder = mkdtempSync(join(tmpdir(), "barometron-shots-"));
  chmodSync(folder, 0o755);
  const pictures = join(ROOT, "docs", "screenshots");
  mkdirSync(pictures, { recursive: true });
  const cluster = await startCluster({ folder, port: 57_180, throwaway: true });
  try {
    await migrateDatabase(cluster.url, MIGRATIONS);
    const { db, close } = connect(cluster.url, 2);
    await seedOnce(db);
    const tests = await listTests(db);
    await close();
    const named = (title: string) => tests.find(({ test }) => test.title === title)!;
    process.env["BAROMETRON_BUILD"] = buildApp();
    process.env["DATABASE_URL"] = cluster.url;
    process.env["NODE_ENV"] = "production";
    const serving = await serve(await freePort(4680));
    const browser = await chromium.launch({
      executablePath: needChromium(),
      args: ["--no-sandbox", "--disable-gpu", "--disable-background-networking"],
    });
    const runDown = named("run-down on two levels");
    const pair = [named("levee loop, town level"), named("levee loop, winter tyres")]
      .map(({ id }) => `test=${id}`)
      .join("&");
    const views = [
      ["today", "/", DESK],
      ["bikes", "/bikes", DESK],
      ["bike", `/bikes/${runDown.bikeId}`, DESK],
      ["bike-new", "/bikes/new", DESK],
      ["strip", `/strip/${runDown.id}`, DESK],
      ["strip-doubt", `/strip/${named("levee loop, town level").id}?tab=doubt`, DESK],
      ["strip-phone", `/strip/${named("levee run-down").id}`, PHONE],
      ["compare", "/compare", DESK],
      ["compare-two", `/compare?${pair}`, DESK],
      ["compare-phone", "/compare", PHONE],
      ["settings", "/settings", DESK],
    ] as const;
    for (const [name, path, viewport] of views) {
      const page = await browser.newPage({ viewport });
      await page.goto(serving.address + path, { waitUntil: "networkidle" });
      if (name === "strip-doubt") await page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
      await page.screenshot({ path: join(pictures, `${name}.png`) });
      await page.close();
    }
    const page = await browser.newPage({ viewport: DESK });
    await page.goto(`${serving.address}/strip/${named("commute week, days").id}`);
    await page.getByRole("button", { name: "Another ride on this charge" }).click();
    await page.getByRole("link", { name: "Bring in notes as CSV" }).click();
    await page
      .getByLabel("CSV of check-ins")
      .setInputFiles(join(ROOT, "examples", "marsh-commute-slips.csv"));
    await page.getByRole("button", { name: "Read it and show me" }).click();
    await page.getByRole("alert").waitFor();
    await page.screenshot({ path: join(pictures, "import.png") });
    say(`${views.length + 1} pictures are in docs/screenshots.`);
    await browser.close();
    await serving.close();
  } finally {
    cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
  return 0;
}
