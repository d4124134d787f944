import { expect } from "@playwright/test";
import { expectAccessible, expectNoSideways } from "./accessible";
import { test } from "./watched";

/** Standings under one set of conditions, and the way from a measured figure to them. */
test("tests are brought to a reference, and each figure opens the way there", async ({ page }) => {
  await page.goto("/compare");
  await page.waitForLoadState("networkidle");
  await page.getByLabel("Under").selectOption("House");
  await expect(page).toHaveURL(/under=House/);
  await expect(page.getByRole("heading", { name: "Standings, Wh/mi under House" })).toBeVisible();
  await expectAccessible(page);
  await page
    .getByRole("link", { name: /^How .* comes to/ })
    .first()
    .click();
  await expect(page.getByRole("heading", { name: /under House$/ })).toBeVisible();
  const rows = page.getByRole("table").getByRole("row");
  await expect(rows.last()).toContainText("under House");
  // The bars sum to the answer, to the digits shown.
  const figures = await rows.locator("td:nth-child(2)").allTextContents();
  const [measured, ...rest] = figures.map((text) => Number(text.replace("−", "-")));
  const answer = rest.pop()!;
  expect(rest.reduce((sum, bar) => sum + bar, measured!)).toBeCloseTo(answer, 0);
  await expectAccessible(page);
  await expectNoSideways(page);
});

test("a reference a motor does not reach leaves the test out, and says with which speeds", async ({
  page,
}) => {
  await page.goto("/compare?under=Throttle%20flat");
  await expect(page.getByRole("heading", { name: "Not brought there" })).toBeVisible();
  await expect(
    page.getByText(/The motor rests above 1\d\.\d mph: it does not hold the reference's 20\.0 mph\./).first(),
  ).toBeVisible();
});

test("a reference nobody knows shows the tests as ridden; its bridge says so", async ({ page }) => {
  await page.goto("/compare?under=Elsewhere");
  await expect(page.getByRole("heading", { name: /as ridden$/ })).toBeVisible();
  const answer = await page.request.get("/compare/bridge/019a0000-0000-7000-8000-000000000000?under=House");
  expect(answer.status()).toBe(404);
});
