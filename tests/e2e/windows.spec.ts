import { expect, type Page } from "@playwright/test";
import { expectAccessible, expectNoSideways } from "./accessible";
import { everyPage } from "./everyPage";
import { ready, test } from "./watched";

/** The looks of every page: narrow windows, large type, strong colours, fingers, paper, other languages. */

/** A look at one page as it stands: what is wrong there. */
type Look = (page: Page) => Promise<readonly string[]>;

/** Found once: the desk stays as it is between the walks. */
let paths: readonly string[] = [];

/** Goes to every kind of page, with all its folds open, and gathers what is wrong there. */
async function onEveryPage(page: Page, look: Look): Promise<readonly string[]> {
  const wrong: string[] = [];
  if (paths.length === 0) paths = await everyPage(page);
  expect(paths.length).toBeGreaterThan(35);
  for (const path of paths) {
    await page.goto(path);
    await page.locator("html[data-alive]").waitFor({ state: "attached" });
    await page.evaluate(() => document.querySelectorAll("details").forEach((fold) => (fold.open = true)));
    wrong.push(...(await look(page)).map((what) => `${path}: ${what}`));
  }
  return wrong;
}

/**
 * By how many pixels the page is wider than the window, once it has settled: charts take their new width a frame
 * or more after the page has taken its own, and on a busy machine much later.
 */
async function overWindow(page: Page): Promise<number> {
  const over = () => page.evaluate(() => document.documentElement.scrollWidth - innerWidth);
  await expect
    .poll(over, { timeout: 15_000 })
    .toBeLessThanOrEqual(0)
    .catch(() => undefined);
  return over();
}

const tooWide: Look = async (page) => {
  await page.setViewportSize({ width: 320, height: 700 });
  const plain = await overWindow(page);
  await page.evaluate(() => {
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(
      "*{line-height:1.5!important;letter-spacing:.12em!important;word-spacing:.16em!important} p{margin-bottom:2em!important}",
    );
    document.adoptedStyleSheets = [...document.adoptedStyleSheets, sheet];
  });
  const spaced = await overWindow(page);
  return plain > 0 || spaced > 0 ? [`${plain} and ${spaced} too wide`] : [];
};

const tooLow: Look = (page) =>
  page.evaluate(() =>
    [
      ...document.querySelectorAll<HTMLElement>(
        "button, .button, main nav a, [role=tab], input:not([type=hidden]), select, textarea, summary",
      ),
    ].flatMap((element) => {
      const isTick = element.matches("input[type=checkbox], input[type=radio], input[type=file]");
      const target = (isTick ? element.closest("label") : null) ?? element;
      const { width, height } = target.getBoundingClientRect();
      const isShown = width > 1 && height > 1 && !element.closest(".sr-only");
      return isShown && height < 43.5 ? [`${element.outerHTML.slice(0, 90)} is ${height} high`] : [];
    }),
  );

const bareTables: Look = (page) =>
  page.evaluate(() =>
    [...document.querySelectorAll("table")].flatMap((table) => {
      const about = table.innerText.slice(0, 40);
      return [
        ...(table.caption?.textContent ? [] : [`no caption: ${about}`]),
        ...([...table.querySelectorAll("thead th")].some((heading) => !heading.hasAttribute("scope"))
          ? [`a heading without scope: ${about}`]
          : []),
        ...([...(table.tBodies[0]?.rows ?? [])].some((row) => row.querySelector("th, input, td[colspan]"))
          ? []
          : [`rows without headings: ${about}`]),
      ];
    }),
  );

