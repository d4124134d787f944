import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Browser, Page } from "@playwright/test";
import { ROOT } from "./paths.ts";

export const DESK = { width: 1280, height: 800 };
export const PHONE = { width: 390, height: 844 };

/** Opens an address; the page is ready when its scripts run. */
async function open(page: Page, address: string): Promise<void> {
  await page.goto(address);
  await alive(page);
}

/** What is left is told once it is reckoned. */
const leftTold = (page: Page) =>
  page
    .getByRole("region", { name: "What is left" })
    .getByText(/left, \d/)
    .waitFor();

export const alive = (page: Page) => page.locator("html[data-alive]").waitFor({ state: "attached" });

async function keep(page: Page, ...lines: readonly string[]): Promise<void> {
  const line = page.getByLabel("The line");
  for (const text of lines) {
    await line.fill(text);
    await line.press("Enter");
    await page.getByText("Every entry is kept.").waitFor();
  }
}

async function started(page: Page, address: string, title: string): Promise<void> {
  await open(page, `${address}/ride`);
  await page.getByRole("button", { name: `Start ${title}` }).click();
  await page.getByRole("heading", { name: "Start readings" }).waitFor();
  await alive(page);
  await keep(page, "10:05 full 0mi 100%");
}

/** A ride under way on a phone, with a line about to be kept. */
async function phone(page: Page, address: string, folder: string): Promise<void> {
  await started(page, address, "What winter tyres cost");
  await keep(
    page,
    "10:20 3.2mi 94%",
    "10:29 5mi 89% L2 #gravel ~38mi left",
    "10:40 7.1mi 84% 40.1V rest wind 9mph",
  );
  await page.getByLabel("The line").fill('10:51 9.1mi 79% 6-7A windy "gate shut"');
  await leftTold(page);
  await page.waitForTimeout(500);
  await page.screenshot({ path: join(folder, "ride-phone.png") });
}

/** The same at a desk, where the turn is due. */
async function desk(page: Page, address: string, folder: string): Promise<void> {
  await started(page, address, "How far with the child on");
  await keep(
    page,
    "10:24 4mi 91%",
    "10:46 8.1mi 80% L3 #gravel",
    "11:03 11.4mi 66% ~24mi left wind 14mph",
    "11:21 14.9mi 50%",
  );
  await leftTold(page);
  await page.waitForTimeout(800);
  await page.screenshot({ path: join(folder, "ride-desk.png") });
}

/** What was said over a ride, half gone through. */
async function narration(page: Page, address: string, folder: string): Promise<void> {
  await open(page, `${address}/strip`);
  await page.getByRole("link", { name: "run-down on two levels", exact: true }).first().click();
  await page.getByRole("link", { name: "Import what was said" }).click();
  await page
    .getByLabel("Or paste what was said")
    .fill(readFileSync(join(ROOT, "examples", "hauler-run-down.txt"), "utf8"));
  await page.getByRole("button", { name: "Read it and show me" }).click();
  await page.getByRole("list", { name: "Moments" }).waitFor();
  for (const key of ["a", "a", "x"]) await page.keyboard.press(key);
  await page.evaluate(() => window.scrollTo(0, 0));
  await page.waitForTimeout(500);
  await page.screenshot({ path: join(folder, "narration.png") });
}

/** Files of a ride as they are looked at, and the clocks of what was imported. */
async function recordings(page: Page, address: string, folder: string): Promise<void> {
  const example = (name: string) => join(ROOT, "examples", name);
  await open(page, `${address}/strip/new`);
  await page.getByRole("link", { name: "Brindlow 3" }).click();
  await page.getByLabel("Title").fill("Down ferry lane");
  await page.getByLabel("Day").fill("2026-09-20");
  await page.getByRole("button", { name: "Save and add check-ins" }).click();
  await page.getByRole("link", { name: "Import files" }).first().click();
  await page.getByLabel("Files of this ride").setInputFiles(example("ferry-lane-notes.csv"));
  await page.getByRole("button", { name: "Save 6 check-ins" }).click();
  await page.getByRole("region", { name: "Ledger" }).waitFor();
  await page.getByRole("link", { name: "Import files" }).first().click();
  const names = ["ferry-lane.fit", "ferry-lane-display.jpg", "ferry-lane-meter.csv"];
  await page.getByLabel("Files of this ride").setInputFiles(names.map(example));
  await page.getByText("This is a logger's samples.").waitFor();
  await page.getByRole("button", { name: "Import 3 files" }).waitFor();
  await page.evaluate(() => window.scrollTo(0, 0));
  await page.waitForTimeout(500);
  await page.screenshot({ path: join(folder, "import.png") });
  await page.getByRole("button", { name: "Import 3 files" }).click();
  await page.getByRole("link", { name: "See the clocks" }).click();
  await page.getByRole("img", { name: /^Clocks over each other/ }).waitFor();
  await page.waitForTimeout(800);
  await page.screenshot({ path: join(folder, "clocks.png") });
}

/** Pictures of Ride, of what was said over one, and of its recordings: how many were taken. */
export async function rideShots(browser: Browser, address: string, folder: string): Promise<number> {
  const takes = [
    [phone, PHONE],
    [narration, DESK],
    [desk, DESK],
    [recordings, DESK],
  ] as const;
  for (const [take, viewport] of takes) {
    const page = await browser.newPage({ viewport, serviceWorkers: "block" });
    await take(page, address, folder);
    await page.context().close();
  }
  return 5;
}
