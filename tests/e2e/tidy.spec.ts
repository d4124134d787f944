import { expect, type Page } from "@playwright/test";
import { test } from "./watched";

/** Records are renamed, copied, merged, archived, deleted and brought back, each in one press. */
test.describe.configure({ mode: "serial" });

async function openTest(page: Page, name: string) {
  await page.goto("/strip");
  await page.getByRole("link", { name, exact: true }).first().click();
  await expect(page.getByRole("button", { name: `Delete ${name}` })).toBeVisible();
}

test("a test is renamed, copied, deleted and brought back", async ({ page }) => {
  await page.goto("/strip");
  const first = page.getByRole("table").getByRole("rowheader").first().getByRole("link");
  const name = (await first.textContent()) ?? "";
  await first.click();
  await page.getByRole("button", { name: "Rename" }).click();
  await page.getByLabel("New name").fill("  ");
  await page.getByRole("button", { name: "Save the name" }).click();
  await expect(page.getByText("Type a name.")).toBeVisible();
  await page.getByLabel("New name").fill("Round the levee again");
  await page.getByRole("button", { name: "Save the name" }).click();
  await expect(page.getByText("Renamed.").last()).toBeVisible();
  await expect(page.getByRole("heading", { level: 1 })).toContainText("Round the levee again");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("heading", { level: 1 })).toContainText(name);

  await page.getByRole("button", { name: `Duplicate ${name}` }).click();
  await expect(page.getByText("Copied. This is the copy.").last()).toBeVisible();
  await expect(page.getByRole("heading", { level: 1 })).toContainText(`${name}, copy`);
  await page.getByRole("button", { name: `Delete ${name}, copy` }).click();
  await expect(page.getByText("In the trash for 30 days").last()).toBeVisible();
  await expect(page.getByRole("link", { name: `${name}, copy` })).toBeHidden();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("link", { name: `${name}, copy` })).toBeVisible();

  await openTest(page, `${name}, copy`);
  await page.getByRole("button", { name: `Archive ${name}, copy` }).click();
  await expect(page.getByRole("link", { name: `${name}, copy` })).toBeHidden();
  await page.getByRole("link", { name: "Show what is archived" }).click();
  await page.getByRole("link", { name: `${name}, copy` }).click();
  await expect(page.getByText("Archived: it counts in no list")).toBeVisible();
  await page.getByRole("button", { name: `Delete ${name}, copy` }).click();
  await page.getByRole("link", { name: "Trash" }).click();
  await page.getByRole("button", { name: `Bring back ${name}, copy` }).click();
  await expect(page.getByText("Brought back.").last()).toBeVisible();
  await expect(page.getByText("The trash is empty.")).toBeVisible();
});

test("a rider who rode is not deleted, but merged with the one they are", async ({ page }) => {
  await page.goto("/bikes/riders/new");
  await page.getByLabel("Name").fill("Maren again");
  await page.getByRole("button", { name: "Save the rider" }).click();
  await page.getByRole("link", { name: "Maren", exact: true }).click();
  await page.getByRole("button", { name: "Delete Maren" }).click();
  await expect(page.getByText(/Maren is used by \d+ tests/)).toBeVisible();
  await page.getByRole("button", { name: "Merge" }).click();
  await page.getByLabel("The same as").selectOption({ label: "Maren again" });
  await page.getByRole("button", { name: "Make them one" }).click();
  await expect(page.getByText("Merged.").last()).toBeVisible();
  await expect(page.getByRole("link", { name: "Maren", exact: true })).toBeHidden();
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText("Undone.").last()).toBeVisible();
  await expect(page.getByRole("link", { name: "Maren", exact: true })).toBeVisible();
});

test("an owner removes for good what is in the trash", async ({ page }) => {
  await page.goto("/bikes/riders/new");
  await page.getByLabel("Name").fill("Nobody");
  await page.getByRole("button", { name: "Save the rider" }).click();
  await page.getByRole("link", { name: "Nobody", exact: true }).click();
  await page.getByRole("button", { name: "Delete Nobody" }).click();
  await expect(page.getByText("In the trash for 30 days").last()).toBeVisible();
  await page.goto("/settings/trash");
  await page.getByRole("button", { name: "Remove all of it for good" }).click();
  await expect(page.getByText("one record removed for good.")).toBeVisible();
  await expect(page.getByText("The trash is empty.")).toBeVisible();
});
