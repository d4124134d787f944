import { readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { ready, test } from "./watched";
import { cell } from "./cells";
import { longTrack } from "../../bench/inputs";
import { expectAccessible, expectNoSideways } from "./accessible";

/** From a question to a printed sheet: on the desk, then on the phone. */
test.describe.configure({ mode: "serial" });

let address = "";

test.beforeEach(async ({ page }) => {
  await page.goto("/settings");
  await page.getByRole("button", { name: "Miles and pounds" }).first().click();
});

async function course(page: Page): Promise<void> {
  await page.goto("/plan/courses/new");
  await ready(page);
  await page.getByLabel("Name", { exact: true }).fill("Dyke and ridge");
  await page.getByLabel("Shape").selectOption("one way");
  await page.getByLabel("Distance of leg 1").fill("4 mi");
  await page.getByLabel("Climb of leg 1").fill("60 ft");
  await page.getByLabel("Ground of leg 1").selectOption("brick");
}

test("a course that ends where nobody can be is refused beside the field; nothing typed is lost", async ({
  page,
}) => {
  await course(page);
  await page.getByRole("button", { name: "Save the course" }).click();
  await expect(page.getByText("where nobody can be")).toBeVisible();
  await expect(page.getByLabel("Distance of leg 1")).toHaveValue("4 mi");
  await page.getByLabel("Climb of leg 1").fill("9000");
  await page.getByLabel("Shape").selectOption("out and back");
  await page.getByRole("button", { name: "Save the course" }).click();
  await expect(page.getByText("steeper than any road")).toBeVisible();
});

test("legs by hand become a course that is drawn, kept and given away as GPX", async ({ page }) => {
  await course(page);
  await page.getByLabel("Shape").selectOption("out and back");
  await page.getByLabel("Distance of leg 2").fill("7 km");
  await page.getByLabel("Ground of leg 2").selectOption("fine gravel");
  await page.getByLabel("Climb of leg 2").fill("90 m");
  await page.getByLabel("Name of place 1").fill("chain bridge");
  await page.getByLabel("From the start, place 1").fill("5 mi");
  await page.getByLabel("Latitude").fill("53.6");
  await page.getByLabel("Longitude").fill("0.9");
  await expect(page.getByRole("img", { name: /^Profile: 8\.3 mi out/ })).toBeVisible();
  await page.getByRole("button", { name: "Save the course" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Dyke and ridge");
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "GPX" }).click();
  const text = readFileSync(await (await download).path(), "utf8");
  expect(text).toContain('xmlns:bm="urn:barometron:course:1"');
  expect(text).toContain('<bm:leg length="7000" ground="fine gravel"');
  await page.goto("/plan/courses/import");
  await ready(page);
  await page.getByLabel("GPX file").setInputFiles({
    name: "again.gpx",
    mimeType: "application/gpx+xml",
    buffer: Buffer.from(text),
  });
  await expect(page.getByLabel("Name of place 1")).toHaveValue("chain bridge");
});

test("a question leads to methods with hours, charge and plus-or-minus", async ({ page }) => {
  await page.goto("/plan");
  await page.getByRole("link", { name: "Ask a question" }).click();
  await ready(page);
  await page.getByLabel("Bike").selectOption({ label: "Brindlow 3" });
  await page
    .getByLabel("Question")
    .selectOption({ label: "What does a tyre, rider, load, light, pressure or temperature cost?" });
  await expect(page.getByRole("heading", { name: "Sections A B B A" })).toBeVisible();
  const twins = page.getByRole("listitem").filter({ hasText: "Twins" });
  await expect(twins).toContainText(/difference to ± \d+(\.\d+)? Wh\/mi/);
  await page.getByLabel("Question").selectOption({ label: "Does it reach its claim?" });
  const part = page.getByRole("listitem").filter({ hasText: "Part charge" });
  await expect(part).toContainText(/± \d\.\d Wh\/mi/);
  await expect(part).toContainText(/\d\.\d h, \d+ % of a charge/);
  await page.getByLabel("Course").selectOption({ label: "Dyke and ridge" });
  await expect(page).toHaveURL(/course=[0-9a-f-]{36}/);
  await part.getByRole("button", { name: "Plan this" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Part charge, Brindlow 3");
  address = new URL(page.url()).pathname;
});

test("the forecast answers what is typed, and it is kept", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await expectAccessible(page);
  const energy = page.getByText(/^About/);
  const before = await energy.textContent();
  await page.getByLabel("Speed held").fill("19 mph");
  await expect(energy).not.toHaveText(before!);
  await page.getByLabel("Air", { exact: true }).fill("-6 C");
  await expect(page.getByText(/At 21 F the pack yields 8\d % of what it does warm/)).toBeVisible();
  await page.getByLabel("Name of the plan").fill("Does it do fifty");
  await expect(page.getByText("Saved as you type.")).toBeVisible();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Does it do fifty");
  await page.reload();
  await expect(page.getByLabel("Speed held")).toHaveValue("19 mph");
});

test("a wrong value is answered beside its field and not kept", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByLabel("Wind", { exact: true }).fill("a breeze");
  await expect(page.getByText("“a breeze” is not a speed")).toBeVisible();
  await expect(page.getByText("Not saved: see the fields marked.")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Wind", { exact: true })).toHaveValue("");
});

test("what the pack cannot do is said with numbers and what would fit", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByLabel("Laps", { exact: true }).fill("9");
  await expect(page.getByRole("alert")).toContainText(
    /The pack cannot do this: the ride takes \d+ Wh .* \d of 9 laps fit/,
  );
  await page.getByLabel("Laps", { exact: true }).fill("");
  await expect(page.getByText("The pack cannot do this")).toBeHidden();
  await expect(page.getByText("Saved as you type.")).toBeVisible();
});

test("a start after sunset is refused until the dark is meant", async ({ page }) => {
  await page.goto(address);
  await ready(page);
  await page.getByLabel("Day", { exact: true }).fill("2026-12-20");
  await page.getByLabel("Starts at", { exact: true }).fill("18:30");
  await expect(page.getByRole("alert")).toContainText(
    /The sun sets at 15:\d\d, before this ride starts at 18:30/,
  );
  await page.getByText("Lists and clock").click();
  await page.getByLabel("Riding in the dark is meant").check();
  await expect(page.getByText("The sun sets at")).toBeHidden();
  await page.getByLabel("Starts at", { exact: true }).fill("10:00");
  await expect(page.getByText("Saved as you type.")).toBeVisible();
});

test("two set-ups are compared in the order A B B A, and it says what would tell them apart", async ({
  page,
}) => {
  await page.goto(address);
  await ready(page);
  await page.locator("summary", { hasText: "Method" }).click();
  await page.getByLabel("Compare").fill("slick");
  await expect(page.getByText("Name the second, for example: winter tyres.")).toBeVisible();
  await page.getByLabel("with", { exact: true }).fill("studded");
  await page.getByLabel("Runs of each").fill("1");
  await page.getByLabel("Difference worth finding").fill("0.5 Wh/mi");
  await expect(page.getByText("One charge does not hold these runs")).toBeVisible();
  await page.getByLabel("Course").selectOption({ label: "Levee loop" });
  await expect(page.getByText("Order: slick, studded")).toBeVisible();
  await expect(page.getByText("A difference of 0.5 Wh/mi will not be told from none.")).toBeVisible();
  await page.getByLabel("Runs of each").fill("");
  await page.getByLabel("Compare").fill("");
  await page.getByLabel("with", { exact: true }).fill("");
  await page.getByLabel("Difference worth finding").fill("");
  await page.getByLabel("Course").selectOption({ label: "Dyke and ridge" });
  await expect(page.getByRole("heading", { name: "What would make it surer" })).toBeVisible();
  await expect(page.getByText(/Most of its spread: .* % \(/)).toBeVisible();
  await expect(page.getByText("Saved as you type.")).toBeVisible();
});

test("the run sheet prints on one page", async ({ page }) => {
  await page.goto(address);
  await page.getByRole("link", { name: "Run sheet" }).click();
  await expect(page.getByRole("heading", { name: "At the start" })).toBeVisible();
  for (const text of ["Ready", "Held constant", "Bring", "On the way", "The end", "Cautions"])
    await expect(page.getByRole("heading", { name: text, exact: true })).toBeVisible();
  await expect(cell(page, { name: "chain bridge" }).first()).toBeVisible();
  await expectAccessible(page);
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString("latin1");
  expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)).toHaveLength(1);
});

