import { expect, type BrowserContext, type Page } from "@playwright/test";
import { ready, test } from "./watched";

/** The interface under strain: networks that go, pages closed by mistake, keys alone, pages not yet alive. */

const NO_NETWORK = "No network: not saved yet, trying again.";
const said = (page: Page) => page.locator("p[role=status].sr-only");

/** What is read out from now on, sentence by sentence. */
async function listen(page: Page): Promise<() => Promise<readonly string[]>> {
  await page.evaluate(() => {
    const heard: string[] = [];
    Object.assign(window, { heard });
    const hear = () => {
      const text = document.querySelector("p[role=status].sr-only")?.textContent?.trim() ?? "";
      if (text && heard.at(-1) !== text) heard.push(text);
    };
    new MutationObserver(hear).observe(document.body, {
      subtree: true,
      childList: true,
      characterData: true,
    });
  });
  return () => page.evaluate(() => (window as unknown as { heard: string[] }).heard);
}

const cut = (context: BrowserContext, away: boolean) => context.setOffline(away);

test.describe("with no network", () => {
  test("a bike that is saved waits on its page, with all that was typed, and is made once", async ({
    page,
    context,
  }) => {
    await page.goto("/bikes/new");
    await ready(page);
    await page.getByLabel("Name", { exact: true }).fill("Levee Runner");
    await page.getByLabel(/^Assist levels/).fill("low, high");
    await cut(context, true);
    await page.getByRole("button", { name: "Save the bike" }).click();
    await expect(page.getByText(NO_NETWORK)).toBeVisible();
    await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Levee Runner");
    await cut(context, false);
    await expect(page.getByRole("heading", { name: "Levee Runner" })).toBeVisible();
    await expect(page.getByText(NO_NETWORK)).toHaveCount(0);
    await page.goto("/bikes");
    await expect(page.getByRole("link", { name: "Levee Runner" })).toHaveCount(1);
  });

  test("a save whose answer was lost is not made twice, and is nobody else's change", async ({ page }) => {
    await page.goto("/bikes/new");
    await ready(page);
    await page.getByLabel("Name", { exact: true }).fill("Twice Sent");
    await page.getByLabel(/^Assist levels/).fill("low");
    let lost = 0;
    await page.route(/\/bikes\/new\.data/, async (route) => {
      if (route.request().method() !== "POST" || lost) return route.continue();
      lost += 1;
      await route.fetch();
      await route.abort("connectionreset");
    });
    await page.getByRole("button", { name: "Save the bike" }).click();
    await expect(page.getByRole("heading", { name: "Twice Sent" })).toBeVisible();
    expect(lost).toBe(1);
    await page.goto("/bikes");
    await expect(page.getByRole("link", { name: "Twice Sent" })).toHaveCount(1);
  });

  test("a sweep's row typed at the roadside outlives the page that was closed", async ({ page, context }) => {
    await page.goto("/compare/sweeps");
    await page.getByRole("link", { name: "throttle by ground, still evening" }).click();
    await ready(page);
    const address = page.url();
    const speed = page.getByLabel(/^Speed, row/).last();
    await cut(context, true);
    await page
      .getByLabel(/^Level, row/)
      .last()
      .selectOption("throttle");
    await speed.fill("12");
    await page
      .getByLabel(/^Amps, row/)
      .last()
      .fill("3-4");
    await expect(page.getByText(NO_NETWORK)).toBeVisible();
    await page.close();
    await cut(context, false);
    const again = await context.newPage();
    await again.goto(address);
    await ready(again);
    await expect(again.getByText("saved as typed")).toBeVisible();
    await again.reload();
    await expect(again.locator('input[value="12 mph"]')).toHaveCount(1);
  });

  test("a page that cannot come leaves the one at hand, and another may be gone to", async ({
    page,
    context,
  }) => {
    await page.goto("/bikes");
    await ready(page);
    // The kind of page is known by then; what it shows is not.
    await page.getByRole("link", { name: "Pellam Step" }).first().click();
    await expect(page.getByRole("heading", { name: "Pellam Step" })).toBeVisible();
    await page.goBack();
    await expect(page.getByRole("heading", { name: "Bikes" })).toBeVisible();
    await cut(context, true);
    await page.getByRole("link", { name: "Brindlow 3" }).first().click();
    await expect(page.getByText("No network: the page comes when it is back.")).toBeVisible();
    await expect(page.getByRole("heading", { name: "Bikes" })).toBeVisible();
    await cut(context, false);
    await expect(page.getByRole("heading", { name: "Brindlow 3" })).toBeVisible();
  });
});

