import { expect, type Page } from "@playwright/test";
import { ready, test } from "./watched";
import { expectAccessible, expectNoSideways, expectStrongContrast } from "./accessible";

/** The log in the field, on a phone: logged by taps and by the line, struck, corrected, and held while there is no network. */
test.describe.configure({ mode: "serial" });
test.use({ viewport: { width: 390, height: 844 } });

let address = "";
/** A batch as the page sent it. */
let batch = "";

const entries = (page: Page) => page.getByRole("list", { name: "Last entries" }).getByRole("listitem");
const kept = (page: Page) => page.getByText("Every entry is kept.");

/** Entries of the test as the server holds them. */
async function onServer(page: Page) {
  const response = await page.request.get(`${address.replace("/ride/", "/strip/")}/record`);
  const { tests } = (await response.json()) as {
    tests: { rides: { entries: { id: string; body: Record<string, unknown> }[] }[] }[];
  };
  return tests[0]!.rides[0]!.entries;
}

test.beforeEach(async ({ page }) => {
  await page.goto("/settings");
  await page.getByRole("button", { name: "Miles and pounds" }).first().click();
});

test("a plan is started into its ride", async ({ page }) => {
  await page.goto("/ride");
  await page.getByRole("button", { name: "Start How far with the child on" }).click();
  await expect(page.getByRole("heading", { name: "Start readings" })).toBeVisible();
  address = new URL(page.url()).pathname;
  await ready(page);
  await expectAccessible(page);
  await expectNoSideways(page);
  await page.getByLabel("Percent").fill("140");
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.getByText("Percent runs from 0 to 100.")).toBeVisible();
  await page.getByLabel("Percent").fill("100");
  await page.getByLabel("Distance").fill("0");
  await page.getByLabel("The charger said done").check();
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(entries(page)).toHaveCount(1);
  await expect(entries(page).first()).toContainText("full 0mi 100%");
  await expect(kept(page)).toBeVisible();
});

test("a check-in is three taps and digits, and the forecast answers", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByRole("button", { name: "Check-in" }).click();
  await page.getByLabel("Distance").fill("5.2");
  await page.getByLabel("Percent").fill("82");
  await page.getByRole("button", { name: "Save" }).first().click();
  await expect(page.getByRole("region", { name: "What is left" })).toContainText(/8\d % ± \d/);
  await expect(page.getByText(/Home is 5\.\d mi from here/)).toBeVisible();
  await expectAccessible(page);
});

test("day and dusk are read at seven to one, and dusk is kept with no word to the server", async ({
  page,
}) => {
  await page.goto(address);
  await ready(page);
  await page.getByRole("button", { name: "Check-in" }).click();
  await expectStrongContrast(page);
  const dusk = page.locator(".field-page").getByRole("button", { name: "Dusk" });
  await dusk.click();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dusk");
  await expectStrongContrast(page);
  await page.reload();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "dusk");
  await expectAccessible(page);
  await page.locator(".field-page").getByRole("button", { name: "Day" }).click();
  await expect(page.locator("html")).toHaveAttribute("data-theme", "day");
});

test("the screen is kept awake while a ride is open", async ({ page }) => {
  await page.addInitScript(() => {
    const asked: string[] = [];
    Object.assign(window, { asked });
    Object.defineProperty(navigator, "wakeLock", {
      value: {
        request: (kind: string) => {
          asked.push(kind);
          return Promise.resolve({ release: () => Promise.resolve() });
        },
      },
    });
  });
  await page.goto(address);
  await expect
    .poll(() => page.evaluate(() => (window as unknown as { asked: string[] }).asked))
    .toEqual(["screen"]);
});

test("what is held constant is ticked into the log", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByText(/^Held constant: \d of \d to see to/).click();
  const tick = page.locator("details").getByRole("button", { name: "Tyre pressure" });
  await tick.click();
  await expect(tick).toHaveAttribute("aria-pressed", "true");
  await expect(entries(page).first()).toContainText('"Held: Tyre pressure"');
  await page.getByRole("button", { name: 'Strike "Held: Tyre pressure"' }).click();
  await expect(tick).toHaveAttribute("aria-pressed", "false");
});

test("the phone's bar holds the day's stations, the rest is under More", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByRole("button", { name: "More" }).click();
  await expect(page.getByRole("menuitem")).toHaveText(["Bikes", "Compare", "Sheet", "Settings"]);
  await page.getByRole("menuitem", { name: "Compare" }).click();
  await expect(page.getByRole("heading", { name: "Compare" })).toBeVisible();
});

