import { expect, type Page } from "@playwright/test";
import { withClient } from "#db/backup/databases";
import { ready, test } from "./watched";

/** The first hour at an empty desk, counted: what is filled and what is pressed until the answer stands there. */
test.describe.configure({ mode: "serial" });

/** A person who counts what they do. */
function counting(page: Page) {
  const done = { fields: 0, presses: 0 };
  return {
    done,
    fill: async (label: string, text: string) => {
      done.fields += 1;
      await page.getByLabel(label).first().fill(text);
    },
    press: async (name: string | RegExp) => {
      done.presses += 1;
      await page.getByRole("button", { name }).or(page.getByRole("link", { name })).first().click();
      await ready(page);
    },
  };
}

test.beforeAll(async ({ databaseUrl }) => {
  await withClient(databaseUrl, async (client) => {
    for (const table of ["bike", "test", "plan", "sweep", "climb", "rider"])
      await client.query(`update ${table} set archived_at = now()`);
  });
});

const NOTES = "A pack and a ride";

test("an own figure takes one field, and one press makes it a test", async ({ page }) => {
  await page.goto("/");
  await ready(page);
  const { fill, press, done } = counting(page);
  await fill(NOTES, "52 V 17 Ah, full, 27 mi, 31 % left, throttle, 175 lb rider");
  await expect(page.getByText("The true figure lies in this span")).toBeVisible();
  expect(done).toEqual({ fields: 1, presses: 0 });
  await press("Make it a test");
  await expect(page.getByText("show the working").first()).toBeVisible();
  expect(done).toEqual({ fields: 1, presses: 1 });
});

test("two named bikes are compared with four fields and six presses at most", async ({ page }) => {
  await page.goto("/quick");
  await ready(page);
  const { fill, press, done } = counting(page);
  for (const [name, notes] of [
    ["Reed One", "52 V 17 Ah, full, 27 mi, 31 % left"],
    ["Reed Two", "48 V 14 Ah, from 95 to 40 % over 16 mi"],
  ] as const) {
    if (done.presses > 0) {
      await press("Today");
      await press("Quick figure");
    }
    await fill(NOTES, notes);
    await fill("Name of the bike", name);
    await press("Make it a test");
  }
  await press("Compare");
  for (const name of ["Reed One", "Reed Two"])
    await expect(page.getByRole("checkbox", { name: new RegExp(`^Choose ${name}`) })).toBeVisible();
  expect(done.fields).toBeLessThanOrEqual(4);
  expect(done.presses).toBeLessThanOrEqual(6);
});