test.describe("what is typed and not saved", () => {
  test("is there again after the page was closed, until it is saved", async ({ page }) => {
    await page.goto("/bikes/riders/new");
    await ready(page);
    await page.getByLabel("Name", { exact: true }).fill("Odo");
    await page.reload();
    await expect(page.getByText("What you typed here before is back")).toBeVisible();
    await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Odo");
    await page.getByRole("button", { name: /^Save/ }).click();
    await expect(page).toHaveURL(/\/bikes\?changed/);
    // The page that was left lets go of what was typed once the next one stands.
    await ready(page);
    await page.goto("/bikes/riders/new");
    await ready(page);
    await expect(page.getByLabel("Name", { exact: true })).toHaveValue("");
  });

  test("is asked about before the page is left", async ({ page }) => {
    await page.goto("/bikes/riders/new");
    await ready(page);
    await page.getByLabel("Name", { exact: true }).fill("Nobody");
    await page
      .getByRole("navigation", { name: "Stations" })
      .first()
      .getByRole("link", { name: "Plan" })
      .click();
    const asked = page.getByRole("dialog", { name: "Leave without saving?" });
    await asked.getByRole("button", { name: "Stay" }).click();
    await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Nobody");
    await page
      .getByRole("navigation", { name: "Stations" })
      .first()
      .getByRole("link", { name: "Plan" })
      .click();
    await asked.getByRole("button", { name: "Leave it" }).click();
    await expect(page).toHaveURL(/\/plan$/);
    await page.goto("/bikes/riders/new");
    await ready(page);
    await expect(page.getByLabel("Name", { exact: true })).toHaveValue("");
  });
});

test.describe("by keys and by ear", () => {
  test("after going to a page its heading has the focus", async ({ page }) => {
    await page.goto("/");
    await ready(page);
    await page
      .getByRole("navigation", { name: "Stations" })
      .first()
      .getByRole("link", { name: "Compare" })
      .click();
    await expect(page.getByRole("heading", { level: 1 })).toContainText("Standings");
    await expect(page.getByRole("heading", { level: 1 })).toBeFocused();
  });

  test("letters are switched off in Settings", async ({ page }) => {
    await page.goto("/settings");
    await ready(page);
    await page.getByLabel(/^Single letters act/).uncheck();
    await page.getByRole("heading", { level: 1 }).click();
    await page.keyboard.press("?");
    await page.keyboard.press("g");
    await page.keyboard.press("1");
    await expect(page.getByRole("dialog")).toHaveCount(0);
    await expect(page).toHaveURL(/\/settings$/);
    await page.getByLabel(/^Single letters act/).check();
    await page.getByRole("heading", { level: 1 }).click();
    await page.keyboard.press("?");
    await expect(page.getByRole("dialog").getByRole("heading", { name: "Keys" })).toBeVisible();
  });

  test("seven keys on the line are told once, what was saved briefly, and nothing after a reload", async ({
    page,
  }) => {
    await page.goto("/ride");
    await page
      .getByRole("button", { name: /^Rehearse/ })
      .first()
      .click()
      .catch(() => undefined);
    await page.goto("/ride");
    await page
      .getByRole("button", { name: /^Start / })
      .first()
      .click();
    await ready(page);
    const heard = await listen(page);
    await page.getByLabel("The line").pressSequentially("full 0 mi", { delay: 20 });
    await expect.poll(async () => (await heard()).length).toBe(1);
    await page.getByLabel("The line").press("Enter");
    await expect
      .poll(async () => (await heard()).at(-1))
      .toMatch(/^Saved: .+Strike, first in Last entries, undoes it\.$/);
    for (const sentence of await heard()) expect(sentence.length).toBeLessThan(160);
    await page.reload();
    await ready(page);
    await expect(said(page)).toHaveText("");
  });

  test("a plan tells its chance in one sentence after a digit", async ({ page }) => {
    await page.goto("/plan");
    await page.getByRole("link", { name: "How far with the child on" }).first().click();
    await ready(page);
    const heard = await listen(page);
    await page.getByLabel("Laps").fill("1");
    await page.getByLabel("Air", { exact: true }).fill("31 F");
    await expect
      .poll(async () => (await heard()).filter((text) => /chance of home/.test(text)).length)
      .toBeGreaterThan(0);
    for (const sentence of await heard()) expect(sentence.length).toBeLessThan(120);
  });
});

