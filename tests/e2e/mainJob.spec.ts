import { mkdtempSync, openSync, closeSync, ftruncateSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, type Page } from "@playwright/test";
import { ready, test } from "./watched";
import { cell } from "./cells";
import { expectAccessible } from "./accessible";

/** The main job through the real interface: add a bike, bring in notes and a track, correct, compare. */
test.describe.configure({ mode: "serial" });

const folder = mkdtempSync(join(tmpdir(), "barometron-e2e-"));
const file = (name: string, content: string | Buffer) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
let testAddress = "";

async function addTest(page: Page, bike: string, title: string): Promise<string> {
  await page.goto("/strip/new");
  await page.getByRole("link", { name: bike }).click();
  await page.getByLabel("Title").fill(title);
  await page.getByLabel("Day").fill("2026-10-18");
  await page.getByRole("button", { name: "Save and add check-ins" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText(title);
  return new URL(page.url()).pathname;
}

test("a bike is added; what is wrong is said beside the field and nothing typed is lost", async ({
  page,
}) => {
  await page.goto("/bikes");
  await page.getByRole("link", { name: "Add a bike" }).click();
  await page.getByLabel("Name").fill("Sedgeway Nine");
  await page.getByLabel("Weight with its pack").fill("57 sacks");
  await page.getByRole("textbox", { name: "Assist levels" }).fill("low, high");
  await page.getByRole("button", { name: "Save the bike" }).click();
  await expect(page.getByText("“sacks” is not a unit of a weight")).toBeVisible();
  await expect(page.getByLabel("Name")).toHaveValue("Sedgeway Nine");
  await expect(page.getByLabel("Weight with its pack")).toHaveValue("57 sacks");
  await expectAccessible(page);
  await page.getByLabel("Weight with its pack").fill("57 lb");
  await page.getByRole("button", { name: "Confirm Motor" }).click();
  await page.getByRole("button", { name: "Save the bike" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("A pack for Sedgeway Nine");
  await page.getByLabel("Printed energy").fill("504 sacks");
  await page.getByLabel("Cells in series").fill("36 V");
  await page.getByRole("button", { name: "Save the pack" }).click();
  await expect(page.getByText("“sacks” is not a unit of an energy")).toBeVisible();
  await page.getByLabel("Printed energy").fill("504");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Save the pack" }).click();
  await expect(page.getByText("57.0 lb")).toBeVisible();
  await expect(page.locator("dd.pencil", { hasText: "hub motor" })).toHaveCount(0);
  await expect(page.locator("dd.pencil", { hasText: "shows 1 % steps" })).toHaveCount(1);
  await page.getByRole("link", { name: "Add a set-up" }).click();
  await page.getByLabel("Name").fill("city tyres");
  await page.getByLabel("Pressure").fill("31 psi");
  await page.getByRole("button", { name: "Save the set-up" }).click();
  await expect(page.getByText("31 psi, lights off")).toBeVisible();
});

test("a test in the future is refused; a good one waits for its check-ins", async ({ page }) => {
  await page.goto("/strip/new");
  await page.getByRole("link", { name: "Sedgeway Nine" }).click();
  await page.getByLabel("Title").fill("marsh commute");
  await page.getByLabel("Day").fill("2099-01-01");
  await page.getByLabel("Air temperature").fill("12 C");
  await page.getByRole("button", { name: "Save and add check-ins" }).click();
  await expect(page.getByText("That day lies in the future")).toBeVisible();
  await expect(page.getByLabel("Title")).toHaveValue("marsh commute");
  await page.getByLabel("Day").fill("2026-10-18");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Save and add check-ins" }).click();
  await expect(page.getByText("The strip appears with the second check-in.")).toBeVisible();
  testAddress = new URL(page.url()).pathname;
});

test("a CSV with slips names each cell and keeps nothing", async ({ page }) => {
  await page.goto(`${testAddress}/import`);
  await ready(page);
  await page.getByLabel("Files of this ride").setInputFiles("examples/marsh-commute-slips.csv");
  const alert = page.getByRole("alert");
  for (const place of [
    "row 3, column ground",
    "row 4, column miles",
    "row 4, column battery %",
    "row 5, column rest volts",
    "row 6, column time",
  ])
    await expect(alert).toContainText(place);
  await expect(page.getByRole("button", { name: /^Save \d+ check-ins/ })).toBeDisabled();
  await expectAccessible(page);
  await page.goto(testAddress);
  await expect(page.getByText("The strip appears with the second check-in.")).toBeVisible();
});

for (const [name, content, sentence] of [
  ["latin.csv", Buffer.from([...Buffer.from("miles,percent,note\n0,100,caf"), 0xe9, 10]), "not UTF-8 text"],
  ["empty.csv", Buffer.from("miles,percent\n"), "holds no check-ins"],
] as const)
  test(`${name} is refused in a sentence`, async ({ page }) => {
    await page.goto(`${testAddress}/import`);
    await ready(page);
    await page.getByLabel("Files of this ride").setInputFiles(file(name, content));
    await expect(page.getByRole("alert")).toContainText(sentence);
  });

test("a good CSV is shown, mapped, kept once, and reckoned", async ({ page }) => {
  await page.goto(`${testAddress}/import`);
  await ready(page);
  await page.getByLabel("Files of this ride").setInputFiles("examples/marsh-commute.csv");
  await expect(page.getByText("Every row can be read.")).toBeVisible();
  await expect(page.getByLabel("Column trip (mi) is")).toHaveValue("display");
  await page.getByLabel("Column note is").selectOption("");
  await page.getByRole("button", { name: "Read again with these columns" }).click();
  await expect(page.getByLabel("Column note is")).toHaveValue("");
  await page.getByRole("button", { name: "Save 6 check-ins" }).click();
  const ledger = page.getByRole("region", { name: "Ledger" });
  await expect(ledger).toContainText("Wh/mi");
  await expect(ledger).toContainText("100 to 46 % of the label's 504 Wh");
  await expect(ledger).toContainText("by recorder; the display read 2.");
  await expect(page.getByRole("slider", { name: /^Strip over 22\.5 mi/ })).toBeVisible();
  await expect(page.getByRole("region", { name: /^Readings/ }).getByRole("row")).toHaveCount(7);
  await expectAccessible(page);
});

const point = (second: number, rest = "") =>
  `<trkpt lat="0" lon="${second / 1000}">${rest || `<time>2026-10-18T09:00:${String(second).padStart(2, "0")}Z</time>`}</trkpt>`;
/** What the page of files says of one. */
const card = (page: Page, name: string) =>
  page.getByRole("listitem").filter({ has: page.getByRole("heading", { name, exact: true }) });
const gpx = (body: string, head = "") =>
  `<?xml version="1.0"?>${head}<gpx version="1.1"><trk><trkseg>${body}</trkseg></trk></gpx>`;

for (const [name, content, sentence] of [
  ["planned.gpx", gpx('<trkpt lat="0" lon="0"/><trkpt lat="0" lon="1"/>'), "has no time"],
  [
    "tricky.gpx",
    gpx(point(1) + point(2), '<!DOCTYPE gpx [<!ENTITY x SYSTEM "file:///etc/passwd">]>'),
    "declares XML entities",
  ],
  ["broken.gpx", "<gpx><trk>", "breaks off or is not XML"],
] as const)
  test(`${name} is refused in a sentence`, async ({ page }) => {
    await page.goto(`${testAddress}/import`);
    await ready(page);
    await page.getByLabel("Files of this ride").setInputFiles(file(name, content));
    await expect(card(page, name).getByRole("alert")).toContainText(sentence);
    await expect(page.getByRole("button", { name: "Import 0 files" })).toBeDisabled();
  });

test("a clock that runs years ahead is said so, and put right by hand", async ({ page }) => {
  const ahead = gpx((point(1) + point(2)).replaceAll("2026-10", "2096-10"));
  await page.goto(`${testAddress}/import`);
  await ready(page);
  await page.getByLabel("Files of this ride").setInputFiles(file("future.gpx", ahead));
  const its = card(page, "future.gpx");
  await expect(its).toContainText("Its times lie in the future: add what its clock is off");
  await page.getByRole("button", { name: "Import one file" }).click();
  await expect(its.getByRole("alert")).toContainText("lie in the future: check the recorder's clock");
  await its.getByLabel("Add to its times").fill("-613608:00:00");
  await expect(page.getByRole("button", { name: "Import one file" })).toBeEnabled();
});

test("a 200 MB file is refused before it is sent", async ({ page }) => {
  const path = join(folder, "huge.gpx");
  const handle = openSync(path, "w");
  ftruncateSync(handle, 200 * 1024 * 1024);
  closeSync(handle);
  await page.goto(`${testAddress}/import`);
  await ready(page);
  // The others that were chosen with it are looked at as ever.
  await page.getByLabel("Files of this ride").setInputFiles([path, "examples/levee-and-harbour.gpx"]);
  await expect(card(page, "huge.gpx").getByRole("alert")).toContainText("200 MB; 30 MB are the most");
  await expect(card(page, "levee-and-harbour.gpx")).toContainText(/Adds the way/);
  await expect(page.getByRole("button", { name: "Import one file" })).toBeEnabled();
});

test("a track gives moving time, speed and climb", async ({ page }) => {
  await page.goto(testAddress);
  await page.getByRole("link", { name: "Import files" }).first().click();
  await ready(page);
  await page.getByLabel("Files of this ride").setInputFiles("examples/levee-and-harbour.gpx");
  await page.getByRole("button", { name: "Import one file" }).click();
  await expect(card(page, "levee-and-harbour.gpx").getByRole("status")).toHaveText("kept");
  await page.goto(testAddress);
  await expect(page.getByRole("region", { name: "Ride summary" })).toContainText("Average12.0 mph");
  await expect(page.getByText("Track: levee and harbour, one lap")).toBeVisible();
});

test("one page takes any files at once, and says of each what it is and would add", async ({ page }) => {
  const file = (name: string, text: string) => ({ name, mimeType: "text/csv", buffer: Buffer.from(text) });
  await page.goto(`${testAddress}/import`);
  await ready(page);
  await page.getByLabel("Files of this ride").setInputFiles([
    {
      name: "lap.tcx",
      mimeType: "application/xml",
      buffer: readFileSync("examples/levee-and-harbour.tcx"),
    },
    file("box.csv", "time,volts,amps\n2026-10-20T09:00:00Z,low,6\n"),
    file("page.csv", "<html>a page</html>"),
    file("said.srt", "1\n00:00:01,000 --> 00:00:03,000\na mile in, ninety-eight percent\n"),
  ]);
  await expect(card(page, "said.srt")).toContainText("one piece of speech");
  await expect(card(page, "lap.tcx")).toContainText("This is a TCX activity.");
  await expect(card(page, "lap.tcx")).toContainText(/Adds the way, \d+\.\d+ mi in .* of riding/);
  await expect(card(page, "box.csv").getByRole("alert")).toContainText("row 2, column volts");
  await expect(card(page, "page.csv").getByRole("alert")).toContainText("Nothing here reads such a file");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Import one file" }).click();
  await expect(card(page, "lap.tcx").getByRole("status")).toHaveText("kept");
  await card(page, "said.srt").getByRole("button", { name: "Go through what was said" }).click();
  await expect(page.getByRole("list", { name: "Moments" })).toContainText("98 %");
});

test("a check-in is typed with the keyboard alone; impossible ones are refused beside the field", async ({
  page,
}) => {
  const address = await addTest(page, "Sedgeway Nine", "typed by hand");
  await page.getByLabel("Percent", { exact: true }).fill("100");
  await page.getByLabel("The charger said done").check();
  await page.getByLabel("Percent", { exact: true }).press("Enter");
  await expect(page.getByRole("region", { name: /^Readings/ }).getByRole("row")).toHaveCount(2);
  await page.getByLabel("Distance", { exact: true }).fill("5,2");
  await page.keyboard.press("Tab");
  await page.keyboard.type("88");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("region", { name: /^Readings/ }).getByRole("row")).toHaveCount(3);
  for (const [field, value, sentence] of [
    ["Distance", "-4", "Distance cannot be negative"],
    ["Percent", "104", "Percent runs from 0 to 100"],
    ["Distance", "3 mi", "3.0 mi by recorder lies behind 5.2 mi"],
    ["Volts", "84", "84 V cannot be for 10 NMC cells in series"],
  ] as const) {
    await page.goto(address);
    await page.getByLabel("Distance", { exact: true }).fill("9");
    await page.getByLabel(field, { exact: true }).fill(value);
    await page.getByLabel(field, { exact: true }).press("Enter");
    await expect(page.getByText(sentence)).toBeVisible();
    await expect(page.getByLabel(field, { exact: true })).toHaveValue(value);
  }
  await page.goto(address);
  await expect(page.getByRole("region", { name: /^Readings/ }).getByRole("row")).toHaveCount(3);
});

test("a slip is questioned, set aside and restored; a correction keeps the old figure in sight", async ({
  page,
}) => {
  await page.goto("/strip");
  await page.getByRole("link", { name: "run-down on two levels" }).click();
  const flag = page.getByText(/^69 % at 1\d\.\d mi is (clearly|far) too/);
  await expect(flag).toBeVisible();
  await expect(page.getByText("Without what is in question")).toBeVisible();
  await page.getByRole("button", { name: "Set it aside" }).click();
  await expect(flag).toBeHidden();
  await page.getByRole("button", { name: "Restore 69 %" }).click();
  await expect(flag).toBeVisible();
  await page.getByRole("link", { name: "Correct it" }).click();
  await expect(page.getByLabel("Percent", { exact: true })).toHaveValue("69 %");
  await page.getByLabel("Percent", { exact: true }).fill("59");
  await page.getByRole("button", { name: "Save the correction" }).click();
  await expect(flag).toBeHidden();
  await expect(page.locator("s", { hasText: "69" })).toBeVisible();
  await expect(page.getByRole("button", { name: "Set aside 59 %" })).toBeVisible();
  await expectAccessible(page);
});

test("the arrow keys walk the strip while it is focused, and x sets a reading aside", async ({ page }) => {
  await page.goto("/strip");
  await page.getByRole("link", { name: "tramway, up and down" }).click();
  await expect(page.getByRole("slider", { name: /^Strip over/ })).toBeVisible();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("x");
  await expect(page.getByText("Point at the strip")).toBeVisible();
  const strip = page.getByRole("slider", { name: /^Strip over/ });
  await strip.focus();
  await page.keyboard.press("ArrowRight");
  await page.keyboard.press("ArrowRight");
  await expect(page.getByText("mile 3.0", { exact: true })).toBeVisible();
  await expect(strip).toHaveAttribute(
    "aria-valuetext",
    /^mile 3\.0: \d+ % left, plus or minus \d+; \w+ level; \w+/,
  );
  await page.keyboard.press("x");
  await expect(page.getByRole("status").filter({ hasText: /set aside\. Press x again to undo/ })).toHaveCount(
    1,
  );
  await expect(page.getByRole("button", { name: /^Restore \d+ %/ })).toHaveCount(1);
  await page.getByRole("button", { name: /^Restore \d+ %/ }).click();
  await expect(page.getByRole("button", { name: /^Restore/ })).toHaveCount(0);
});

test("parts and doubt stand behind their tabs", async ({ page }) => {
  await page.goto("/strip");
  await page.getByRole("link", { name: "run-down on two levels" }).click();
  await page.getByRole("link", { name: "parts" }).click();
  await expect(page.getByRole("columnheader", { name: "fine gravel" })).toBeVisible();
  await page.getByRole("link", { name: "doubt" }).click();
  await expect(cell(page, { name: "what the pack holds" })).toBeVisible();
  await expectAccessible(page);
});

test("two bikes are compared: difference, verdict, and what else differed", async ({ page }) => {
  await page.goto("/compare");
  await page.getByLabel("Choose Brindlow 3, levee loop, town level").click();
  await expect(page.getByText("One is chosen.")).toBeVisible();
  await page.getByLabel("Choose Ondrey Hauler, tramway, up and down").click();
  await expect(page.getByLabel("Choose Ondrey Hauler, tramway, up and down")).toBeChecked();
  const aside = page.getByRole("complementary", { name: "Two tests" });
  await expect(aside).toContainText("Brindlow 3 used less: 99 in 100.");
  await expect(aside).toContainText("One was ridden on pedal, the other on throttle.");
  await expect(page.locator(".recharts-surface circle").first()).toBeVisible();
  await expect(page.locator(".recharts-errorBar line").first()).toBeAttached();
  await expectAccessible(page);
  await page.getByText("The same as a table").click();
  await expect(
    page
      .getByRole("region", { name: "Standings as a table" })
      .getByRole("cell", { name: "marsh commute, pedal" }),
  ).toBeVisible();
  await page.getByText("More filters").click();
  await page.getByLabel("Drive").selectOption("throttle");
  await expect(page).toHaveURL(/drive=throttle/);
  await expect(page.getByRole("region", { name: "Standings as a table" }).getByRole("row")).toHaveCount(4);
});
