import { expect } from "@playwright/test";
import { ready, test } from "./watched";

test.describe("phone", () => {
  test.use({ viewport: { width: 390, height: 844 } });
  test("the stations are in the bottom bar", async ({ page }) => {
    await page.goto("/");
    const bar = page.getByRole("navigation", { name: "Stations" });
    await expect(bar.getByRole("link")).toHaveText(["Today", "Plan", "Ride", "Strip"]);
    await bar.getByRole("link", { name: "Ride" }).click();
    await expect(page.getByRole("heading", { level: 1 })).toHaveText("Ride");
  });
});

test("units switch on every figure and back", async ({ page }) => {
  await page.goto("/compare");
  await page.getByRole("button", { name: "Kilometres and kilograms" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Standings, Wh/km as ridden");
  await page.getByRole("button", { name: "Miles and pounds" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Standings, Wh/mi as ridden");
});

test("keys lead to the stations, and ? lists them", async ({ page }) => {
  await page.goto("/settings");
  await ready(page);
  await page.keyboard.press("g");
  await page.keyboard.press("1");
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Bikes");
  await page.keyboard.press("?");
  await expect(page.getByRole("dialog")).toContainText("go to Bikes");
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toBeHidden();
});

test("what the display of a wrong wheel reads is said on Today", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByText("check the wheel setting")).toBeVisible();
});

test("a page without script still shows the strip and the standings' figures", async ({ browser }) => {
  const context = await browser.newContext({ javaScriptEnabled: false });
  const page = await context.newPage();
  await page.goto("/strip");
  await page.getByRole("link", { name: "levee run-down" }).click();
  await expect(page.getByRole("slider", { name: /^Strip over/ })).toBeVisible();
  await page.goto("/compare");
  await expect(page.getByRole("link", { name: "Vessock Fat" }).first()).toBeVisible();
  await context.close();
});
