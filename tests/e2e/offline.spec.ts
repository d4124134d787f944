import { spawn } from "node:child_process";
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium, expect, type BrowserContext, type Page } from "@playwright/test";
import { CHROMIUM_FLAGS } from "../../command/throwaway";
import { ready, test } from "./watched";

/** A ride with the network truly cut: opened, logged, forecast, killed and opened again, and at last brought home. */
test.describe.configure({ mode: "serial" });
test.use({ viewport: { width: 390, height: 844 }, serviceWorkers: "allow" });

let address = "";
let made = 0;

const entries = (page: Page) => page.getByRole("list", { name: "Last entries" }).getByRole("listitem");
const kept = (page: Page) => page.getByText("Every entry is kept.");
const waiting = (page: Page, count: number) => page.getByText(`${count} entries wait to be sent.`);

interface Held {
  readonly id: string;
  readonly body: Record<string, unknown>;
  readonly at: string | null;
  readonly clockOffsetS?: number;
}

async function onServer(page: Page): Promise<readonly Held[]> {
  const response = await page.request.get(`${address.replace("/ride/", "/strip/")}/record`);
  const { tests } = (await response.json()) as { tests: { rides: { entries: Held[] }[] }[] };
  return tests[0]!.rides[0]!.entries;
}

async function log(page: Page, line: string): Promise<void> {
  await page.getByLabel("The line").fill(line);
  await page.getByLabel("The line").press("Enter");
  await expect(page.getByLabel("The line")).toHaveValue("");
}

/** Until the service worker runs the page and has put by what the ride needs. */
async function putBy(page: Page): Promise<void> {
  await page.evaluate(async (path) => {
    await navigator.serviceWorker.ready;
    for (;;) {
      const [pages, records] = await Promise.all([caches.open("pages"), caches.open("records")]);
      const record = `${path.replace("/ride/", "/strip/")}/record`;
      if ((await pages.match(path)) && (await records.match(record)) && navigator.serviceWorker.controller)
        return;
      await new Promise((resolve) => setTimeout(resolve, 50));
    }
  }, address);
}

/** Starts the first plan that waits and notes its start, with the network there. */
async function begin(page: Page): Promise<void> {
  await page.goto("/plan");
  await page.goto("/ride");
  await page.getByRole("button", { name: "Start What winter tyres cost" }).first().click();
  await expect(page.getByRole("heading", { name: "Start readings" })).toBeVisible();
  address = new URL(page.url()).pathname;
  await ready(page);
  await log(page, "full 0mi 100%");
  await expect(kept(page)).toBeVisible();
  await putBy(page);
  await expect(page.getByText("Ready to leave: this page works with no network.")).toBeVisible();
  made = 1;
}

const count = (page: Page, from: number, many: number) =>
  (async () => {
    for (let i = from; i < from + many; i += 1) {
      await log(page, `${(0.8 * i).toFixed(1)}mi ${100 - 2 * i}%`);
      await expect(entries(page).first()).toContainText(`${(0.8 * i).toFixed(1)}mi`.replace(".0mi", "mi"));
    }
    made += many;
  })();

test("with the network cut a ride is logged and forecast, over a closed page and a fresh tab, and comes home once", async ({
  page,
  context,
}) => {
  await begin(page);
  await context.setOffline(true);
  await count(page, 1, 8);
  await expect(waiting(page, 8)).toBeVisible();
  await expect(page.getByRole("region", { name: "What is left" })).toContainText(/8\d % ± \d/);
  await page.reload();
  await expect(waiting(page, 8)).toBeVisible();
  await count(page, 9, 6);
  await page.close();

  const fresh = await context.newPage();
  await fresh.goto(address);
  await expect(waiting(fresh, 14)).toBeVisible();
  await count(fresh, 15, 6);
  await expect(waiting(fresh, 20)).toBeVisible();
  await expect(fresh.getByRole("region", { name: "What is left" })).toContainText(/[56]\d % ± \d/);
  await expect(fresh.getByText(/Home is|Go home now|Turn within/)).toBeVisible();
  await fresh.goto("/ride");
  await fresh.goto("/compare");
  await expect(fresh.getByRole("heading", { name: "No network" })).toBeVisible();
  await fresh.goto(address);

  await context.setOffline(false);
  await expect(kept(fresh)).toBeVisible();
  const held = await onServer(fresh);
  expect(held).toHaveLength(made);
  expect(new Set(held.map(({ id }) => id)).size).toBe(made);
  expect(held.slice(1).map(({ body }) => body["percent"])).toEqual(
    Array.from({ length: 20 }, (_, i) => 98 - 2 * i),
  );
});

