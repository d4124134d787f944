import { mkdirSync } from "node:fs";
import { join } from "node:path";
import { chromium, type Page } from "@playwright/test";
import { listCourses, listPlans, type PlanLine } from "#db/plans";
import { listTests, type TestLine } from "#db/tests";
import { needChromium } from "./packages.ts";
import { ROOT } from "./paths.ts";
import { say } from "./say.ts";
import { CHROMIUM_FLAGS, serveDemo, withThrowawayCluster } from "./throwaway.ts";

const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

/** A ride under way, with a line about to be kept. */
async function rideShot(page: Page, address: string, path: string): Promise<void> {
  await page.goto(`${address}/ride`);
  await page.getByRole("button", { name: "Start What winter tyres cost" }).click();
  await page.getByLabel("Percent").fill("100");
  await page.getByLabel("Distance").fill("0");
  await page.getByLabel("The charger said done").check();
  await page.getByRole("button", { name: "Start", exact: true }).click();
  const line = page.getByLabel("The line");
  for (const text of ["3.2mi 94%", "5mi 89% L2 #gravel", "7.1mi 84% 40.1V rest"]) {
    await line.fill(text);
    await line.press("Enter");
    await page.getByText("Every entry is kept.").waitFor();
  }
  await line.fill('9.1mi 79% 6-7A windy "gate shut"');
  await page.getByRole("region", { name: "What is left" }).waitFor();
  await page.waitForTimeout(500);
  await page.screenshot({ path });
  await page.close();
}

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
      ["strip-evidence", `/strip/${runDown.id}?tab=evidence`, DESK],
      ["strip-doubt", `/strip/${named("levee loop, town level").id}?tab=doubt`, DESK],
      ["strip-end", `/strip/${named("two market days, charged between").id}?tab=end`, DESK],
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
    await rideShot(
      await browser.newPage({ viewport: PHONE }),
      serving.address,
      join(pictures, "ride-phone.png"),
    );
    const page = await browser.newPage({ viewport: DESK });
    await page.goto(`${serving.address}/strip/${named("commute week, days").id}`);
    await page.getByRole("button", { name: "Another ride on this charge" }).click();
    await page.getByText("Ride 5").or(page.getByLabel("The charger said done")).waitFor();
    await page.getByRole("link", { name: "Bring in notes as CSV" }).click();
    await page
      .getByLabel("CSV of check-ins")
      .setInputFiles(join(ROOT, "examples", "marsh-commute-slips.csv"));
    await page.getByRole("button", { name: "Read it and show me" }).click();
    await page.getByRole("alert").waitFor();
    await page.screenshot({ path: join(pictures, "import.png") });
    say(`${views.length + 2} pictures are in docs/screenshots.`);
    await browser.close();
    await serving.close();
    return 0;
  });
}