test("the line shows what it understood and what it did not, before it is kept", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  const line = page.getByLabel("The line");
  await line.fill('8.1mi 74% L3 #gravel gusty "by the sluice"');
  const read = page.locator("#line-read");
  await expect(read).toContainText("74% percent");
  await expect(read).toContainText("#gravel fine gravel");
  await expect(read).toContainText("gusty kept as a note");
  await line.press("Enter");
  await expect(entries(page).first()).toContainText('8.1mi 74% L3 #fine-gravel "by the sluice gusty"');
  await expect(page.getByText("Kept without a time: nobody rides that far")).toBeVisible();
  await expect(page.getByRole("button", { name: "Level" })).toContainText("high");
  await line.fill("140%");
  await line.press("Enter");
  await expect(page.getByText("Percent runs from 0 to 100.")).toBeVisible();
  await expect(line).toHaveValue("140%");
});

test("level, ground, stop and go are taps; keys do the same", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByRole("button", { name: "Level" }).click();
  await page.getByRole("button", { name: "low", exact: true }).click();
  await expect(page.getByRole("button", { name: "Level" })).toContainText("low");
  await page.getByRole("button", { name: /^Stop/ }).click();
  await expect(page.getByRole("button", { name: /^Go/ })).toBeVisible();
  await page.keyboard.press("s");
  await expect(page.getByRole("button", { name: /^Stop/ })).toBeVisible();
  await page.keyboard.press("2");
  await expect(page.getByRole("button", { name: "Level" })).toContainText("mid");
  await expect(kept(page)).toBeVisible();
});

test("an entry is struck, restored and corrected; nothing is removed", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByRole("button", { name: /^Strike 8\.1mi/ }).click();
  const restore = page.getByRole("button", { name: /^Restore 8\.1mi/ });
  await expect(restore).toBeVisible();
  await restore.click();
  await page.getByRole("button", { name: /^Correct 8\.1mi/ }).click();
  await page.getByLabel("The line, corrected").fill("8.4mi 74% L3");
  await page.getByLabel("The line, corrected").press("Enter");
  await expect(entries(page).filter({ hasText: "8.4mi 74% L3" })).toBeVisible();
  await expect(entries(page).filter({ hasText: "8.1mi" })).toHaveCount(0);
  await expect(kept(page)).toBeVisible();
  expect((await onServer(page)).some(({ body }) => body["note"] === "by the sluice gusty")).toBe(true);
});

test("with no network entries wait, survive a closed page, and go out once", async ({ page, context }) => {
  await page.goto(address);
  await ready(page);
  const before = (await onServer(page)).length;
  await page.route("**/entries", (route) => {
    batch = route.request().postData() ?? "";
    return route.abort();
  });
  const line = page.getByLabel("The line");
  for (let i = 1; i <= 5; i += 1) {
    await line.fill(`${9 + i}mi ${74 - 3 * i}%`);
    await line.press("Enter");
    await expect(entries(page).first()).toContainText(`${9 + i}mi`);
  }
  await expect(page.getByText("5 entries wait to be sent.")).toBeVisible();
  expect(await onServer(page)).toHaveLength(before);
  await page.close();
  const again = await context.newPage();
  await again.goto(address);
  await expect(entries(again).first()).toContainText("14mi");
  await expect(kept(again)).toBeVisible();
  const log = await onServer(again);
  expect(log).toHaveLength(before + 5);
  expect(new Set(log.map(({ id }) => id)).size).toBe(log.length);
});

test("a batch that comes twice is kept once; one that is not this ride's is refused", async ({ page }) => {
  await page.goto(address);
  const log = await onServer(page);
  const headers = { origin: new URL(page.url()).origin, "content-type": "application/json" };
  const post = (data: string) => page.request.post(`${address}/entries`, { data, headers });
  expect((await post(batch)).ok()).toBe(true);
  expect((await post(batch)).ok()).toBe(true);
  expect(await onServer(page)).toHaveLength(log.length);
  expect((await post("{}")).status()).toBe(400);
  const elsewhere = { ...(JSON.parse(batch) as object), rideId: "019a0000-0000-7000-8000-000000000000" };
  expect((await post(JSON.stringify(elsewhere))).status()).toBe(404);
});