test("every page at every width: nothing wider than its window, targets 44 high on a phone, no fault that can be found by rule, tables that say what they are", async ({
  page,
}) => {
  test.setTimeout(900_000);
  const phone = { width: 390, height: 844 };
  await page.setViewportSize(phone);
  const wrong = await onEveryPage(page, async () => {
    await expect(page.getByRole("heading", { level: 1 })).toBeVisible();
    const low = await tooLow(page);
    await expectAccessible(page);
    await expectNoSideways(page);
    await page.setViewportSize({ width: 1280, height: 800 });
    const wide = await overWindow(page);
    await expectAccessible(page, true);
    const found = [...low, ...(wide > 0 ? [`${wide} too wide at a desk`] : []), ...(await bareTables(page))];
    found.push(...(await tooWide(page)));
    await page.setViewportSize(phone);
    return found;
  });
  expect(wrong).toEqual([]);
});

test("in colours of one's own every line stands out from its ground, and buttons say what they are", async ({
  browser,
  baseURL,
}) => {
  const context = await browser.newContext({
    baseURL: baseURL!,
    forcedColors: "active",
    colorScheme: "dark",
  });
  const page = await context.newPage();
  await page.goto("/strip");
  await page.getByRole("link", { name: "the box on the marsh hills" }).click();
  await page.getByRole("slider", { name: /^Strip over/ }).waitFor();
  const faint = await page.evaluate(() => {
    const canvas = document.createElement("canvas").getContext("2d", { willReadFrequently: true })!;
    const lightness = (colour: string) => {
      canvas.fillStyle = colour;
      canvas.fillRect(0, 0, 1, 1);
      const [r, g, b] = canvas.getImageData(0, 0, 1, 1).data;
      const linear = [r!, g!, b!].map((c) =>
        c / 255 <= 0.04 ? c / 255 / 12.92 : ((c / 255 + 0.055) / 1.055) ** 2.4,
      );
      return 0.2126 * linear[0]! + 0.7152 * linear[1]! + 0.0722 * linear[2]!;
    };
    const contrast = (a: string, b: string) => {
      const [x, y] = [lightness(a), lightness(b)].sort((one, other) => other - one);
      return (x! + 0.05) / (y! + 0.05);
    };
    const ground = getComputedStyle(document.body).backgroundColor;
    const page =
      ground === "rgba(0, 0, 0, 0)" ? getComputedStyle(document.documentElement).backgroundColor : ground;
    const poor: string[] = [];
    for (const line of document.querySelectorAll<SVGElement>("[role=slider] svg [stroke]")) {
      const { stroke, opacity } = getComputedStyle(line);
      if (stroke === "none" || Number(opacity) < 1) continue;
      // What is of the ground's own colour is drawn upon a fill.
      if (stroke === page) continue;
      if (contrast(stroke, page) < 2.5) poor.push(`${line.tagName} ${stroke} on ${page}`);
    }
    for (const button of document.querySelectorAll<HTMLElement>(".button-main")) {
      const { color, backgroundColor } = getComputedStyle(button);
      if (contrast(color, backgroundColor) < 4.5)
        poor.push(`${button.textContent}: ${color} on ${backgroundColor}`);
    }
    return [...new Set(poor)];
  });
  expect(faint).toEqual([]);
  await context.close();
});

test("the system's dark scheme is dusk until somebody chooses", async ({ browser, baseURL }) => {
  const context = await browser.newContext({ baseURL: baseURL!, colorScheme: "dark" });
  const page = await context.newPage();
  await page.goto("/");
  await ready(page);
  const ground = () => page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor);
  expect(await ground()).toBe("rgb(20, 32, 31)");
  await page.getByRole("button", { name: "Day", exact: true }).first().click();
  expect(await ground()).toBe("rgb(246, 243, 234)");
  await page.reload();
  expect(await ground()).toBe("rgb(246, 243, 234)");
  await context.close();
});

