import { defineConfig } from "@playwright/test";

/** What every change is tested by: the ways through the application that most people go. All else is run by `test --all`. */
const JOURNEYS = /(compare|firstHour|mainJob|offline|presses|ride|safety|shared|sheet)\.spec\.ts$/;

/**
 * Drives the production build in Debian's Chromium, two spec files at a time, each on a desk of its own. No wait leans on
 * the clock: the limits are for what hangs, and hold on a machine that is busy.
 */
export default defineConfig({
  testDir: ".",
  ...(process.env["E2E_MUCH"] === "change" ? { testMatch: JOURNEYS } : {}),
  outputDir: "../../test-results",
  workers: Number(process.env["E2E_WORKERS"] ?? 2),
  timeout: 300_000,
  expect: { timeout: 60_000 },
  reporter: [["list"], ["json"]],
  use: {
    viewport: { width: 1280, height: 800 },
    // Each test is a new browser: it would fetch the whole app anew to keep it. The tests without a network allow it.
    serviceWorkers: "block",
    launchOptions: {
      executablePath: process.env["CHROMIUM"] ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
});
