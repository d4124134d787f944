import { expect, type Page } from "@playwright/test";
import { ready, test } from "./watched";
import { expectAccessible, expectNoSideways } from "./accessible";

/** Road or reading: two stories, notes typed up later, home on a one-way course, totals of a ride, what a gauge means. */
test.describe.configure({ mode: "serial" });

const ledger = (page: Page) => page.getByRole("region", { name: "Ledger" });

test.beforeEach(async ({ page }) => {
  await page.goto("/settings");
  await page.getByRole("button", { name: "Miles and pounds" }).first().click();
});

/** A test of the Brindlow on an earlier day. */
async function newTest(page: Page, title: string): Promise<string> {
  await page.goto("/strip/new");
  await page.getByRole("link", { name: "Brindlow 3" }).click();
  await page.getByLabel("Title").fill(title);
  await page.getByLabel("Day").fill("2026-10-20");
  await page.getByRole("button", { name: "Save and add check-ins" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText(title);
  return new URL(page.url()).pathname;
}

async function type(page: Page, line: string, count: number): Promise<void> {
  await page.getByLabel("The line").fill(line);
  await page.getByLabel("The line").press("Enter");
  await expect(page.getByRole("list", { name: "Last entries" }).getByRole("listitem")).toHaveCount(count);
}

let strip = "";

test("notes typed up on another day have no times but those that are typed", async ({ page }) => {
  strip = await newTest(page, "typed up at home");
  const ride = strip.replace("/strip/", "/ride/");
  await page.goto(ride);
  await ready(page);
  const when = page.getByRole("region", { name: "When was it?" });
  await expect(when).toContainText("Entries are kept without a time");
  await expectAccessible(page);
  await page.getByLabel("Percent").fill("84");
  await page.getByLabel("Distance").fill("0");
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await type(page, "14:32 6.4mi 82%", 2);
  await type(page, "10.9mi 60%", 3);
  await type(page, "15mi 50%", 4);
  await type(page, "stop 21.3mi 36% moving 1:32 top 24mph avg 128bpm", 5);
  await expect(page.getByText("Every entry is kept.")).toBeVisible();
  const response = await page.request.get(`${strip}/record`);
  const { tests } = (await response.json()) as {
    tests: { rides: { entries: { at: string | null; body: Record<string, unknown> }[] }[] }[];
  };
  const { entries } = tests[0]!.rides[0]!;
  expect(entries.map(({ at }) => at !== null)).toEqual([false, true, false, false, false]);
  expect(entries[4]!.body).toMatchObject({ kind: "stop", percent: 36, movingS: 5520, avgBpm: 128 });
  await when.getByRole("button", { name: "I am riding now" }).click();
  await page.reload();
  await expect(when).toContainText("You ride on today");
});

test("an odd reading is told as one of two stories; set aside, both answers stay in view", async ({
  page,
}) => {
  await page.goto(strip);
  await ready(page);
  const question = page.getByText(/82 % at 6\.4 mi is .* Either it is a slip, .* or .* beside it took/);
  await expect(question).toBeVisible();
  await expect(ledger(page)).toContainText("Without what is in question");
  await page.getByRole("button", { name: "Set it aside" }).click();
  await expect(question).toBeHidden();
  await expect(ledger(page)).toContainText("Without what is set aside");
  await expect(ledger(page)).toContainText("With nothing set aside");
  await expect(ledger(page)).toContainText(/Way left, to the end\D*\d+ to \d+ mi/);
});

test("the ride stands in a line, and its totals are typed once", async ({ page }) => {
  await page.goto(strip);
  await ready(page);
  const summary = page.getByRole("region", { name: "Ride summary" });
  await expect(summary).toContainText("Riding time1 h 32 min");
  await expect(summary).toContainText("Heart128 a minute");
  await summary.getByRole("link", { name: "Ride totals" }).click();
  await ready(page);
  await expect(page.getByLabel("Top speed")).toHaveValue("24 mph");
  await expectAccessible(page);
  await page.getByLabel("Climb").fill("uphill");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("“uphill” is not a height")).toBeVisible();
  await page.getByLabel("Climb").fill("640 m");
  await page.getByLabel("Riding time").fill("1:36");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(summary).toContainText("Riding time1 h 36 min");
  await expect(summary).toContainText("Climb2100 ft");
});

test("home on a one-way course is its end or its start, with the rider's own rule beside it", async ({
  page,
}) => {
  await page.goto("/plan/courses/new");
  await ready(page);
  await page.getByLabel("Name", { exact: true }).fill("Down to the ferry");
  await page.getByLabel("Shape").selectOption("one way");
  await page.getByLabel("Home from its end").fill("the ferry back");
  await page.getByLabel("Distance of leg 1").fill("14 mi");
  await page.getByRole("button", { name: "Save the course" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Down to the ferry");
  await page.goto("/plan");
  await page.getByRole("link", { name: "Ask a question" }).click();
  await ready(page);
  await page.getByLabel("Bike").selectOption({ label: "Brindlow 3" });
  await page.getByLabel("Question").selectOption({ label: "Does it reach its claim?" });
  await page.getByLabel("Course").selectOption({ label: "Down to the ferry" });
  await expect(page).toHaveURL(/course=[0-9a-f-]{36}/);
  const part = page.getByRole("listitem").filter({ hasText: "Part charge" });
  await part.getByRole("button", { name: "Plan this" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Part charge, Brindlow 3");
  await page.goto("/ride");
  await page.getByRole("button", { name: "Start Part charge, Brindlow 3" }).click();
  await ready(page);
  await page.getByLabel("Percent").fill("100");
  await page.getByLabel("Distance").fill("0");
  await page.getByRole("button", { name: "Start", exact: true }).click();
  const left = page.getByRole("region", { name: "What is left" });
  await type(page, "2mi 95%", 2);
  await expect(left).toContainText(/The start is 2\.0 mi from here/);
  await type(page, "12mi 70%", 3);
  await expect(page.getByText("Kept without a time: nobody rides that far")).toBeVisible();
  await expect(left).toContainText(/The end of the course is 2\.0 mi from here/);
  await page.getByText("A turn rule of your own").click();
  await page.getByLabel("Turn at").fill("later");
  await page.getByRole("button", { name: "Watch it" }).click();
  await expect(page.getByText("Type for example half, mile 18")).toBeVisible();
  await page.getByLabel("Turn at").fill("half");
  await page.getByRole("button", { name: "Watch it" }).click();
  await expect(left).toContainText("Your rule: turn at 50 %. It shows 70 %.");
  await type(page, "13.5mi 49%", 5);
  await expect(left.getByRole("alert").filter({ hasText: "turn now" })).toBeVisible();
  await expectAccessible(page);
});

test("a gauge page tells what percent and bars truly mean", async ({ page }) => {
  await page.goto("/bikes");
  await page.getByRole("link", { name: "Ondrey Hauler" }).first().click();
  await page.getByRole("link", { name: "What its gauge really says" }).click();
  await ready(page);
  await expect(page.getByText(/^At half the gauge \d+ ± \d+ % of the energy is left\.$/)).toBeVisible();
  await expect(page.getByText(/as the pack cut off/)).toBeVisible();
  await expectAccessible(page);
  await page.setViewportSize({ width: 390, height: 844 });
  await expectNoSideways(page);
});

test("what a bike's tests show is taken over into one another's figures, and said", async ({ page }) => {
  await page.goto("/bikes");
  await page.getByRole("link", { name: "Ondrey Hauler" }).first().click();
  await page.getByRole("link", { name: "What its gauge really says" }).click();
  const part = page.getByRole("region", { name: "In the figures of this bike's tests" });
  await expect(part).toContainText("Each test's figure rests on its own readings alone.");
  await part.getByRole("button", { name: "Use in all figures" }).click();
  await expect(part).toContainText("In use: the gauge by one test.");
  await expectAccessible(page);
  await page.goto("/strip");
  await page.getByRole("link", { name: "market day on both packs" }).first().click();
  await expect(ledger(page)).toContainText("known besides: the gauge by one other test");
  await page.goBack();
  await page.goBack();
  await part.getByRole("button", { name: "Stop using" }).click();
  await expect(part.getByRole("button", { name: "Use in all figures" })).toBeVisible();
});
