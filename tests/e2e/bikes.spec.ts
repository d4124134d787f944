import { expect } from "@playwright/test";
import { ready, test } from "./watched";
import { expectAccessible, expectNoSideways } from "./accessible";

/** A bike with every fact, its set-ups, instruments and bench sheets; duplicated, archived, undone. */
test.describe.configure({ mode: "serial" });

let address = "";

test.beforeEach(async ({ page }) => {
  await page.goto("/settings");
  await page.getByRole("button", { name: "Miles and pounds" }).first().click();
});

test("a light bike is asked about its unit, a claim its ends, and nothing typed is lost", async ({
  page,
}) => {
  await page.goto("/bikes/new");
  await ready(page);
  await page.getByLabel("Name").fill("Sedge Post");
  await page.getByLabel("Weight with its pack").fill("23");
  await page.getByLabel("Range claimed, one a line").fill("eco: 60 to 40 mi");
  await page.getByRole("button", { name: "Save the bike" }).click();
  await expect(page.getByText("23 lb is light for an e-bike. 23 kg?")).toBeVisible();
  await expect(page.getByText("its upper end lies below its lower end. Swap them.")).toBeVisible();
  await page.getByLabel("Weight with its pack").fill("23 kg");
  await page.getByLabel("Weight without it").fill("20 kg");
  await page.getByLabel("Range claimed, one a line").fill("eco: 40 to 60 mi, level road\nsport: 25 mi");
  await page.getByRole("textbox", { name: "Assist levels, least first" }).fill("");
  await page.getByRole("button", { name: "Save the bike" }).click();
  await expect(page.getByText("Name at least one assist level")).toBeVisible();
  await page.getByRole("textbox", { name: "Assist levels, least first" }).fill("eco 40 %, sport 100 %");
  await page.getByLabel("Most power it gives, W").fill("250");
  await page.getByLabel("Pedal sensor", { exact: true }).selectOption("torque");
  await page.getByLabel("Price").fill("1899 EUR");
  await page.getByRole("button", { name: "Confirm Motor" }).click();
  await page.getByRole("button", { name: "Save the bike" }).click();
  await page.getByLabel("Printed energy").fill("480 Wh");
  await page.getByLabel("Storage").fill("hall, half full");
  await page.getByLabel("First used on").fill("2024-05-01");
  await page.getByRole("button", { name: "Save the pack" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Sedge Post");
  address = new URL(page.url()).pathname;
});

test("its facts stand on its page, what was assumed in pencil", async ({ page }) => {
  await page.goto(address);
  const facts = page.getByRole("complementary");
  for (const text of [
    "50.7 lb",
    "44.1 lb without its pack",
    "250 W, torque sensor",
    "eco 40 %, sport 100 %",
    "eco: 40 to 60 mi",
    "level road",
    "sport: 25 mi",
    "conditions not stated",
    "1899 EUR",
  ])
    await expect(facts).toContainText(text);
  await expect(facts.locator("dd.pencil").filter({ hasText: "20.0 mph" })).toBeVisible();
  await expect(facts.locator("dd").filter({ hasText: "hub motor" })).not.toHaveClass(/pencil/);
  await expectAccessible(page);
});

test("a set-up is dated, checked against the tyre's maximum, and duplicated", async ({ page }) => {
  await page.goto(`${address}/set-ups/new`);
  await page.getByLabel("Name").fill("day tyres");
  await page.getByLabel("Ridden so since").fill("2026-03-01");
  await page.getByLabel("Pressure", { exact: true }).fill("60 psi");
  await page.getByLabel("Its printed maximum").fill("50 psi");
  await page.getByRole("button", { name: "Save the set-up" }).click();
  await expect(page.getByText("over the tyre's printed maximum")).toBeVisible();
  await page.getByLabel("Its printed maximum").fill("65 psi");
  await page.getByRole("button", { name: "Save the set-up" }).click();
  await expect(page.getByText("60 psi, lights off, since 1 Mar 2026")).toBeVisible();
  await page.getByRole("button", { name: "Duplicate day tyres" }).click();
  await expect(page.getByLabel("Name")).toHaveValue("day tyres, copy");
  await expect(page.getByLabel("Ridden so since")).toHaveValue("");
});

test("a set-up archived comes back when that is undone", async ({ page }) => {
  await page.goto(address);
  await page.getByRole("button", { name: "Archive day tyres, copy" }).click();
  await expect(page.getByRole("link", { name: "day tyres, copy" })).toBeHidden();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("link", { name: "day tyres, copy" })).toBeVisible();
});

test("a change of the bike is undone", async ({ page }) => {
  await page.goto(`${address}/edit`);
  await page.getByLabel("Brakes").fill("rim brakes");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("complementary")).toContainText("rim brakes");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("Undone.").last()).toBeVisible();
  await expect(page.getByRole("complementary")).not.toContainText("rim brakes");
});

