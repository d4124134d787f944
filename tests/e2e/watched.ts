import { test as base, expect, type Page } from "@playwright/test";
import { deskOf, endDesk } from "./desk";

interface Own {
  /** Address of the database behind the desk, for what no page can do. */
  readonly databaseUrl: string;
  readonly quiet: undefined;
}

/** What is reckoned gives way to all else: on a busy machine a figure comes late, ms. */
export const RECKONED_MS = 180_000;

/**
 * Tests on a desk of their file's own, whose pages may throw nothing: an error in the browser, such as a page drawn otherwise
 * by the server, fails them.
 */
export const test = base.extend<Own, { readonly ending: undefined }>({
  ending: [
    async ({}, use) => {
      await use(undefined);
      await endDesk();
    },
    { scope: "worker", auto: true },
  ],
  baseURL: async ({}, use, { file, parallelIndex }) => {
    await use((await deskOf(file, parallelIndex)).server.address);
  },
  databaseUrl: async ({}, use, { file, parallelIndex }) => {
    await use((await deskOf(file, parallelIndex)).url);
  },
  quiet: [
    async ({ page }, use) => {
      const errors: string[] = [];
      page.on("pageerror", ({ message }) => errors.push(message));
      await use(undefined);
      expect(errors).toEqual([]);
    },
    { auto: true },
  ],
});

/** Waits until the page's scripts run, nothing is being loaded, and no figure of it is still being reckoned. */
export async function ready(page: Page): Promise<void> {
  await page.locator("html[data-alive]").waitFor({ state: "attached" });
  await expect(page.locator("main[aria-busy='true'], [data-pending]")).toHaveCount(0, {
    timeout: RECKONED_MS,
  });
}
