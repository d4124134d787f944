import { test as base, expect } from "@playwright/test";

/** Tests whose pages may throw nothing: an error in the browser, such as a page drawn otherwise by the server, fails them. */
export const test = base.extend<{ quiet: undefined }>({
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