test("a page that is a kept copy says so, and shows what was done meanwhile as soon as the desk answers", async ({
  page,
  browser,
  baseURL,
}) => {
  const copy = page.getByText("The desk does not answer: this page is as it was last seen here");
  await page.goto(address);
  await putBy(page);
  await page.goto("/ride");
  await ready(page);
  const name = await page
    .getByRole("button", { name: /^Start / })
    .first()
    .getAttribute("aria-label");
  const begun = page.getByRole("link", { name: name!.replace("Start ", ""), exact: true });
  await expect(copy).toBeHidden();
  await page.context().setOffline(true);
  await page.reload();
  await expect(copy).toBeVisible();
  const other = await browser.newContext({ ...(baseURL && { baseURL }), serviceWorkers: "block" });
  const second = await other.newPage();
  await second.goto("/ride");
  await second.getByRole("button", { name: name!, exact: true }).click();
  await expect(second.getByRole("heading", { name: "Start readings" })).toBeVisible();
  await other.close();
  await page.context().setOffline(false);
  await expect(copy).toBeHidden();
  await expect(begun).toBeVisible();
});

test("two phones log one ride: both show all, in the order of time", async ({ page, browser, baseURL }) => {
  const other: BrowserContext = await browser.newContext({ ...(baseURL && { baseURL }) });
  const second = await other.newPage();
  await page.goto(address);
  await second.goto(address);
  await expect(kept(page)).toBeVisible();
  await expect(kept(second)).toBeVisible();
  await page.context().setOffline(true);
  await log(page, "59%");
  await log(second, "58%");
  await log(page, '57% "first phone"');
  await page.context().setOffline(false);
  await expect(kept(page)).toBeVisible();
  for (const each of [page, second]) {
    await each.reload();
    await expect(entries(each).nth(0)).toContainText("57%");
    await expect(entries(each).nth(1)).toContainText("58%");
    await expect(entries(each).nth(2)).toContainText("59%");
  }
  await expect(entries(page).nth(1)).toContainText("other phone");
  await expect(entries(page).nth(0)).not.toContainText("other phone");
  await expect(entries(second).nth(0)).toContainText("other phone");
  await other.close();
});

test("a phone whose clock is an hour slow is told, and its times are put right", async ({
  browser,
  baseURL,
}) => {
  const slow = await browser.newContext({ ...(baseURL && { baseURL }) });
  const page = await slow.newPage();
  await page.addInitScript(() => {
    const hour = 3_600_000;
    const now = Date.now.bind(Date);
    Date.now = () => now() - hour;
    const Real = Date;

    Date = new Proxy(Real, {
      construct: (target, given: unknown[]) =>
        given.length === 0 ? new target(now() - hour) : Reflect.construct(target, given),
    });
  });
  await page.goto(address);
  await expect(page.getByText("This clock is 60 minutes behind the desk's.")).toBeVisible();
  await log(page, '55% "slow clock"');
  await expect(kept(page)).toBeVisible();
  const entry = (await onServer(page)).find(({ body }) => body["note"] === "slow clock")!;
  expect(entry.clockOffsetS).toBeGreaterThan(3590);
  expect(entry.clockOffsetS).toBeLessThan(3610);
  expect(Math.abs(Date.parse(entry.at!) + entry.clockOffsetS! * 1000 - Date.now())).toBeLessThan(60_000);
  await page.reload();
  await expect(entries(page).first()).toContainText("55%");
  await slow.close();
});

