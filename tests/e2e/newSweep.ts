import { expect, type Page } from "@playwright/test";
import { ready } from "./watched";

/** Begins a sweep of the demo's Vessock, up to the grid that is to be laid out. */
export async function newSweep(page: Page): Promise<void> {
  await page.goto("/compare/sweeps");
  await page.getByRole("link", { name: "New sweep" }).click();
  await ready(page);
  await page.getByLabel("Bike", { exact: true }).selectOption({ label: "Vessock Fat" });
  await page.getByRole("button", { name: "Take" }).click();
  await expect(page.getByLabel("Name")).toHaveValue("Sweep of Vessock Fat");
}
