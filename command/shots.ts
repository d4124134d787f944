import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import { listCourses, listPlans, type PlanLine } from "#db/plans";
import { listTests, type TestLine } from "#db/tests";
import { needChromium } from "./packages.ts";
import { ROOT } from "./paths.ts";
import { DESK, PHONE, rideShots } from "./rideShots.ts";
import { say } from "./say.ts";
import { CHROMIUM_FLAGS, serveDemo, withThrowawayCluster } from "./throwaway.ts";

/** One current picture of each main view, from the demo desk on a cluster of its own. */
export function shots(): Promise<number> {
  const pictures = join(ROOT, "docs", "screenshots");
  mkdirSync(pictures, { recursive: true });
  return withThrowawayCluster(async ({ url }) => {
    let tests: readonly TestLine[] = [];
    let plans: readonly PlanLine[] = [];
    let courses: Awaited<ReturnType<typeof listCourses>> = [];
    const serving = await serveDemo(url, async (db) => {
      tests = await listTests(db);
      plans = await listPlans(db);
      courses = await listCourses(db);
    });
    const named = (title: string) => tests.find(({ test }) => test.title === title)!;
    const browser = await chromium.launch({ executablePath: needChromium(), args: CHROMIUM_FLAGS });
    try {
      const runDown = named("run-down on two levels");
      const plan = plans.find((each) => each.plan.title === "How far with the child on")!;
      const course = courses.find(({ name }) => name === "Levee loop")!;
      const pair = [named("levee loop, town level"), named("levee loop, winter tyres")]
        .map(({ id }) => `test=${id}`)
        .join("&");
      const views = [
        ["today", "/", DESK],
        ["bikes", "/bikes", DESK],
        ["bike", `/bikes/${runDown.bikeId}`, DESK],
        ["question", `/plan/new?question=claim&bike=${runDown.bikeId}`, DESK],
        ["plan", `/plan/${plan.id}`, DESK],
        ["sheet", `/plan/${plan.id}/sheet`, DESK],
        ["sheet-phone", `/plan/${plan.id}/pocket`, PHONE],
        ["course", `/plan/courses/${course.id}`, DESK],
        ["strip", `/strip/${runDown.id}`, DESK],
        ["strip-clean", `/strip/${named("the box on the marsh hills").id}`, DESK],
        ["strip-doubt", `/strip/${named("levee loop, town level").id}?tab=doubt`, DESK],
        ["strip-phone", `/strip/${named("levee run-down").id}`, PHONE],
        ["compare", "/compare", DESK],
        ["compare-two", `/compare?${pair}`, DESK],
        ["settings", "/settings", DESK],
      ] as const;
      for (const [name, path, viewport] of views) {
        const page = await browser.newPage({ viewport });
        await page.goto(serving.address + path, { waitUntil: "networkidle" });
        const tabs = page.getByRole("navigation", { name: "Parts of the test" });
        const strip = page.getByRole("img", { name: /^Strip over/ });
        if (name === "strip-phone") await strip.evaluate((element) => element.scrollIntoView());
        if (path.includes("tab=")) await tabs.evaluate((element) => element.scrollIntoView());
        await page.screenshot({ path: join(pictures, `${name}.png`) });
        await page.close();
      }
      const rides = await rideShots(browser, serving.address, pictures);
      say(`${views.length + rides} pictures are in docs/screenshots.`);
    } finally {
      await browser.close();
      await serving.close();
    }
    return 0;
  });
}