test("a clock nobody checked before the sending is set against the server's at its receipt", async ({
  page,
}) => {
  await page.goto(address);
  const sending = page.waitForRequest((request) => request.method() === "POST");
  await log(page, '"still here"');
  const { rideId } = (await sending).postDataJSON() as { rideId: string };
  const ago = new Date(Date.now() + 7_200_000).toISOString();
  const id = "019a0000-0000-7000-8000-00000000beef";
  const body = { kind: "note", note: "two hours ahead" };
  const answer = await page.request.post(`${address}/entries`, {
    data: { rideId, sentAt: ago, entries: [{ id, seq: 1, at: ago, body, supersedes: null }] },
    headers: { origin: new URL(page.url()).origin },
  });
  expect(answer.ok()).toBe(true);
  expect((await onServer(page)).find((each) => each.id === id)!.clockOffsetS).toBeCloseTo(-7200, -1);
});

test("a browser killed in the middle of a ride with no network opens it again, with every entry", async ({
  baseURL,
}) => {
  const folder = mkdtempSync(join(tmpdir(), "barometron-browser-"));
  const start = async () => {
    const port = join(folder, "DevToolsActivePort");
    rmSync(port, { force: true });
    const child = spawn(
      process.env["CHROMIUM_WHOLE"] ?? "/usr/bin/chromium",
      [
        ...CHROMIUM_FLAGS,
        "--headless",
        "--remote-debugging-port=0",
        `--user-data-dir=${folder}`,
        "about:blank",
      ],
      // A group of its own: what it started ends with it, and writes nothing afterwards.
      { stdio: "ignore", detached: true },
    );
    const end = async () => {
      const gone = new Promise((resolve) => child.once("exit", resolve));
      process.kill(-child.pid!, "SIGKILL");
      await gone;
      await browser.close().catch(() => undefined);
    };
    while (!existsSync(port) || !readFileSync(port, "utf8").includes("\n"))
      await new Promise((resolve) => setTimeout(resolve, 50));
    const browser = await chromium.connectOverCDP(
      `http://127.0.0.1:${readFileSync(port, "utf8").split("\n")[0]}`,
    );
    const context = browser.contexts()[0]!;
    return { end, context, page: await context.newPage() };
  };
  const first = await start();
  await first.page.goto(`${baseURL}${address}`);
  await expect(kept(first.page)).toBeVisible();
  await putBy(first.page);
  await first.context.setOffline(true);
  await log(first.page, '18mi 52% "before the crash"');
  await log(first.page, "18.6mi 50%");
  await expect(waiting(first.page, 2)).toBeVisible();
  await first.end();

  const second = await start();
  await second.context.setOffline(true);
  await second.page.goto(`${baseURL}${address}`);
  await expect(waiting(second.page, 2)).toBeVisible();
  await expect(entries(second.page).first()).toContainText("18.6mi");
  await second.context.setOffline(false);
  await expect(kept(second.page)).toBeVisible();
  await second.end();
  rmSync(folder, { recursive: true, force: true, maxRetries: 20, retryDelay: 250 });
});

/** A newer version comes while a ride is open, and is taken up. */
async function takenUp(page: Page, older = "", before: () => Promise<unknown> = () => Promise.resolve()) {
  const worker = join(import.meta.dirname, "../../build/client/sw.js");
  const built = readFileSync(worker, "utf8");
  try {
    writeFileSync(worker, `${built}\n${older}`);
    await page.goto(address);
    await putBy(page);
    await ready(page);
    await before();
    writeFileSync(worker, `${built}\n// another version`);
    await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())!.update());
    const offer = page.getByRole("status").filter({ hasText: "A new version is ready." });
    await expect(offer).toBeVisible();
    await page.getByLabel("The line").fill("19mi 49%");
    await page.waitForTimeout(500);
    await expect(page.getByLabel("The line")).toHaveValue("19mi 49%");
    const loaded = page.waitForEvent("load");
    await page.getByRole("button", { name: "Take it up" }).click();
    await loaded;
    await expect(offer).toBeHidden();
    await expect(entries(page).first()).toContainText("18.6mi");
  } finally {
    writeFileSync(worker, built);
  }
}

test("a new version asks before it replaces an open ride, and the ride's entries stay", ({ page }) =>
  takenUp(page));

test("a new version comes though the older one never ends with a request", ({ page }) =>
  takenUp(
    page,
    `self.addEventListener("fetch", (event) => { if (event.request.url.endsWith("/never")) event.respondWith(new Promise(() => undefined)); });`,
    () => page.evaluate(() => void fetch("/never")),
  ));
