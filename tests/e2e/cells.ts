import type { Locator, Page } from "@playwright/test";

/** A cell of a table, be it the heading of its row or not. */
export const cell = (at: Page | Locator, options?: Parameters<Page["getByRole"]>[1]): Locator =>
  at.getByRole("cell", options).or(at.getByRole("rowheader", options));
