import { expect, type Page } from "@playwright/test";
import { test } from "./watched";
import { cell } from "./cells";
import { expectAccessible } from "./accessible";

/** One charge over several rides, in kilometres, with conditions changed afterwards. */
test.describe.configure({ mode: "serial" });

let address = "";
const rows = (page: Page, ride: string) =>
  page.getByRole("region", { name: `Readings, ${ride}` }).getByRole("row");

async function checkIn(page: Page, values: Record<string, string>): Promise<void> {
  for (const [label, value] of Object.entries(values))
    await page.getByLabel(label, { exact: true }).fill(value);
  await page.getByRole("button", { name: "Save", exact: true }).click();
}

test.beforeEach(async ({ page }) => {
  await page.goto("/settings");
  await page.getByRole("button", { name: "Kilometres and kilograms" }).first().click();
  await expect(page.getByRole("button", { name: "Kilometres and kilograms" }).first()).toHaveAttribute(
    "aria-pressed",
    "true",
  );
});

test("a test is started on a bike of the desk", async ({ page }) => {
  await page.goto("/bikes");
  await page.getByRole("link", { name: "Tarrick Fold" }).click();
  await page.getByRole("link", { name: "New test" }).click();
  await page.getByLabel("Title").fill("two rides, one charge");
  await page.getByLabel("Day").fill("2026-08-20");
  await page.getByLabel("Kind of test").selectOption("commute week");
  await page.getByLabel("Air temperature").fill("68 F");
  await page.getByRole("textbox", { name: "Clock of the notes" }).fill("an hour");
  await page.getByRole("button", { name: "Save and add check-ins" }).click();
  await expect(page.getByText("Type the clock's time zone by its name")).toBeVisible();
  await page.getByRole("textbox", { name: "Clock of the notes" }).fill("+02:00");
  await page.getByRole("button", { name: "Save and add check-ins" }).click();
  await expect(page.getByText("commute week, pedalled")).toContainText("20 C");
  address = new URL(page.url()).pathname;
});

test("the first ride is logged in kilometres; bars lost are their own kind", async ({ page }) => {
  await page.goto(address);
  await page.getByLabel("The charger said done").check();
  await checkIn(page, { Volts: "41,8", "At rest for": "30" });
  await expect(rows(page, "Ride 1")).toHaveCount(2);
  await page.getByLabel("What", { exact: true }).selectOption("barLost");
  await checkIn(page, { Distance: "6,1", "Bar that went": "4" });
  await expect(rows(page, "Ride 1")).toHaveCount(3);
  await expect(cell(page, { name: "bar 4 lost" })).toBeVisible();
  await page.getByText("Time, place, motor and meters").click();
  await checkIn(page, { Distance: "9", Time: "08:40", Note: "rain from here" });
  await expect(page.getByText("“rain from here”")).toBeVisible();
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("Wh/km");
});

test("a bar the display does not have is refused", async ({ page }) => {
  await page.goto(address);
  await page.getByLabel("What", { exact: true }).selectOption("barLost");
  await checkIn(page, { Distance: "12", "Bar that went": "7" });
  await expect(page.getByText("7 bars cannot be on a display of 4: type 1 to 4.")).toBeVisible();
});

test("a second ride goes on from its own zero on the same charge", async ({ page }) => {
  await page.goto(address);
  await page.getByRole("button", { name: "Another ride on this charge" }).click();
  await expect(page.getByLabel("What", { exact: true })).toHaveValue("start");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(rows(page, "Ride 2")).toHaveCount(2);
  await checkIn(page, { Distance: "7", Volts: "37,4", "At rest for": "15 min" });
  await expect(rows(page, "Ride 2")).toHaveCount(3);
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText(/Distance16\.0+ ± /);
  await expect(page.getByRole("slider", { name: /^Strip over 16\.0 km/ })).toBeVisible();
  await expectAccessible(page);
});

test("a correction shows the entry's own time, and both figures stay in sight", async ({ page }) => {
  await page.goto(address);
  await page.getByRole("link", { name: "Correct the entry at 16.0" }).click();
  await expect(page.getByLabel("Volts", { exact: true })).toHaveValue("37.4 V");
  await page.getByLabel("Volts", { exact: true }).fill("37,9");
  await page.getByRole("button", { name: "Save the correction" }).click();
  await expect(page.getByRole("button", { name: "Set aside 37.9 V" })).toBeVisible();
  await expect(page.locator("s", { hasText: "37.4" })).toBeVisible();
  await page.goto(`${address}?correct=none`);
  await expect(page.getByRole("button", { name: "Save", exact: true })).toBeVisible();
});

test("colder conditions leave less usable energy", async ({ page }) => {
  await page.goto(address);
  const usable = async () =>
    Number(
      /Usable energy\D*(\d+)/.exec((await page.getByRole("region", { name: "Ledger" }).textContent())!)![1],
    );
  const warm = await usable();
  await page.getByRole("link", { name: "Conditions" }).click();
  await page.getByLabel("Air temperature").fill("-8 C");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByText("commute week, pedalled")).toContainText("\u22128 C");
  await expect.poll(usable).toBeLessThan(warm - 10);
});

test("a page without script still takes a check-in", async ({ browser }) => {
  const context = await browser.newContext({ javaScriptEnabled: false });
  const page = await context.newPage();
  await page.goto(address);
  await page.getByLabel("Distance", { exact: true }).fill("9 km");
  await page.getByLabel("Volts", { exact: true }).fill("36.9");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("button", { name: "Set aside 36.9 V" })).toBeVisible();
  await context.close();
});
