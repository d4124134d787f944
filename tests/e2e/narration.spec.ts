import { readFileSync } from "node:fs";
import { join } from "node:path";
import { expect } from "@playwright/test";
import { expectAccessible } from "./accessible";
import { newTest } from "./newTest";
import { ready, test } from "./watched";

const NARRATION = readFileSync(join(import.meta.dirname, "..", "narrations", "part-charge-raw.txt"), "utf8")
  .split("\n")
  .filter((line) => !/^[=+] /.test(line))
  .join("\n");

test("the quick figure's box takes what was said", async ({ page }) => {
  await page.goto("/quick");
  await ready(page);
  await page
    .getByRole("textbox", { name: /^A pack and a ride/ })
    .fill(readFileSync("examples/hauler-run-down.txt", "utf8"));
  await expect(page.getByText(/Wh\/mi/).first()).toBeVisible();
  await expect(page.getByText("181 lb")).toBeVisible();
  await page.getByRole("button", { name: "Make it a test" }).click();
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("Wh/mi");
});

test("what was said is gone through with keys, kept with its place in the film, and never doubled", async ({
  page,
}) => {
  await newTest(page, "Said over the towpath", "2026-10-20");
  await page.getByRole("link", { name: "Import what was said" }).click();
  await ready(page);
  await page.getByRole("button", { name: "Read it and show me" }).click();
  await expect(page.getByText("There is no speech in it")).toBeVisible();
  await page.getByLabel("Or paste what was said").fill(NARRATION);
  await page.getByRole("button", { name: "Read it and show me" }).click();
  const moments = page.getByRole("list", { name: "Moments" });
  await expect(moments.getByRole("listitem").first()).toContainText("full");
  await expect(page.getByRole("region", { name: "Set-up, in pencil" })).toContainText("36 V");
  await expectAccessible(page);
  await expect(page.getByRole("region", { name: "Left out" })).toContainText("still to go");
  await page.getByRole("button", { name: /^Write (it|them) there in pencil/ }).click();
  await expect(page.getByRole("region", { name: "Set-up, in pencil" }).getByRole("status")).toContainText(
    /in pencil\.|has it in ink, which stays\./,
  );
  await expect(page.getByRole("button", { name: /^Save 0 lines/ })).toBeDisabled();
  await page.keyboard.press("a");
  await page.keyboard.press("x");
  await expect(moments.getByText("dropped")).toBeVisible();
  await moments.getByRole("button", { name: "Change 5 mi", exact: true }).click();
  await page.getByLabel("Instead of 5 mi").fill("5.2");
  await page.keyboard.press("Enter");
  await expect(moments.getByRole("button", { name: "Change 5.2 mi" })).toBeVisible();
  await moments
    .getByRole("listitem")
    .filter({ hasText: "5.2 mi" })
    .getByRole("button", { name: /^Accept the moment/ })
    .click();
  // A clock that cannot be read saves nothing without its time.
  await page.getByLabel("The clock said").fill("half ten");
  await expect(page.getByText("Type what the clock said, such as 10:20 or 10:20:15.")).toBeVisible();
  await expect(page.getByRole("button", { name: /^Save \d+ lines?/ })).toBeDisabled();
  await page.getByLabel("The clock said").fill("10:20");
  await page.getByLabel("when the film was at").fill("0:00");
  // A page that is loaded again goes on where it was left.
  await page.reload();
  await ready(page);
  await expect(page.getByText(/It is as you left it: \d+ readings were decided/)).toBeVisible();
  await expect(moments.getByText("dropped")).toBeVisible();
  await expect(moments.getByRole("button", { name: "Change 5.2 mi" })).toBeVisible();
  await expect(page.getByLabel("The clock said")).toHaveValue("10:20");
  await page.getByRole("button", { name: /^Save \d+ lines/ }).click();
  await expect(page.getByText(/lines are in the log\./)).toBeVisible();
  await page.getByRole("button", { name: /^Save \d+ lines/ }).click();
  await expect(page.getByText(/0 lines are in the log; \d+ were there already/)).toBeVisible();
  await page.getByRole("link", { name: "To the strip" }).click();
  const readings = page.getByRole("region", { name: /^Readings/ });
  await expect(readings).toContainText("5.2");
  await expect(readings).toContainText("in the film");
});

test("a new test leads straight to what was said; its questions are answered by a press", async ({
  page,
}) => {
  await page.goto("/strip/new");
  await page.getByRole("link", { name: "Brindlow 3" }).click();
  await page.getByLabel("Title").fill("Two dials on the dyke");
  await page.getByLabel("Day").fill("2026-10-20");
  await page.getByRole("button", { name: "Save and import what was said" }).click();
  await ready(page);
  await page
    .getByLabel("Or paste what was said")
    .fill(
      "[0:05] We're off, fully charged.\n[9:00] The phone says 15.1 miles and the bike says 15.9 miles, 70 percent left.",
    );
  await page.getByRole("button", { name: "Read it and show me" }).click();
  const question = page.getByRole("region", { name: "A question" });
  await expect(question).toContainText("Two instruments");
  const moments = page.getByRole("list", { name: "Moments" });
  await expect(moments).toContainText("15.1 mi");
  await question.getByRole("button", { name: "display, 15.9 mi" }).click();
  await expect(moments).toContainText("15.9 mi");
  await question.getByRole("button", { name: "recorder, 15.1 mi" }).click();
  await expect(moments).toContainText("15.1 mi");
});
