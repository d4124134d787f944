import { expect, type Page } from "@playwright/test";

/** Makes a test of the demo's Brindlow and waits on its strip, which has no check-ins yet; answers its address. */
export async function newTest(page: Page, title: string, day = "2026-09-20"): Promise<string> {
  await page.goto("/strip/new");
  await page.getByRole("link", { name: "Brindlow 3" }).click();
  await page.getByLabel("Title").fill(title);
  await page.getByLabel("Day").fill(day);
  await page.getByRole("button", { name: "Save and add check-ins" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText(title);
  return new URL(page.url()).pathname;
}
