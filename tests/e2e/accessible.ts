import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";

/**
 * Fails with the rule and the place when the page has an accessibility fault, or shows a quantity nobody wrote out.
 *
 * @param contrast whether every text is held against its ground too, which takes most of the time: windows.spec does so on every page
 */
export async function expectAccessible(page: Page, contrast = false): Promise<void> {
  // Frames there are none of: the quicker way of the two.
  const { violations } = await new AxeBuilder({ page })
    .setLegacyMode(true)
    .options({
      resultTypes: ["violations"],
      rules: { "target-size": { enabled: true }, "color-contrast": { enabled: contrast } },
    })
    .analyze();
  expect(
    violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(" ")).join(", ")}`),
  ).toEqual([]);
  expect(await page.locator("body").innerText()).not.toContain("‹");
}

/** Fails when the page is wider than its window. */
export async function expectNoSideways(page: Page): Promise<void> {
  expect(
    await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth),
  ).toBeLessThanOrEqual(0);
}

/** Fails where text has less than seven to one against its ground: what is read in the sun and by a bike's light. */
export async function expectStrongContrast(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .include(".field-page")
    .withRules(["color-contrast-enhanced"])
    .analyze();
  expect(
    violations.flatMap(({ nodes }) =>
      nodes.map(({ target, any }) => `${target.join(" ")}: ${any[0]?.message}`),
    ),
  ).toEqual([]);
}
