import { defineConfig } from "@playwright/test";

/** Drives the production build in Debian's Chromium; the test command starts the server and names it in BASE_URL. */
export default defineConfig({
  testDir: ".",
  outputDir: "../../test-results",
  workers: 1,
  timeout: 45_000,
  reporter: [["list"], ["json"]],
  use: {
    baseURL: process.env["BASE_URL"] ?? "http://127.0.0.1:4180",
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
