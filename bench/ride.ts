import { medianOf } from "#core/base";
import type { Browser, Page } from "@playwright/test";
import type { Report } from "./report.ts";

const ENTRIES = 15;
const LIMIT_MS = 100;
/** Displays a server streams at once, each at the highest clock, and for how long, ms. */
const STREAMS = 4;
const STREAM_MS = 6000;

interface Timed {
  readonly visibleMs: number;
  readonly forecastMs: number;
}

/** From the key that keeps a line to the entry on the page, drawn; and to the new forecast. */
async function logOnce(page: Page, line: string): Promise<Timed> {
  await page.getByLabel("The line").fill(line);
  await page.evaluate(() => {
    const timed = { from: 0, visible: 0, forecast: 0 };
    Object.assign(window, { timed });
    for (const [selector, name] of [
      ["[aria-label='Last entries'] li", "visible"],
      ["[aria-label='What is left']", "forecast"],
    ] as const) {
      const before = document.querySelector(selector)?.textContent;
      new MutationObserver((_changes, observer) => {
        if (document.querySelector(selector)?.textContent === before) return;
        observer.disconnect();
        requestAnimationFrame(() => {
          timed[name] = performance.now();
        });
      }).observe(document.body, { childList: true, subtree: true, characterData: true });
    }
    window.addEventListener("keydown", () => (timed.from ||= performance.now()), {
      capture: true,
      once: true,
    });
  });
  await page.keyboard.press("Enter");
  await page.waitForFunction(() => {
    const { timed } = window as unknown as { timed: { visible: number; forecast: number } };
    return timed.visible > 0 && timed.forecast > 0;
  });
  const { from, visible, forecast } = await page.evaluate(
    () => (window as unknown as { timed: { from: number; visible: number; forecast: number } }).timed,
  );
  return { visibleMs: visible - from, forecastMs: forecast - from };
}

/** A weak line, bytes a second and ms: 400 kbit/s, as at the edge of a cell. */
const WEAK = { bytesPerS: 50_000, latencyMs: 100 };

/** The first visit to a ride over a weak line: until its page is seen, and can be logged on; and until it is alive. */
export async function benchFirstVisit(report: Report, browser: Browser, address: string) {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    serviceWorkers: "block",
  });
  const page = await context.newPage();
  const network = await context.newCDPSession(page);
  await network.send("Network.enable");
  await network.send("Network.emulateNetworkConditions", {
    offline: false,
    latency: WEAK.latencyMs,
    downloadThroughput: WEAK.bytesPerS,
    uploadThroughput: WEAK.bytesPerS,
  });
  const from = performance.now();
  await page.goto(address, { waitUntil: "commit" });
  await page.locator("h1").waitFor();
  const seenMs = performance.now() - from;
  await page.locator("html[data-alive]").waitFor({ state: "attached" });
  const aliveMs = performance.now() - from;
  await context.close();
  return [
    report("first visit to a ride at 400 kbit/s: seen", seenMs, 3000),
    report("first visit to a ride at 400 kbit/s: alive", aliveMs, 8000),
  ];
}

/** Logging on Ride with no network, on a ride of so many marks: until the entry is seen, and until the forecast follows. */
export async function benchRide(report: Report, page: Page, address: string, marks: number) {
  await page.goto(address, { waitUntil: "networkidle" });
  await page.evaluate(() => navigator.serviceWorker.ready);
  await page.waitForTimeout(2000);
  await page.context().setOffline(true);
  const times: Timed[] = [];
  for (let i = 0; i < ENTRIES; i += 1)
    times.push(await logOnce(page, `${200 + i}mi ${Math.max(1, 20 - i)}%`));
  await page.context().setOffline(false);
  const visible = times.map(({ visibleMs }) => visibleMs);
  return [
    report(`ride of ${marks} marks, no network: key to entry seen`, medianOf(visible), LIMIT_MS),
    report(`ride of ${marks} marks, no network: the slowest of ${ENTRIES}`, Math.max(...visible), LIMIT_MS),
    report(
      `ride of ${marks} marks, no network: key to the new forecast`,
      medianOf(times.map(({ forecastMs }) => forecastMs)),
      500,
    ),
  ];
}

/** Several displays streamed at once at the highest clock: ride seconds to a second, and the server's heap. */
export async function benchStream(report: (line: string) => void, address: string): Promise<void> {
  globalThis.gc?.();
  const before = process.memoryUsage().heapUsed;
  const started = performance.now();
  let rows = 0;
  await Promise.all(
    Array.from({ length: STREAMS }, async () => {
      const stop = AbortSignal.timeout(STREAM_MS);
      const response = await fetch(`${address}/display?clock=600`, { signal: stop });
      const decoder = new TextDecoder();
      try {
        for await (const chunk of response.body!) rows += decoder.decode(chunk).split('"timeS"').length - 1;
      } catch {
        // The time is up.
      }
    }),
  );
  const seconds = (performance.now() - started) / 1000;
  globalThis.gc?.();
  const grown = (process.memoryUsage().heapUsed - before) / 1e6;
  report(
    `${STREAMS} displays at 600x: ${(rows / seconds / STREAMS).toFixed(0)} moments a second each, heap grown by ${grown.toFixed(1)} MB over ${rows} moments`,
  );
}