test("every run sheet of the desk fits its page", async ({ page }) => {
  for (const title of ["How far with the child on", "What winter tyres cost", "Throttle only, to the end"]) {
    await page.goto("/plan");
    await page.getByRole("link", { name: title }).click();
    await expect(page.getByRole("heading", { level: 1 })).toHaveText(title);
    await page.getByRole("link", { name: "Run sheet" }).click();
    await expect(page.getByRole("heading", { name: "At the start" })).toBeVisible();
    const pdf = (await page.pdf({ preferCSSPageSize: true })).toString("latin1");
    expect([title, pdf.match(/\/Type\s*\/Page\b(?!s)/g)?.length]).toEqual([title, 1]);
  }
});

test("the calendar holds the charge and the ride", async ({ page }) => {
  await page.goto(address);
  const download = page.waitForEvent("download");
  await page.getByRole("link", { name: "Calendar" }).click();
  const text = readFileSync(await (await download).path(), "utf8").replace(/\r\n /g, "");
  expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(2);
  expect(text).toContain("SUMMARY:Does it do fifty: ride");
  expect(text).toMatch(/DTSTART:20261220T\d{6}Z/);
});

test.describe("on the phone", () => {
  test.use({ viewport: { width: 390, height: 844 } });
  test("a question leads to a run sheet there too", async ({ page }) => {
    await page.goto("/");
    await page.getByRole("navigation", { name: "Stations" }).getByRole("link", { name: "Plan" }).click();
    await page.getByRole("link", { name: "Ask a question" }).click();
    await page.waitForURL(/plan\/new/);
    await ready(page);
    await page.getByLabel("Bike").selectOption({ label: "Pellam Step" });
    await page.getByLabel("Question").selectOption({ label: "Would the larger pack pay?" });
    await page.getByLabel("Course").selectOption({ label: "Levee loop" });
    const part = page.getByRole("listitem").filter({ hasText: "Part charge" });
    await expect(part).toContainText(/± \d/);
    await expect(page).toHaveURL(/course=[0-9a-f-]{36}/);
    await part.getByRole("button", { name: "Plan this" }).click();
    await expect(page.getByRole("heading", { level: 1 })).toHaveText("Part charge, Pellam Step");
    await expect(page.getByText(/chance of home with 20 % left/)).toBeVisible();
    await page.getByRole("link", { name: "Run sheet" }).click();
    await expect(page.getByRole("heading", { name: "At the start" })).toBeVisible();
    await expectNoSideways(page);
    const pdf = (await page.pdf({ preferCSSPageSize: true })).toString("latin1");
    expect(pdf.match(/\/Type\s*\/Page\b(?!s)/g)).toHaveLength(1);
  });
  test("the question, the plan and the sheet fit, and lists are ticked with a thumb", async ({ page }) => {
    for (const path of ["/plan", "/plan/new", address, `${address}/sheet`, "/plan/courses/new"]) {
      await page.goto(path);
      await expectNoSideways(page);
    }
    await page.goto(`${address}/pocket`);
    await ready(page);
    await expectAccessible(page);
    await expectNoSideways(page);
    const brakes = page.getByRole("button", { name: "Brakes checked" });
    const kept = page.waitForResponse((response) => response.request().method() === "POST");
    await brakes.click();
    await expect(brakes).toHaveAttribute("aria-pressed", "true");
    await kept;
    await page.reload();
    await expect(page.getByRole("button", { name: "Brakes checked" })).toHaveAttribute(
      "aria-pressed",
      "true",
    );
    await expect(page.getByText(/Go on above \d+ %; else go home from here\./).first()).toBeVisible();
  });
});

