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
test("a test's figure is the same in the list, on its page, on the board as ridden, on Today, in a pair and on its report", async ({
  page,
}) => {
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

  // A report begun from the first test's page.
  const [[first, ofFirst]] = [...listed] as [[string, string]];
  await page.goto(first);
  await page.getByText("Export this test").click();
  await page.getByRole("button", { name: "Sheet of this test" }).click();
  const paper = page.getByRole("article");
  await expect(paper).toContainText("Wh/mi", { timeout: 60_000 });
  expect(((await paper.textContent()) ?? "").replaceAll(/\s/g, "")).toContain(`${ofFirst}Wh/mi`);

  // Today's list of the thriftiest, and a pair of the first two tests of the list.
  await page.goto("/");
  const least = page
    .getByRole("listitem")
    .filter({ has: page.getByRole("link") })
    .filter({ hasText: "Wh/mi" });
  expect(await least.count()).toBeGreaterThan(2);
  for (const row of await least.all()) {
    const to = await row.getByRole("link").first().getAttribute("href");
    const figure = await figureIn(row.locator(":scope > span").last());
    if (to && listed.has(to)) expect([to, figure]).toEqual([to, listed.get(to)]);
  }
  const [[a, ofA], [b, ofB]] = [...listed] as [[string, string], [string, string]];
  await page.goto(`/compare/pair?a=${a.replace("/strip/", "")}&b=${b.replace("/strip/", "")}`);
  const whole = page.getByRole("row", { name: /^(the whole|all runs)/ });
  await expect(whole).toBeVisible({ timeout: 60_000 });
  expect([
    await figureIn(whole.getByRole("cell").nth(1)),
    await figureIn(whole.getByRole("cell").nth(3)),
  ]).toEqual([ofA, ofB]);
});
