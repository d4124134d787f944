import { expect, type Page } from "@playwright/test";
import pg from "pg";
import { ready, test } from "./watched";
import { expectAccessible } from "./accessible";
import { newSweep } from "./newSweep";

/** What goes wrong besides: two who edit one thing, rows nobody can read, an entry the desk breaks on, backups. */
test.describe.configure({ mode: "serial" });

let url = "";
/** Does to the desk's database what no page can. */
async function sql(text: string, values: unknown[] = []): Promise<Record<string, unknown>[]> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query<Record<string, unknown>>(text, values)).rows;
  } finally {
    await client.end();
  }
}
test.beforeEach(({ databaseUrl }) => {
  url = databaseUrl;
});

async function openBike(page: Page, name: string): Promise<string> {
  await page.goto("/bikes");
  await page.getByRole("link", { name, exact: true }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText(name);
  return new URL(page.url()).pathname;
}

test("a save that comes late is answered with both versions, and nothing typed is lost", async ({
  page,
  context,
}) => {
  const bike = await openBike(page, "Vessock Fat");
  const other = await context.newPage();
  for (const tab of [page, other]) {
    await tab.goto(`${bike}/edit`);
    await ready(tab);
  }
  await other.getByLabel("Brakes").fill("discs, bedded in");
  await other.getByRole("button", { name: "Save" }).click();
  await expect(other.getByText("discs, bedded in")).toBeVisible();
  await page.getByLabel("Brakes").fill("discs, squealing");
  await page.getByRole("button", { name: "Save" }).click();
  const notice = page.getByRole("alert").filter({ hasText: "This was changed meanwhile" });
  await expect(notice).toBeVisible();
  await expect(notice.getByRole("row").filter({ hasText: "Brakes" })).toContainText(
    /discs, squealing.*discs, bedded in/,
  );
  await expect(page.getByLabel("Brakes")).toHaveValue("discs, squealing");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByText("discs, squealing")).toBeVisible();
  await other.close();
});

test("a form kept as it is typed says when it met another's change, and what was typed outlives the page", async ({
  page,
  context,
}) => {
  await newSweep(page);
  await page.getByLabel("Name").fill("Two at one sweep");
  await page.getByRole("button", { name: "Lay out the grid" }).click();
  await expect(page.getByLabel("Speed, row 1")).toBeVisible();
  const other = await context.newPage();
  await other.goto(page.url());
  for (const tab of [page, other]) await ready(tab);
  await other.getByLabel("Speed, row 1").fill("14");
  await expect(other.getByText("saved as typed")).toBeVisible();
  await other.close();
  await page.getByLabel("Amps, row 1").fill("6-7");
  const notice = page.getByRole("alert").filter({ hasText: "This was changed meanwhile" });
  await expect(notice).toBeVisible();
  await expect(page.getByText("not saved yet", { exact: true })).toBeVisible();
  await page.reload();
  // Typed here and typed there: both stand, and the page asks again.
  await expect(page.getByLabel("Amps, row 1")).toHaveValue("6-7");
  await expect(notice).toBeVisible();
  await notice.getByRole("button").first().click();
  await expect(page.getByText("saved as typed")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Amps, row 1")).toHaveValue("6-7");
});

test("a form's saves never meet one another, however late their answers come", async ({ page }) => {
  await newSweep(page);
  await page.getByLabel("Name").fill("One hand at one sweep");
  await page.getByRole("button", { name: "Lay out the grid" }).click();
  await expect(page.getByLabel("Speed, row 1")).toBeVisible();
  await ready(page);
  let late = 0;
  await page.route("**/compare/sweeps/**", async (route) => {
    if (route.request().method() !== "POST") return route.continue();
    // Each is carried out at once, and its answer comes after the next was sent.
    const answer = await route.fetch();
    late += 1;
    await new Promise((resolve) => setTimeout(resolve, 2500));
    await route.fulfill({ response: answer }).catch(() => undefined);
  });
  const typed = [8.2, 8.4, 8.1].map((amps, i) => [`Amps, row ${(i % 2) + 1}`, String(amps + i)] as const);
  const shown = new Map<string, string>();
  for (const [label, text] of [...typed, ...typed.map(([label, text]) => [label, `${text}1`] as const)]) {
    await page.getByLabel(label, { exact: true }).fill(text);
    shown.set(label, text);
    await page.waitForTimeout(900);
  }
  await expect(page.getByText("saved as typed")).toBeVisible({ timeout: 30_000 });
  expect(late).toBeGreaterThan(1);
  await expect(page.getByText("This was changed meanwhile")).toHaveCount(0);
  await page.unroute("**/compare/sweeps/**");
  await page.reload();
  for (const [label, text] of shown) await expect(page.getByLabel(label, { exact: true })).toHaveValue(text);
});

test("an undo after a later change is refused, and says so", async ({ page }) => {
  const bike = await openBike(page, "Vessock Fat");
  const save = async (what: string) => {
    await page.goto(`${bike}/edit`);
    await ready(page);
    await page.getByLabel("Comfort parts").fill(what);
    await page.getByRole("button", { name: "Save" }).click();
    await expect(page.getByRole("button", { name: "Undo" })).toBeVisible();
    return page.url();
  };
  const first = await save("seat-post");
  await save("seat-post and bars");
  await page.goto(first);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("It was changed again since").last()).toBeVisible();
  await expect(page.getByText("seat-post and bars")).toBeVisible();
});

