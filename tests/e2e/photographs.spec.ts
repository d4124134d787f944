import { readFileSync } from "node:fs";
import { expect, type Page } from "@playwright/test";
import { expectAccessible } from "./accessible";
import { newTest } from "./newTest";
import { ready, test } from "./watched";

const DISPLAY = "examples/ferry-lane-display.jpg";

/** The picture of an entry as the server gives it. */
async function pictureOf(page: Page): Promise<Buffer> {
  const picture = page.getByRole("img", { name: /photographed$/ });
  await expect(picture).toBeVisible();
  const response = await page.request.get((await picture.getAttribute("src"))!);
  expect(response.headers()["content-type"]).toBe("image/jpeg");
  return response.body();
}

test("a photograph taken with no network waits with its check-in, and is read off at the desk", async ({
  page,
  context,
}) => {
  const address = await newTest(page, "Pictures on the ferry lane");
  await page.goto(address.replace("/strip/", "/ride/"));
  await ready(page);
  await page.getByLabel("Distance").fill("0");
  await page.getByLabel("Percent").fill("100");
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.getByText("Every entry is kept.")).toBeVisible();
  await context.setOffline(true);
  await page.getByRole("button", { name: /^Check-in/ }).click();
  await page.getByLabel("Distance").fill("10.1");
  await page.getByLabel(/^Photograph the display/).setInputFiles(DISPLAY);
  await expect(page.getByText("Photograph taken")).toBeVisible();
  await page.getByRole("button", { name: "Save", exact: true }).first().click();
  await expect(page.getByText("One photograph waits.")).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByText("One photograph waits.")).toBeHidden();
  await expect(page.getByText("Every entry is kept.")).toBeVisible();

  await page.goto(address);
  await page.getByRole("link", { name: "Read off photographs" }).click();
  await ready(page);
  await expect(page.getByText("1 of 1, 1 to be read")).toBeVisible();
  const bytes = await pictureOf(page);
  expect(bytes.length).toBeGreaterThan(2000);
  // Neither its place nor its camera came along.
  expect(bytes.includes("Exif")).toBe(false);
  await expectAccessible(page);
  const form = page.getByRole("form", { name: "Correct a check-in" });
  await form.getByLabel("Percent").fill("66");
  await form.getByLabel("Percent").press("Enter");
  await expect(page.getByText("1 of 1, all read")).toBeVisible();
  await page.getByRole("link", { name: "Back to the strip" }).click();
  await expect(page.getByRole("region", { name: "Ledger" })).toContainText("Wh/mi");
  await expect(page.getByRole("link", { name: /^Photograph of the entry at 10\.1 mi/ })).toBeVisible();
});

test("photographs of a card become check-ins at their moment, are turned by keys, and can be taken off", async ({
  page,
}) => {
  const address = await newTest(page, "Pictures off a card");
  await page.goto(`${address}/import`);
  await ready(page);
  const plain = readFileSync(DISPLAY);
  // Without its second segment a photograph has no moment.
  const timeless = Buffer.concat([plain.subarray(0, 2), plain.subarray(4 + plain.readUInt16BE(4))]);
  await page.getByLabel("Files of this ride").setInputFiles([
    { name: "one.jpg", mimeType: "image/jpeg", buffer: plain },
    { name: "two.jpg", mimeType: "image/jpeg", buffer: plain },
    { name: "no-time.jpg", mimeType: "image/jpeg", buffer: timeless },
    { name: "torn.jpg", mimeType: "image/jpeg", buffer: plain.subarray(0, 400) },
  ]);
  const card = (name: string) =>
    page.getByRole("listitem").filter({ has: page.getByRole("heading", { name }) });
  await expect(card("torn.jpg").getByRole("alert")).toContainText("This is no photograph that pages show");
  await page.getByRole("button", { name: "Import 3 files" }).click();
  await expect(card("one.jpg").getByRole("status")).toHaveText("kept");
  await expect(card("two.jpg").getByRole("status")).toHaveText("kept");
  await expect(card("no-time.jpg").getByRole("alert")).toContainText("wrote no time into it");
  await page.goto(`${address}/photographs`);
  await ready(page);
  await expect(page.getByText("1 of 2, 2 to be read")).toBeVisible();
  await page.getByRole("heading", { level: 1 }).click();
  await page.keyboard.press("j");
  await expect(page.getByText("2 of 2, 2 to be read")).toBeVisible();
  await expect(
    page.getByRole("form", { name: "Correct a check-in" }).getByLabel("Time", { exact: true }),
  ).toHaveValue("08:52");
  await page.getByRole("button", { name: "Take this photograph off" }).click();
  await expect(page.getByText("1 of 1, 1 to be read")).toBeVisible();
});

test("a hostile picture is refused by the server itself", async ({ page }) => {
  const address = await newTest(page, "No pictures");
  const ride = address.replace("/strip/", "/ride/");
  const record = (await (await page.request.get(`${address}/record`)).json()) as { tests: unknown[] };
  expect(record.tests).toHaveLength(1);
  const link = await page.getByRole("link", { name: "Import files" }).first().getAttribute("href");
  const rideId = new URL(link ?? "", page.url()).searchParams.get("ride");
  expect(rideId).not.toBeNull();
  const send = (buffer: Buffer, fields: Record<string, string> = {}) =>
    page.request.post(`${ride}/photograph`, {
      headers: { origin: new URL(page.url()).origin },
      multipart: {
        id: "01990000-0000-7000-8000-000000000001",
        entryId: "01990000-0000-7000-8000-000000000002",
        rideId: rideId ?? "",
        takenAt: "",
        ...fields,
        photograph: { name: "x.jpg", mimeType: "image/jpeg", buffer },
      },
    });
  expect((await send(Buffer.from("<svg onload=alert(1)>"))).status()).toBe(400);
  expect((await send(Buffer.alloc(7 * 1024 * 1024, 0xff))).status()).toBe(400);
  expect((await send(readFileSync(DISPLAY), { entryId: "no id" })).status()).toBe(400);
  expect(
    (await send(readFileSync(DISPLAY), { rideId: "01990000-0000-7000-8000-000000000003" })).status(),
  ).toBe(404);
});