test("today shows the next ride and how ready it is", async ({ page }) => {
  await page.goto("/");
  await expect(page.getByRole("listitem").filter({ hasText: "How far with the child on" })).toContainText(
    /Checklist \d+ of \d+/,
  );
});

test("a plan becomes a test with its conditions", async ({ page }) => {
  await page.goto(address);
  await page.getByRole("button", { name: "Start the test" }).click();
  await expect(page).toHaveURL(/\/ride\/[0-9a-f-]{36}/);
  await expect(page.getByRole("heading", { level: 1 })).toContainText("Does it do fifty");
  await expect(page.getByText("part charge, pedalled")).toContainText("Dyke and ridge");
});

test("a method is kept as one's own, changed, and proposed", async ({ page }) => {
  await page.goto(address);
  await page.getByRole("button", { name: "Save the method as my own" }).click();
  await page.getByLabel("Name", { exact: true }).fill("Part charge, every two miles");
  await page.getByLabel("Check in every").fill("2 mi");
  await page.getByRole("button", { name: "Save the method" }).click();
  await expect(page.getByRole("link", { name: "Part charge, every two miles" })).toBeVisible();
  await page.goto("/plan/new?question=claim");
  await expect(page.getByRole("heading", { name: "Part charge, every two miles" })).toBeVisible();
});