test("the conditions of a test are undone like anything else", async ({ page }) => {
  await page.goto("/strip");
  await page.getByRole("link", { name: "levee run-down" }).click();
  await page.getByRole("link", { name: "Conditions" }).click();
  await ready(page);
  const title = page.getByLabel("Title");
  await title.fill("levee run-down, renamed");
  await page.getByRole("button", { name: "Save" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("renamed");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("heading", { level: 1 })).not.toContainText("renamed");
});

test("a row that cannot be read is shown where it would stand, and every page is served", async ({
  page,
}) => {
  const bike = await openBike(page, "Pellam Step");
  await sql("update bike set mass_kg = 1e308 where name = 'Pellam Step'");
  const [entry] = await sql(
    "update entry set seq = 9007199254740992 where id = (select id from entry where kind = 'checkIn' order by id limit 1) returning id, ride_id",
  );
  const [test_] = await sql("select test_id from ride where id = $1", [entry!["ride_id"]]);
  for (const path of [
    "/",
    "/bikes",
    "/plan",
    "/ride",
    "/strip",
    "/compare",
    "/compare/claims",
    "/compare/climbs",
  ]) {
    const response = await page.goto(path);
    // 202: its figures are still being put side by side, and come by themselves.
    expect([path, [200, 202].includes(response!.status())]).toEqual([path, true]);
  }
  await page.goto("/bikes");
  const shown = page.getByRole("region", { name: "What cannot be read" });
  await expect(shown).toContainText("Pellam Step");
  await expect(shown).toContainText("A bike weighs 5 to 150 kg");
  await expectAccessible(page);
  await page.goto(bike);
  await expect(page.getByText("What is stored here cannot be read")).toBeVisible();
  await page.goto(`/strip/${test_!["test_id"]}`);
  await expect(page.getByRole("region", { name: "What cannot be read" })).toContainText(
    "An entry of the log",
  );
  await sql("update bike set mass_kg = 24 where name = 'Pellam Step'");
  await sql("update entry set seq = 1 where id = $1", [entry!["id"]]);
});

test("a sweep without a row yet takes no page down", async ({ page }) => {
  await page.goto("/compare/sweeps/new");
  await page.getByRole("button", { name: "Lay out the grid" }).click();
  await expect(page).toHaveURL(/sweeps\/[0-9a-f-]{36}/);
  for (const path of ["/compare", "/compare/claims", "/compare/climbs", "/compare/sweeps"]) {
    const response = await page.goto(path);
    // 202: its figures are still being put side by side, and come by themselves.
    expect([path, [200, 202].includes(response!.status())]).toEqual([path, true]);
  }
});

let ride = "";
const line = (page: Page) => page.getByLabel("The line");

test("words of the language's own are only words on the line", async ({ page }) => {
  await page.goto("/ride");
  await page.getByRole("button", { name: "Start How far with the child on" }).click();
  await expect(page).toHaveURL(/\/ride\/[0-9a-f-]{36}/);
  ride = new URL(page.url()).pathname;
  await ready(page);
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await line(page).fill("constructor 5");
  await line(page).press("Enter");
  await expect(page.getByRole("list", { name: "Last entries" })).toContainText("constructor 5");
  await expect(page.getByText("Every entry is kept.")).toBeVisible();
});

test("an entry the desk breaks on is set aside in sight and holds back no other; tried again it goes through", async ({
  page,
}) => {
  await page.route(`**${ride}/entries`, async (route) => {
    if (route.request().postData()?.includes("poisoned")) await route.fulfill({ status: 500, body: "{}" });
    else await route.fallback();
  });
  await page.goto(ride);
  await ready(page);
  await line(page).fill('3mi 95% "poisoned"');
  await line(page).press("Enter");
  await line(page).fill('4mi 93% "after it"');
  await line(page).press("Enter");
  const aside = page.getByRole("alert", { name: "Not taken by the desk" });
  await expect(aside).toContainText("poisoned");
  await expect(aside).toContainText("all others go through");
  const onDesk = async () =>
    (
      await sql("select body->>'note' as note from entry where body->>'note' in ('poisoned', 'after it')")
    ).map(({ note }) => note);
  await expect.poll(onDesk).toEqual(["after it"]);
  await expectAccessible(page);
  await page.unrouteAll();
  await aside.getByRole("button", { name: "Try again" }).click();
  await expect(aside).toBeHidden();
  await expect.poll(async () => (await onDesk()).sort()).toEqual(["after it", "poisoned"]);
});

test("an id that stands for something else on the desk is told as such", async ({ page }) => {
  await page.goto(ride);
  await ready(page);
  const [stored] = await sql("select id, ride_id from entry where body->>'note' = 'after it'");
  const answer = await page.request.post(`${ride}/entries`, {
    headers: { origin: new URL(page.url()).origin },
    data: {
      rideId: stored!["ride_id"],
      entries: [
        { id: stored!["id"], seq: 1, at: null, supersedes: null, body: { kind: "note", note: "another" } },
      ],
    },
  });
  expect(await answer.json()).toEqual({ verdicts: [{ id: stored!["id"], told: "conflict" }] });
});

test("another ride pressed many times is one ride", async ({ page }) => {
  await page.goto(ride.replace("/ride/", "/strip/"));
  await ready(page);
  const form = { intent: "addRide", nextRideId: await page.locator('[name="nextRideId"]').inputValue() };
  const origin = new URL(page.url()).origin;
  await Promise.all(
    Array.from({ length: 10 }, () =>
      page.request.post(page.url(), { form, headers: { origin }, maxRedirects: 0 }),
    ),
  );
  const [rides] = await sql("select count(*)::int as count from ride where test_id = $1", [
    ride.replace("/ride/", ""),
  ]);
  expect(rides).toEqual({ count: 2 });
});

test("a backup is made, told on Today, and brought back beside the desk or in its place", async ({
  page,
}) => {
  await page.goto("/settings");
  await ready(page);
  await page.getByRole("button", { name: "Back up now" }).click();
  await expect(page.getByText("A backup was made.")).toBeVisible();
  await expect(page.getByRole("link", { name: /^Download the backup/ })).toHaveCount(1);
  await expectAccessible(page);
  await page.goto("/");
  await expect(page.getByRole("list", { name: "The desk itself" })).toContainText(
    "Last backup within the hour.",
  );
  await page.goto("/settings");
  await ready(page);
  await page.getByText("Bring a backup back").click();
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(page.getByText("Name the new desk in small letters")).toBeVisible();
  await page.getByLabel("in place of this desk").check();
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(page.getByText("Tick that it is to take this desk's place.")).toBeVisible();
  await sql("update bike set name = 'Renamed since' where name = 'Vessock Fat'");
  await page.getByLabel("Yes, in its place").check();
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(page.getByText("It is in place.")).toBeVisible();
  await page.goto("/bikes");
  await expect(page.getByRole("link", { name: "Vessock Fat", exact: true })).toBeVisible();
  await page.goto("/settings");
  await ready(page);
  await page.getByText("Bring a backup back").click();
  await page.getByLabel("Which").selectOption({ label: "a file I send" });
  await page.getByLabel("in place of this desk").check();
  await page.getByLabel("Yes, in its place").check();
  await page
    .locator('input[name="file"]')
    .setInputFiles({ name: "wrong.backup", mimeType: "application/gzip", buffer: Buffer.from("hello") });
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(page.getByText("It is not a backup of Barometron. Nothing was changed.")).toBeVisible();
});