test("a percent that rises is asked about at once, and a tap answers", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  const log = async (line: string) => {
    await page.getByLabel("The line").fill(line);
    await page.getByLabel("The line").press("Enter");
  };
  await log("14.2mi 62%");
  const question = page.getByText("62 % after 59 %? A rebound, a typing slip, or charged?");
  await expect(question).toBeVisible();
  await page.getByRole("button", { name: "Rebound" }).click();
  await expect(question).toBeHidden();
  await expect(entries(page).first()).toContainText('"Rebound: 62 % after 59 %"');
  await log("14.4mi 91%");
  await expect(page.getByText("91 % after 62 %?")).toBeVisible();
  await page.getByRole("button", { name: "Typing slip" }).click();
  await expect(page.getByText("91 % after 62 %?")).toBeHidden();
  await log("1.44mi 61%");
  await expect(page.getByText(/1\.4 mi after 14\.4 mi\? A typing slip\?/)).toBeVisible();
  await page.getByRole("button", { name: "Strike it" }).click();
  await expect(page.getByText(/A typing slip\? Correct it below/)).toBeHidden();
  await expect(kept(page)).toBeVisible();
});

test("a press stays its button's though figures move it from under the thumb", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  const note = page.getByRole("button", { name: "Note", exact: true });
  await note.scrollIntoViewIfNeeded();
  const box = (await note.boundingBox())!;
  await page.mouse.move(box.x + 10, box.y + 5);
  await page.mouse.down();
  const left = page.getByRole("region", { name: "What is left" });
  await left.evaluate((part) => (part.style.paddingBottom = "120px"));
  await page.mouse.up();
  await expect(page.getByRole("textbox", { name: "Note" })).toBeVisible();
});

test("a browser that keeps nothing says so before the ride", async ({ page }) => {
  await page.addInitScript(() => {
    Object.defineProperty(window, "indexedDB", {
      value: {
        open: () => {
          throw new DOMException("refused", "SecurityError");
        },
      },
    });
  });
  await page.goto(address);
  await expect(page.getByRole("alert").filter({ hasText: "This browser keeps nothing" })).toBeVisible();
});

test("a browser whose storage is nearly full says so before the ride", async ({ page }) => {
  await page.addInitScript(() => {
    navigator.storage.estimate = () => Promise.resolve({ quota: 10_000_000, usage: 9_000_000 });
  });
  await page.goto(address);
  await expect(page.getByRole("alert").filter({ hasText: "storage is nearly full" })).toBeVisible();
});

test("the turn-round is told when it is due", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByLabel("The line").fill("15mi 24%");
  await page.getByLabel("The line").press("Enter");
  await expect(page.getByText(/as planned|than planned by here/i)).toBeVisible();
  await expect(page.getByRole("alert")).toContainText(/Go home now, on along the course, 11\.\d mi/);
  await expect(kept(page)).toBeVisible();
});

test("wind, pace and levels say why, and the display's guess is set beside the ledger", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByLabel("The line").fill("15.2mi 24% ~40mi left wind 22mph");
  await page.getByLabel("The line").press("Enter");
  await expect(page.getByText(/A wind of 22 mph, not the \d+ mph planned,/i)).toBeVisible();
  await expect(
    page.getByText(/The display says 40 mi left; the ledger says .* Go by the ledger\./),
  ).toBeVisible();
  // The next test goes on from what the server holds.
  await expect(kept(page)).toBeVisible();
});

test("a test takes another ride on the same charge, each at its address", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByRole("button", { name: "Another ride on this charge" }).click();
  await expect(page.getByRole("heading", { name: "Start readings" })).toBeVisible();
  await page.getByLabel("Distance").fill("0");
  await page.getByLabel("Percent").fill("24");
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(entries(page)).toHaveCount(1);
  await page.getByRole("link", { name: "Ride 1" }).click();
  await expect(entries(page).first()).toContainText("15.2mi");
  await page.getByRole("link", { name: "Ride 2" }).click();
  await expect(entries(page)).toHaveCount(1);
});

test("the end comes from the plan's list, and the ride leaves the list", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByRole("button", { name: "End the test" }).click();
  await page.getByRole("button", { name: "stopped by choice" }).click();
  await expect(entries(page).first()).toContainText("end");
  await expect(kept(page)).toBeVisible();
  await page.goto("/ride");
  await expect(page.getByRole("link", { name: "How far with the child on", exact: true })).toBeHidden();
});