test("a bench discharge is planned without a ride", async ({ page }) => {
  await page.goto("/plan/new?question=packSound");
  await ready(page);
  const bench = page.getByRole("listitem").filter({ hasText: "Bench discharge" });
  await expect(bench).toContainText(/pack to ± \d+ Wh/);
  await bench.getByRole("button", { name: "Plan this" }).click();
  await expect(page.getByText("A bench discharge rides nowhere")).toBeVisible();
  await expect(page.getByText("chance of home")).toBeHidden();
  await page.getByRole("link", { name: "Run sheet" }).click();
  await expect(page.getByText("No swelling, smell or damage")).toBeVisible();
  await expect(page.getByRole("heading", { name: "On the way" })).toBeHidden();
});

test("a plan is archived, and that is undone", async ({ page }) => {
  await page.goto(address);
  await page.getByRole("button", { name: "Archive Does it do fifty" }).click();
  await expect(page.getByRole("link", { name: "Does it do fifty" })).toBeHidden();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("Undone.").last()).toBeVisible();
  await expect(page.getByRole("link", { name: "Does it do fifty" })).toBeVisible();
});

test("a hundred-mile track is read with progress, profiled, painted and kept", async ({ page }) => {
  await page.goto("/plan/courses/import");
  await ready(page);
  const progress = page.getByRole("progressbar", { name: "Reading the track" }).waitFor();
  await page.getByLabel("GPX file").setInputFiles({
    name: "round.gpx",
    mimeType: "application/gpx+xml",
    buffer: Buffer.from(longTrack(25_000)),
  });
  await progress;
  await expect(page.getByRole("img", { name: /^Profile: 99\.\d mi out/ })).toBeVisible();
  await expect(page.getByLabel("Name", { exact: true })).toHaveValue("Grand round");
  await page.getByLabel("Distance of leg 1").fill("60 mi");
  await page.getByRole("button", { name: "Another leg" }).click();
  await page.getByLabel("Distance of leg 2").fill("40 mi");
  await page.getByLabel("Ground of leg 2").selectOption("grass");
  await page.getByRole("button", { name: "Save the course" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Grand round");
  await expect(page.getByLabel("Ground of leg 2")).toHaveValue("grass");
});

test("a file that is no track says so", async ({ page }) => {
  await page.goto("/plan/courses/import");
  await ready(page);
  await page.getByLabel("GPX file").setInputFiles({
    name: "notes.gpx",
    mimeType: "text/plain",
    buffer: Buffer.from("not a track"),
  });
  await expect(page.getByRole("alert").filter({ hasText: "It was not read" })).toContainText("is not XML");
});