test("a bench test starts from full, and its sheet goes to the customer", async ({ page }) => {
  await page.goto(address);
  await page.getByRole("link", { name: "Record a bench test" }).click();
  await page.getByLabel("Day", { exact: true }).fill("2026-10-01");
  await page.getByLabel("Took").fill("5.2");
  await page.getByLabel("Result").fill("421 Wh");
  await page.getByLabel("Pack temperature at the start").fill("77 F");
  await page.getByRole("button", { name: "Save it, show the sheet" }).click();
  await expect(page.getByText("only starts from full")).toBeVisible();
  await page.getByLabel("It started from full, charger green").check();
  await page.getByRole("button", { name: "Save it, show the sheet" }).click();
  await expect(page.getByText("88 %").first()).toBeVisible();
  await expect(page.getByText("421 ± 12")).toBeVisible();
  await expect(page.getByText(/\d\d % to \d\d % of the label/)).toBeVisible();
  await expect(page.getByText("Sound for its age.")).toBeVisible();
  await expect(page.getByText("call the emergency number")).toBeVisible();
  await expectAccessible(page);
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString("latin1");
  expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)).toHaveLength(1);
  await page.goto(address);
  await expect(page.getByText("421 ± 12 Wh usable, measured")).toBeVisible();
});

test("a rider's effort line needs both ends", async ({ page }) => {
  await page.goto("/bikes/riders/new");
  await page.getByLabel("Name").fill("Runa");
  await page.getByLabel("Easy, beats a minute").fill("105");
  await page.getByRole("button", { name: "Save the rider" }).click();
  await expect(page.getByText("The effort line needs both efforts")).toBeVisible();
  await page.getByLabel("Easy, watts").fill("60");
  await page.getByLabel("Hard, beats a minute").fill("150");
  await page.getByLabel("Hard, watts").fill("150");
  await page.getByRole("button", { name: "Save the rider" }).click();
  await expect(page.getByRole("link", { name: "Runa" })).toBeVisible();
});

test("a charger is kept with its errors", async ({ page }) => {
  await page.goto("/bikes");
  await page.getByRole("link", { name: "Add an instrument" }).click();
  await page.getByLabel("Name").fill("porch");
  await page.getByLabel("Kind").selectOption("charger");
  await page.getByLabel("A charger gives").fill("4 A");
  await page.getByLabel("Wall energy that reaches the pack").fill("89 %");
  await page.getByRole("button", { name: "Save it" }).click();
  await expect(page.getByRole("listitem").filter({ hasText: "porch" })).toContainText("charger, 4.0 A");
});

test("a bike is duplicated with its packs and set-ups, then archived", async ({ page }) => {
  await page.goto(address);
  await page.getByRole("button", { name: "Duplicate Sedge Post" }).click();
  await expect(page.getByLabel("Name")).toHaveValue("Sedge Post, copy");
  await page.getByRole("button", { name: "Save", exact: true }).click();
  await expect(page.getByRole("link", { name: "Main pack" })).toBeVisible();
  await expect(page.getByRole("link", { name: "day tyres", exact: true })).toBeVisible();
  await page.getByRole("button", { name: "Archive Sedge Post, copy" }).click();
  await expect(page.getByRole("link", { name: "Sedge Post, copy" })).toBeHidden();
  await page.getByRole("link", { name: "Show what is archived" }).click();
  await page.getByRole("link", { name: "Sedge Post, copy" }).click();
  await page.getByRole("button", { name: "Bring back Sedge Post, copy" }).click();
  await expect(page.getByRole("button", { name: "Archive Sedge Post, copy" })).toBeVisible();
});

test.describe("on the phone", () => {
  test.use({ viewport: { width: 390, height: 844 } });
  test("nothing is wider than the window", async ({ page }) => {
    for (const path of [
      "/bikes",
      address,
      `${address}/edit`,
      `${address}/set-ups/new`,
      "/bikes/instruments/new",
      "/bikes/riders/new",
    ]) {
      await page.goto(path);
      await expectNoSideways(page);
    }
  });
});