test.describe("before the page is alive", () => {
  test("without script the start, a check-in and the line are logged", async ({ browser, baseURL }) => {
    const context = await browser.newContext({ baseURL: baseURL!, javaScriptEnabled: false });
    const page = await context.newPage();
    await page.goto("/ride");
    await page
      .getByRole("button", { name: /^Start / })
      .first()
      .click();
    // What stands for those without script is no text to the tool, which has script itself.
    await expect.poll(() => page.content()).toContain("Without script the start");
    await page.getByLabel("Distance", { exact: true }).fill("0");
    await page.getByLabel("Percent", { exact: true }).fill("100");
    await page.getByLabel("The charger said done").check();
    await page.getByRole("button", { name: "Start", exact: true }).click();
    const entries = page.getByRole("list", { name: "Last entries" }).getByRole("listitem");
    await expect(entries).toHaveCount(1);
    await page.getByLabel("The line").fill("4.2mi 88%");
    await page.getByLabel("The line").press("Enter");
    await expect(entries).toHaveCount(2);
    await expect(entries.first()).toContainText("4.2mi 88%");
    await page.getByLabel("The line").fill("99999mi");
    await page.getByLabel("The line").press("Enter");
    await expect(page.getByRole("alert")).toContainText("check the unit");
    await expect(entries).toHaveCount(2);
    await context.close();
  });

  test("what is typed on the line while scripts are still on their way is not swallowed", async ({
    page,
  }) => {
    await page.goto("/ride");
    await page
      .getByRole("button", { name: /^Start / })
      .first()
      .click();
    await expect(page.getByRole("heading", { name: "Start readings" })).toBeVisible();
    let release = () => undefined as void;
    const held = new Promise<void>((resolve) => (release = resolve));
    await page.route(/\/assets\/.*\.js$/, async (route) => {
      await held;
      await route.continue();
    });
    await page.goto(page.url(), { waitUntil: "commit" });
    await page.getByLabel("The line").fill("full 0 mi");
    release();
    await ready(page);
    await expect(page.getByLabel("The line")).toHaveValue("full 0 mi");
    await page.getByLabel("The line").press("Enter");
    await expect(page.getByRole("list", { name: "Last entries" }).getByRole("listitem")).toHaveCount(1);
  });
});

test("a page has one title, can be installed, and says what others made", async ({ page }) => {
  for (const path of ["/", "/bikes", "/compare", "/nowhere"]) {
    const html = await (await page.request.get(path)).text();
    expect(html.match(/<title/g)).toHaveLength(1);
  }
  const manifest = (await (await page.request.get("/manifest.webmanifest")).json()) as {
    icons: readonly { src: string; sizes: string }[];
  };
  for (const { src } of manifest.icons) expect((await page.request.get(src)).ok()).toBe(true);
  await page.goto("/settings");
  const href = await page.getByRole("link", { name: "third-party notices" }).getAttribute("href");
  const notices = await (await page.request.get(href!)).text();
  expect(notices).toContain("SIL OPEN FONT LICENSE");
  expect(notices).toContain("react-router");
});
