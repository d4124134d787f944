import { expect, type Locator, type Page } from "@playwright/test";
import { ready, test } from "./watched";

/** How much a person presses: every tap and every key counts one. */

class Hand {
  presses = 0;

  constructor(private readonly page: Page) {}

  async tap(target: Locator): Promise<void> {
    this.presses += 1;
    await target.click();
  }
  /** Types into what has the focus. */
  async type(keys: string): Promise<void> {
    this.presses += keys.length;
    await this.page.keyboard.type(keys);
  }
}

test("one field and two presses from Today to a first figure and its test", async ({ page }) => {
  await page.goto("/");
  await ready(page);
  await page.getByRole("link", { name: "Quick figure" }).click();
  await page
    .getByLabel("A pack and a ride")
    .fill("52 V 17 Ah, full, 27 mi, 31 % left, throttle, 175 lb rider, a gull stole my lunch");
  await expect(page.getByText("What would make it surer")).toBeVisible();
  await expect(page.getByText("level: throttle")).toBeVisible();
  await page.getByRole("button", { name: "Make it a test" }).click();
  await expect(page.getByRole("slider", { name: /^Strip over 27\.0 mi/ })).toBeVisible();
  await expect(page.getByText("a gull stole my lunch").first()).toBeAttached();
});

test.describe("on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 } });

  test("a check-in is nine presses at most, and a ride from its plan to its figure eighty", async ({
    page,
  }) => {
    await page.goto("/ride");
    await ready(page);
    const hand = new Hand(page);
    await hand.tap(page.getByRole("button", { name: "Start How far with the child on" }));
    await expect(page.getByRole("heading", { name: "Start readings" })).toBeVisible();
    await ready(page);
    await hand.tap(page.getByLabel("Distance"));
    await hand.type("0");
    await hand.tap(page.getByLabel("Percent"));
    await hand.type("100");
    await hand.tap(page.getByLabel("The charger said done"));
    await hand.tap(page.getByRole("button", { name: "Start", exact: true }));
    for (const [distance, percent] of [
      ["5.2", "82"],
      ["10.4", "65"],
      ["14.9", "49"],
      ["19.8", "33"],
    ] as const) {
      const before = hand.presses;
      await hand.tap(page.getByRole("button", { name: "Check-in" }));
      await expect(page.getByLabel("Distance")).toBeFocused();
      await hand.type(distance);
      await hand.tap(page.getByLabel("Percent"));
      await hand.type(percent);
      await hand.tap(page.getByRole("button", { name: "Save" }).first());
      await expect(page.getByRole("list", { name: "Last entries" })).toContainText(`${percent}%`);
      expect(hand.presses - before).toBeLessThanOrEqual(9);
    }
    await hand.tap(page.getByLabel("The line"));
    await hand.type("end 20.1mi 32%");
    await page.keyboard.press("Enter");
    hand.presses += 1;
    await expect(page.getByText("Every entry is kept.")).toBeVisible();
    await hand.tap(page.getByRole("link", { name: "Strip of this test" }));
    await expect(page.getByRole("region", { name: "Ledger" })).toContainText(/\d ± \d/);
    expect(hand.presses).toBeLessThanOrEqual(80);
  });
});
