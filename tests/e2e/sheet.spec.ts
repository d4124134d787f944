import { readFileSync } from "node:fs";
import { expect, type Download, type Page } from "@playwright/test";
import { answer } from "#core/calc";
import { formatUncertain, type Estimate } from "#core/base";
import { expectAccessible } from "./accessible";
import { ready, test } from "./watched";

/** From a strip to what leaves the desk: a sheet composed, as files, published, taken back; cards and tables. */

const bytesOf = async (download: Download) => readFileSync(await download.path());

async function taken(page: Page, press: () => Promise<void>) {
  const [download] = await Promise.all([page.waitForEvent("download"), press()]);
  return { name: download.suggestedFilename(), bytes: await bytesOf(download) };
}

/** What calc answers of a bundle of one test. */
interface Answered {
  readonly tests: readonly [{ readonly best: { readonly value: Estimate } }];
}

const paper = (page: Page) => page.getByRole("article");

/** The sheet of a test, begun from its strip. */
async function sheetOf(page: Page, title: string) {
  await page.goto("/strip");
  await page.getByRole("link", { name: title }).click();
  await ready(page);
  await page.getByText("Export this test").click();
  await page.getByRole("button", { name: "Sheet of this test" }).click();
  await expect(page.getByRole("heading", { level: 1, name: /^Sheet: / })).toBeVisible();
  await ready(page);
}

