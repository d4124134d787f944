import { expect, type Page } from "@playwright/test";
import { expectAccessible } from "./accessible";
import { newTest } from "./newTest";
import { ready, test } from "./watched";

const card = (page: Page, name: string) =>
  page.getByRole("listitem").filter({ has: page.getByRole("heading", { name, exact: true }) });

test("a recorder an hour ahead and a meter with a minus are tied to the log, and move the strip", async ({
  page,
}) => {
  const address = await newTest(page, "Down ferry lane");
  await page.getByRole("link", { name: "Import files" }).first().click();
  await ready(page);
  // Notes first: they are looked over on their own.
  await page.getByLabel("Files of this ride").setInputFiles("examples/ferry-lane-notes.csv");
  await page.getByRole("button", { name: "Save 6 check-ins" }).click();
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("Wh/mi");

  await page.goto(`${address}/import`);
  await ready(page);
  await page
    .getByLabel("Files of this ride")
    .setInputFiles(["examples/ferry-lane.fit", "examples/ferry-lane-meter.csv"]);
  const fit = card(page, "ferry-lane.fit");
  const meter = card(page, "ferry-lane-meter.csv");
  await expect(fit).toContainText("By the log its clock is 1 h ahead: another zone, or summer time", {
    timeout: 60_000,
  });
  await expect(fit).toContainText(/heart 11\d a minute, \d+ W at the cranks/);
  const offset = fit.getByLabel("Add to its times");
  expect(Number(await offset.inputValue())).toBeLessThan(-3540);
  expect(Number(await offset.inputValue())).toBeGreaterThan(-3680);
  await expect(meter).toContainText("This is a logger's samples.", { timeout: 60_000 });
  await expect(meter.getByLabel("Column Battery voltage [V] is")).toHaveValue("volts");
  await expect(meter).toContainText("out of the pack");
  await expectAccessible(page);
  await page.getByRole("button", { name: "Import 2 files" }).click();
  await expect(fit.getByRole("status")).toHaveText("kept", { timeout: 60_000 });
  await expect(meter.getByRole("status")).toHaveText("kept", { timeout: 60_000 });

  await page.getByRole("link", { name: "See the clocks" }).click();
  await ready(page);
  await expect(page.getByRole("img", { name: /^Clocks over each other/ })).toBeVisible();
  const clock = page.getByRole("form", { name: "Clock of logger" });
  await expect(clock).toContainText(/By the recorder its clock is|agrees with the recorder/);
  await expectAccessible(page);
  // Moved by hand, and what cannot be read is said beside it.
  await clock.getByLabel("Add to its times").fill("soon");
  await clock.getByRole("button", { name: "Save this clock" }).click();
  await expect(clock.getByRole("alert")).toContainText("type seconds, such as -12");
  await clock.getByLabel("Add to its times").fill("-0:00:37");
  await clock.getByRole("button", { name: "Save this clock" }).click();
  await expect(clock).toContainText("37 s are taken off its times.");

  // A part of the way is painted by hand.
  const painting = page.getByRole("form", { name: "Ground by hand" });
  await painting.getByLabel("From").fill("2");
  await painting.getByLabel("to", { exact: true }).fill("4.5");
  await painting.getByLabel("it was").selectOption("fine gravel");
  await painting.getByRole("button", { name: "Paint it" }).click();
  await expect(page.getByText("2 lines were added to the log.")).toBeVisible();
  await page.goto(`${address}?tab=parts`);
  await ready(page);
  await expect(page.getByRole("main")).toContainText("fine gravel");
  await expect(page.getByRole("main")).toContainText("asphalt");
});

test("the same file again adds nothing; files of other things say so", async ({ page }) => {
  const address = await newTest(page, "Twice down the lane");
  await page.goto(`${address}/import`);
  await ready(page);
  const field = page.getByLabel("Files of this ride");
  await field.setInputFiles("examples/ferry-lane.fit");
  const fit = card(page, "ferry-lane.fit");
  await expect(fit).toContainText("could not be held against anything", { timeout: 60_000 });
  await page.getByRole("button", { name: "Import one file" }).click();
  await expect(fit.getByRole("status")).toHaveText("kept", { timeout: 60_000 });
  await page.reload();
  await ready(page);
  await field.setInputFiles(["examples/ferry-lane.fit", "examples/levee-and-harbour.tcx"]);
  await expect(fit).toContainText("Just this file is there already.", { timeout: 60_000 });
  await expect(card(page, "levee-and-harbour.tcx")).toContainText(
    "It takes the place of the track that is there.",
    { timeout: 60_000 },
  );
  await expect(page.getByRole("button", { name: "Import one file" })).toBeEnabled();
  await card(page, "levee-and-harbour.tcx")
    .getByRole("button", { name: /^Leave out/ })
    .click();
  await expect(page.getByRole("button", { name: "Import 0 files" })).toBeDisabled();
});

const FILM = `[2:00] We're off from the slip, fully charged.
[26:00] 5.3 miles in and 80 percent left.
[1:08:00] That's 15.1 miles, 48 percent.
[1:14:00] 16.8 miles and 45 percent left.
[1:26:00] Home. 19.5 miles, 38 percent left.`;

test("a film's clock is found by the recorder, and tied by hand", async ({ page }) => {
  const address = await newTest(page, "Ferry lane on film");
  await page.goto(`${address}/import`);
  await ready(page);
  const field = page.getByLabel("Files of this ride");
  await field.setInputFiles("examples/ferry-lane.fit");
  await page.getByRole("button", { name: "Import one file" }).click();
  await expect(card(page, "ferry-lane.fit").getByRole("status")).toHaveText("kept", { timeout: 60_000 });

  await page.goto(`${address}/narration`);
  await ready(page);
  await page.getByLabel("Or paste what was said").fill(FILM);
  await page.getByRole("button", { name: "Read it and show me" }).click();
  await page.getByRole("button", { name: "Accept all that is open" }).click();
  await page.getByRole("button", { name: /^Save \d+ lines/ }).click();
  await expect(page.getByText(/lines are in the log\./)).toBeVisible();

  await page.goto(`${address}/clocks`);
  await ready(page);
  const film = page.getByRole("form", { name: "Clock of the film" });
  await expect(film).toContainText("Nothing ties it to the ride's clock yet. 5 lines of it have no time.");
  await expect(film).toContainText(/it began at 09:0[789]:\d\d, give or take/);
  await film.getByRole("button", { name: "Save this clock" }).click();
  await expect(film.getByRole("alert")).toContainText("Type what the clock said, such as 10:20");
  await film.getByRole("button", { name: "Take the recorder's" }).click();
  await expect(film.getByLabel("The clock said")).toHaveValue(/^09:0[789]:\d\d$/);
  await expect(page.getByRole("img", { name: /film, said from/ })).toBeVisible();
  await expectAccessible(page);
  await film.getByRole("button", { name: "Save this clock" }).click();
  await expect(film.getByRole("status")).toHaveText("5 lines have another time now.");
  await expect(film).toContainText(/It began at 09:0[789]:\d\d, by 5 lines/);
  await film.getByLabel("The clock said").fill("08:10");
  await film.getByLabel("when the film was at").fill("2:00");
  await film.getByRole("button", { name: "Save this clock" }).click();
  await expect(film).toContainText("It began at 08:08:00, by 5 lines");
  await film.getByRole("button", { name: "Save this clock" }).click();
  await expect(film.getByRole("status")).toHaveText("Every line of it had that time already.");
});