for (const width of [390, 1280])
  test(`from a window of ${width} the strip is printed whole, with what it says and nothing to press`, async ({
    page,
  }) => {
    // What was measured for the window stays as it was: a printer measures nothing anew.
    await page.addInitScript(() => {
      const { ResizeObserver: Real } = window;
      window.ResizeObserver = class extends Real {
        constructor(told: ResizeObserverCallback) {
          super((entries, observer) => {
            if (!("paper" in document.documentElement.dataset)) told(entries, observer);
          });
        }
      };
    });
    await page.setViewportSize({ width, height: 800 });
    await page.goto("/strip");
    await page.getByRole("link", { name: "levee run-down" }).click();
    await page.getByRole("slider", { name: /^Strip over/ }).waitFor();
    await ready(page);
    await page.evaluate(() => {
      document.documentElement.dataset["paper"] = "";
    });
    // A page of A4 within its margins.
    await page.setViewportSize({ width: 703, height: 1000 });
    await page.emulateMedia({ media: "print" });
    const [wide, found] = await page.evaluate(() => {
      const main = document.querySelector("main")!;
      const svg = document.querySelector("[role=slider] svg")!;
      const { width: drawn, height } = svg.getBoundingClientRect();
      const [, , w = 1, h = 1] = svg.getAttribute("viewBox")!.split(" ").map(Number);
      const shown = (selector: string) =>
        [...document.querySelectorAll<HTMLElement>(selector)].filter((each) => each.checkVisibility()).length;
      return [
        main.scrollWidth,
        {
          isWhole: drawn <= 703 && Math.abs(drawn / height - w / h) < 0.01,
          controls: shown("main .button, main button:not(.carries-figure), main input, main select, nav"),
          readings: shown(".carries-figure"),
          working: [...document.querySelectorAll("details")].filter(
            (fold) => fold.querySelector(".ledger-rows") && fold.querySelector("table")!.checkVisibility(),
          ).length,
        },
      ] as const;
    });
    expect(wide).toBeLessThanOrEqual(703);
    expect(found).toEqual({ isWhole: true, controls: 0, readings: expect.any(Number), working: 1 });
    expect(found.readings).toBeGreaterThan(5);
  });

/** What has a point in every language: names people gave, versions, examples to be typed as they stand. */
const WITH_POINT = [/slick, 1\.4 inch/, /knobbly, 1\.75 inch/, /GPX 1\.1/, /^25\.5$/m, /“[^”]*”/g];

test("whoever reads German sees commas and kilometres, and what is typed so is read", async ({
  browser,
  baseURL,
}) => {
  test.setTimeout(900_000);
  const context = await browser.newContext({ baseURL: baseURL!, locale: "de-DE" });
  const page = await context.newPage();
  const errors: string[] = [];
  page.on("pageerror", ({ message }) => errors.push(message));
  const points = await onEveryPage(page, async () => {
    const text = await page.locator("body").innerText();
    const rest = WITH_POINT.reduce((shorter, each) => shorter.replaceAll(new RegExp(each, "gm"), ""), text);
    return [...rest.matchAll(/.{0,30}\d\.\d.{0,20}/g)].map(([found]) => found);
  });
  expect(points).toEqual([]);
  await page.goto("/bikes/new");
  await ready(page);
  await page.getByLabel("Name", { exact: true }).fill("Comma Courier");
  await page.getByLabel(/^Assist levels/).fill("low");
  await page.getByLabel("Weight with its pack").fill("25,5");
  await page.getByLabel("Wheel setting").fill("2.180 mm");
  await page.getByRole("button", { name: "Save the bike" }).click();
  await expect(page.getByText("“2.180” can be read two ways: type 2.18 or 2180.")).toBeVisible();
  await page.getByLabel("Wheel setting").fill("2180 mm");
  await page.getByRole("button", { name: "Save the bike" }).click();
  await expect(page.getByRole("heading", { name: "Comma Courier" })).toBeVisible();
  await page.goto("/bikes");
  await expect(page.getByText("25,5 kg")).toBeVisible();
  // Their own choice stands before the language.
  await page.goto("/settings");
  await page.getByRole("button", { name: "25.5", exact: true }).click();
  await page.goto("/bikes");
  await expect(page.getByText("25.5 kg")).toBeVisible();
  expect(errors).toEqual([]);
  await context.close();
});