test("a sheet is written from the log, cut and added to, and leaves as PDF, HTML and text", async ({
  page,
  browser,
}) => {
  await sheetOf(page, "run-down on two levels");
  await expect(paper(page)).toContainText(
    "A run-down: one charge, ridden on, from a full charge until the pack cut off.",
  );
  await expect(paper(page)).toContainText("One reading stands in question");
  await expectAccessible(page);
  await page.getByRole("checkbox", { name: "By level and ground" }).uncheck();
  await page
    .getByRole("textbox", { name: "Own words" })
    .fill("The *saddle* creaked from mile 9.\n\n<script>alert(1)</script>");
  await page.getByLabel("Title").fill("Levee / run: 2 <levels> №1");
  await expect(paper(page).getByText("By level and ground")).toHaveCount(0);
  await expect(paper(page).locator("em", { hasText: "saddle" })).toBeVisible();
  await expect(paper(page)).toContainText("<script>alert(1)</script>");
  await page.getByText("Sort the remarks").click();
  await page.getByLabel(/stopped at the sluice/).selectOption("comfort");
  await expect(paper(page).getByText("Comfort")).toBeVisible();
  await page.getByLabel("Address of the page").fill("levee");
  await expect(page.getByText("An address begins with https://")).toBeVisible();
  await page.getByLabel("Address of the page").fill("https://tests.example/levee");
  await expect(page.getByRole("img", { name: "Code of https://tests.example/levee" })).toBeVisible();
  const pdf = await taken(page, () => page.getByRole("link", { name: "PDF" }).click());
  expect(pdf.name).toBe("Levee-run-2-levels-1.pdf");
  expect(pdf.bytes.subarray(0, 5).toString()).toBe("%PDF-");
  const text = await taken(page, () => page.getByRole("link", { name: "Text, Markdown" }).click());
  expect(text.bytes.toString()).toContain("# Levee / run: 2 <levels> №1");
  const html = await taken(page, () => page.getByRole("link", { name: "One HTML file" }).click());
  const alone = await browser.newContext({ javaScriptEnabled: false, offline: true });
  const shown = await alone.newPage();
  await shown.setContent(html.bytes.toString());
  await expect(shown.getByRole("heading", { name: "Levee / run: 2 <levels> №1" })).toBeVisible();
  await expect(shown.getByRole("img", { name: /^Energy left along the way/ })).toBeVisible();
  expect(html.bytes.toString()).not.toMatch(/<script|src="http|url\(http/);
  await alone.close();
});

test("a published sheet keeps its figures, says what has changed since, and is taken back", async ({
  page,
}) => {
  await sheetOf(page, "levee run-down");
  await page.getByRole("button", { name: "Publish" }).click();
  await expect(page.getByText(/^Edition 1, published .+ It keeps its figures\.$/)).toBeVisible();
  await expect(page.getByText("Nothing has changed since")).toBeVisible();
  await expectAccessible(page);
  const edition = new URL(page.url()).pathname;
  const bundle = await taken(page, () => page.getByRole("link", { name: "The data, a bundle" }).click());
  const { value: answered } = answer(JSON.parse(bundle.bytes.toString())) as { readonly value: Answered };
  const figure = formatUncertain(answered.tests[0].best.value, "energyPerDistance", "imperial");
  await expect(paper(page)).toContainText(figure);
  const before = await paper(page)
    .getByText(/Wh\/mi/)
    .first()
    .textContent();
  await page.goto("/strip");
  await page.getByRole("link", { name: "levee run-down" }).click();
  await ready(page);
  const kept = page.waitForResponse((answer) => answer.request().method() === "POST");
  await page
    .getByRole("button", { name: /^Set aside \d+ %/ })
    .nth(1)
    .click();
  await kept;
  await page.goto(edition);
  await expect(page.getByText(/Said now: .*One reading was set aside/)).toBeVisible();
  expect(
    await paper(page)
      .getByText(/Wh\/mi/)
      .first()
      .textContent(),
  ).toBe(before);
  await page.getByRole("link", { name: "The sheet as it is now" }).click();
  await expect(page.getByText("the desk has changed since")).toBeVisible();
  await page.getByRole("button", { name: "Take back edition 1" }).click();
  await expect(page.getByText("taken back")).toBeVisible();
  expect((await page.request.get(`${edition}/pdf`)).status()).toBe(410);
  await page.getByRole("button", { name: "Let stand again edition 1" }).click();
  await expect(page.getByRole("button", { name: "Take back edition 1" })).toBeVisible();
});

/** A picture of four by four pixels, as a file. */
const PIXELS = Buffer.from(
  "iVBORw0KGgoAAAANSUhEUgAAAAQAAAAECAIAAAAmkwkpAAAAEElEQVR4nGP4z8AARwzEcQCukw/x0F8jngAAAABJRU5ErkJggg==",
  "base64",
);

test("photographs stand on the sheet with their captions, and inside its one file", async ({ page }) => {
  await sheetOf(page, "levee run-down");
  await page.getByRole("link", { name: "Photographs" }).click();
  await ready(page);
  await page
    .getByLabel("Photograph")
    .setInputFiles({ name: "saddle.png", mimeType: "image/png", buffer: PIXELS });
  await page.getByLabel("Caption").fill("The saddle, mile 9");
  await page.getByRole("button", { name: "Add it" }).click();
  await expect(page.getByRole("img", { name: "The saddle, mile 9" })).toBeVisible();
  await expectAccessible(page);
  await page
    .getByLabel("Photograph")
    .setInputFiles({ name: "notes.jpg", mimeType: "text/plain", buffer: Buffer.from("no picture") });
  await page.getByRole("button", { name: "Add it" }).click();
  await expect(
    page.getByText("This is no photograph that pages show: choose a JPEG or PNG file."),
  ).toBeVisible();
  await page.getByRole("link", { name: "Back to the sheet" }).click();
  await expect(paper(page).getByRole("img", { name: "The saddle, mile 9" })).toBeVisible();
  const html = await taken(page, () => page.getByRole("link", { name: "One HTML file" }).click());
  expect(html.bytes.toString()).toMatch(/<img src="data:image\/(png|jpeg);base64,/);
  const pdf = await taken(page, () => page.getByRole("link", { name: "PDF" }).click());
  expect(pdf.bytes.subarray(0, 5).toString()).toBe("%PDF-");
  await page.getByRole("link", { name: "Photographs" }).click();
  await page.getByRole("button", { name: "Take off The saddle, mile 9" }).click();
  await expect(page.getByRole("img", { name: "The saddle, mile 9" })).toHaveCount(0);
});

test("a comparison and a pack's page come from the list; a bench's reading stands first", async ({
  page,
}) => {
  await page.goto("/sheet");
  await ready(page);
  await expectAccessible(page);
  await page.getByRole("button", { name: "New sheet: Of a bench test, for its owner" }).click();
  await expect(paper(page)).toContainText("The tester showed");
  await expect(paper(page)).toContainText(/Took\s*\d+:\d\d h/);
  await page
    .getByRole("navigation", { name: "Stations" })
    .first()
    .getByRole("link", { name: "Sheet" })
    .click();
  await page.getByRole("button", { name: "New sheet: Of the desk, compared" }).click();
  await expect(paper(page).getByRole("table", { name: "Standings under House" })).toBeVisible();
  const tests = await page.getByLabel("One").locator("option").allTextContents();
  await ready(page);
  await page.getByLabel("One").selectOption(tests.find((name) => name.includes("town level"))!);
  await page.getByLabel("The other").selectOption(tests.find((name) => name.includes("winter tyres"))!);
  await expect(paper(page)).toContainText(/ used less: \d+ in 100\./);
  await expect(paper(page)).toContainText("claimed");
});

test("cards leave as pictures of the size films have; what cannot be drawn is said", async ({ page }) => {
  await page.goto("/compare?under=House");
  await ready(page);
  await page.getByText("Tables and charts of this page, as files").click();
  const csv = await taken(page, () => page.getByRole("button", { name: /^CSV of Standings/ }).click());
  expect(csv.bytes.toString()).toContain("Brindlow 3");
  const svg = await taken(page, () => page.getByRole("button", { name: /^SVG of / }).click());
  expect(svg.bytes.toString()).not.toMatch(/var\(--/);
  const chart = await taken(page, () => page.getByRole("button", { name: /^PNG of / }).click());
  expect(chart.bytes.subarray(1, 4).toString()).toBe("PNG");
  await page.getByRole("link", { name: "Standings", exact: true }).last().click();
  await expect(page.getByRole("heading", { name: "Card of the standings" })).toBeVisible();
  await page.getByLabel("Standing, 1080 × 1920").check();
  await page.getByLabel("see-through, over a film").check();
  await expect(page).toHaveURL(/size=tall.*theme=transparent|theme=transparent.*size=tall/);
  await expectAccessible(page);
  const card = await taken(page, () => page.getByRole("link", { name: "PNG" }).click());
  expect([card.bytes.readUInt32BE(16), card.bytes.readUInt32BE(20)]).toEqual([1080, 1920]);
  const refused = await page.request.get("/sheet/cards/climbs/png?hill=nowhere");
  expect(refused.status()).toBe(422);
  expect(await refused.text()).toContain("Nobody noted a run up this hill.");
  await page.goto("/sheet/cards/headline?test=019a0000-0000-7000-8000-00000000ffff");
  await expect(page.getByText("There is no such test.")).toBeVisible();
});

test("only charts of pages become pictures", async ({ page }) => {
  await page.goto("/sheet");
  const sent = (data: string, width = 400) =>
    page.request.post(`/sheet/picture?width=${width}`, {
      data,
      headers: { "content-type": "image/svg+xml", origin: new URL(page.url()).origin },
    });
  const good = `<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><path d="M0 0H9"/></svg>`;
  expect((await sent(good)).status()).toBe(200);
  for (const bad of [
    "hello",
    good.replace("<path", `<image href="/etc/passwd"/><path`),
    `<!DOCTYPE x>${good}`,
    "<svg",
    good.replace("M0", 'M0" style="fill:url(http://x)'),
  ])
    expect((await sent(bad)).status()).toBe(400);
  expect((await sent(good, 90_000)).status()).toBe(400);
});
