import { readFileSync } from "node:fs";
import { expect, type Download, type Page } from "@playwright/test";
import { expectAccessible } from "./accessible";
import { ready, test } from "./watched";

/** What leaves the desk: tables, captions, figures as they are said. */

const fileOf = async (download: Download) => ({
  name: download.suggestedFilename(),
  text: readFileSync(await download.path(), "utf8"),
});

async function taken(page: Page, press: () => Promise<void>) {
  const [download] = await Promise.all([page.waitForEvent("download"), press()]);
  return fileOf(download);
}

test("a strip's readings leave as CSV and JSON, its film gets captions and chapters", async ({ page }) => {
  await page.goto("/strip");
  await page.getByRole("link", { name: "levee run-down" }).click();
  await ready(page);
  await page.getByText("Export this test").click();
  await expect(page.getByText(/As it is said: “about .+ watt-hours a mile, give or take .+”/)).toBeVisible();
  await expectAccessible(page);
  const csv = await taken(page, () => page.getByRole("link", { name: "Readings, CSV" }).click());
  expect(csv.name).toBe("Vessock-Fat-levee-run-down-readings.csv");
  expect(csv.text).toMatch(/^"?distance, mi"?,reading,kind/);
  expect(csv.text.trim().split("\r\n").length).toBeGreaterThan(8);
  const json = await taken(page, () => page.getByRole("link", { name: "Readings, JSON" }).click());
  expect((JSON.parse(json.text) as unknown[]).length).toBe(csv.text.trim().split("\r\n").length - 1);
});

test("captions run along with the film, tied to the clock; what cannot be is said", async ({ page }) => {
  await page.goto("/strip");
  await page.getByRole("link", { name: "run-down on two levels" }).click();
  await ready(page);
  await page.getByText("Export this test").click();
  const begun = await taken(page, () => page.getByRole("button", { name: "Captions, VTT" }).click());
  expect(begun.text).toMatch(/^WEBVTT[\s\S]+00:00:00\.000 --> [\s\S]+ mi, \d+ % left/);
  await page.getByLabel("when the film was at").fill("1:05");
  const later = await taken(page, () => page.getByRole("button", { name: "Captions, SRT" }).click());
  expect(later.text).toMatch(/^1\r?\n00:01:05,000 --> /);
  const chapters = await taken(page, () => page.getByRole("button", { name: "Chapters" }).click());
  expect(chapters.text).toMatch(/^0:00 Before the ride\n1:05 Start\n/);
  const at = new URL(page.url()).pathname;
  const refused = await page.request.get(`${at}/film/vtt?film=soon`);
  expect(refused.status()).toBe(400);
  expect(await refused.text()).toContain("“soon” is no place in a film: type 1:05");
  expect((await page.request.get(`${at}/film/avi`)).status()).toBe(404);
});
