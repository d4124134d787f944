import { expect } from "@playwright/test";
import { withClient } from "#db/backup/databases";
import { ready, test } from "./watched";

/** The demo desk beside one's own: offered by an empty desk, marked, left by one press, and apart. */
test.describe.configure({ mode: "serial" });

test("an empty desk offers the demo; what is changed there is not on one's own", async ({
  page,
  databaseUrl,
}) => {
  await withClient(databaseUrl, (client) => client.query("update bike set archived_at = now()"));
  await page.goto("/demo");
  await expect(page.getByRole("region", { name: "Demo desk" })).toBeHidden();
  await page.getByRole("button", { name: "Look around the demo desk" }).click();
  await expect(page.getByRole("region", { name: "Demo desk" })).toContainText("is invented");
  await page.goto("/bikes");
  await ready(page);
  await expect(page.getByRole("link", { name: "Ondrey Hauler" })).toBeVisible();
  await page.getByRole("link", { name: "Tove" }).click();
  await page.getByRole("button", { name: "Rename" }).click();
  await page.getByLabel("New name").fill("Tove of the demo");
  await page.getByRole("button", { name: "Save the name" }).click();
  await expect(page.getByText("Renamed.").last()).toBeVisible();
  await page.getByRole("button", { name: "Go to my own desk" }).click();
  await expect(page.getByRole("button", { name: "Look around the demo desk" })).toBeVisible();
  await page.goto("/bikes");
  await expect(page.getByRole("link", { name: "Tove", exact: true })).toBeVisible();
  await expect(page.getByRole("link", { name: "Tove of the demo" })).toBeHidden();
});

test("the demo desk has figures of its own, and its address leads back to it", async ({ page }) => {
  await page.goto("/demo");
  await expect(page.getByRole("region", { name: "Demo desk" })).toBeVisible();
  await page.goto("/strip");
  await ready(page);
  await page.getByRole("table").getByRole("rowheader").first().getByRole("link").click();
  await ready(page);
  await expect(page.getByText("show the working").first()).toBeVisible();
  await page.goto("/bikes");
  await expect(page.getByRole("link", { name: "Tove of the demo" })).toBeVisible();
});
