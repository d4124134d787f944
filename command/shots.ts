import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { listSweeps } from "#db/field";
import { listPlans, type PlanLine } from "#db/plans";
import { listSheets } from "#db/sheets";
import { listTests, type TestLine } from "#db/tests";
import { needChromium } from "./packages.ts";
import { ROOT } from "./paths.ts";
import { alive, DESK, rideShots } from "./rideShots.ts";
import { say } from "./say.ts";
import { teamShots } from "./teamShots.ts";
import { CHROMIUM_FLAGS, serveDemo, withThrowawayCluster } from "./throwaway.ts";

/** A4 at 96 to the inch. */
const PAPER = { width: 794, height: 1123 };

/** One current picture of each main view, from the demo desk on a cluster of its own. */
export function shots(): Promise<number> {
  const pictures = join(ROOT, "docs", "screenshots");
  mkdirSync(pictures, { recursive: true });
  return withThrowawayCluster(async ({ url }) => {
    let tests: readonly TestLine[] = [];
    let plans: readonly PlanLine[] = [];
    let sheets: Awaited<ReturnType<typeof listSheets>> = [];
    let sweeps: Awaited<ReturnType<typeof listSweeps>> = [];
    const serving = await serveDemo(url, async (db) => {
      tests = await listTests(db);
      plans = await listPlans(db);
      sweeps = await listSweeps(db);
      sheets = await listSheets(db);
    });
    const named = (title: string) => tests.find(({ test }) => test.title === title)!;
    const browser = await chromium.launch({
      executablePath: needChromium(),
      args: [...CHROMIUM_FLAGS, "--ignore-certificate-errors"],
    });
    try {
      const sweep = sweeps[0]!;
      const runDown = named("run-down on two levels");
      const plan = plans.find((each) => each.plan.title === "How far with the child on")!;
      const ofTest = sheets.find(({ testId }) => testId !== null)!;
      const hauler = runDown.bikeId;
      const [slick, winter] = [named("levee loop, town level"), named("levee loop, winter tyres")];
      const views = [
        ["today", "/", DESK],
        ["bike", `/bikes/${hauler}`, DESK],
        ["plan", `/plan/${plan.id}`, DESK],
        ["sheet", `/plan/${plan.id}/sheet`, PAPER],
        ["strip", `/strip/${runDown.id}`, DESK],
        ["strip-doubt", `/strip/${named("levee loop, town level").id}?tab=doubt`, DESK],
        ["sheet-test", `/sheet/${ofTest.id}/html`, PAPER],
        ["compare", "/compare?under=House", DESK],
        ["bridge", `/compare/bridge/${runDown.id}?under=House`, DESK],
        ["pair", `/compare/pair?a=${slick.id}&b=${winter.id}`, DESK],
        ["sweep", `/compare/sweeps/${sweep.id}`, DESK],
        ["claims", "/compare/claims?under=House", DESK],
      ] as const;
      for (const [name, path, viewport] of views) {
        const page = await browser.newPage({
          ...{ viewport, serviceWorkers: "block" },
        });
        if (viewport === PAPER && !path.endsWith("/html")) await page.emulateMedia({ media: "print" });
        // A sheet's file is no page of the desk: it is opened by itself.
        if (path.endsWith("/html")) {
          await page.setContent(await (await fetch(serving.address + path)).text());
          await page.screenshot({ path: join(pictures, `${name}.png`) });
          await page.close();
          continue;
        }
        await page.goto(serving.address + path);
        await alive(page);
        await page.locator("main[aria-busy='true'], [data-pending]").waitFor({ state: "hidden" });
        await page.waitForTimeout(600);
        const tabs = page.getByRole("navigation", { name: "Parts of the test" });
        if (path.includes("tab=")) await tabs.evaluate((element) => element.scrollIntoView());
        // The margins of the paper, which a screen has not.
        if (viewport === PAPER)
          await page
            .locator("main")
            .evaluate((main) => main.style.setProperty("padding", "45px", "important"));
        await page.screenshot({ path: join(pictures, `${name}.png`) });
        await page.close();
      }
      const rides = await rideShots(browser, serving.address, pictures);
      const team = await teamShots(browser, pictures);
      say(`${views.length + rides + team} pictures are in docs/screenshots.`);
    } finally {
      await browser.close();
      await serving.close();
    }
    return 0;
  });
}
