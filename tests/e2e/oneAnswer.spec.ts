import { expect, type Locator } from "@playwright/test";
import { test } from "./watched";

/** A figure as it is written, "13.9 ± 1.7 Wh/mi" or "9 (4 to 19) Wh/mi", without what only a screen reader hears. */
async function figureIn(at: Locator): Promise<string> {
  const text = (await at.textContent()) ?? "";
  return (
    /(?:under )?\d[\d.,]*\s*(?:± [\d.,]+|\([\d.,]+ to [\d.,]+\))?/.exec(text)?.[0].replaceAll(/\s/g, "") ?? ""
  );
}

/** Every test of the desk by its address, with its figure as the list has it. */
test("a test's figure is the same in the list, on its page and on the board as ridden", async ({ page }) => {
  await page.goto("/strip");
  const rows = page
    .getByRole("table")
    .getByRole("row")
    .filter({ has: page.getByRole("rowheader") });
  const listed = new Map<string, string>();
  for (const row of await rows.all()) {
    const to = await row.getByRole("link").first().getAttribute("href");
    const figure = await figureIn(row.getByRole("cell").last());
    if (to && figure) listed.set(to, figure);
  }
  expect(listed.size).toBeGreaterThan(5);

  await page.goto("/compare?under=&by=test");
  const board = page
    .getByRole("main")
    .getByRole("listitem")
    .filter({ has: page.getByRole("checkbox") });
  await expect(board.first()).toBeVisible();
  const onBoard = new Map<string, string>();
  for (const row of await board.all()) {
    const to = await row.getByRole("link").first().getAttribute("href");
    if (to) onBoard.set(to, await figureIn(row.locator("b").last().locator("..")));
  }
  for (const [to, figure] of onBoard)
    if (to.startsWith("/strip/")) expect([to, figure]).toEqual([to, listed.get(to)]);

  for (const [to, figure] of listed) {
    await page.goto(to);
    const ledger = page.getByRole("region", { name: "Ledger" });
    await expect(ledger).toHaveAttribute("aria-busy", "false");
    const best = await figureIn(ledger.locator(".text-5xl").locator(".."));
    expect([to, best]).toEqual([to, figure]);
  }
});
