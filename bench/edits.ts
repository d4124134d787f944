import { medianOf } from "#core/base";
import type { Page } from "@playwright/test";
import { median } from "./measure.ts";
import type { Report } from "./report.ts";

interface Edit {
  /** From the key to the new answer on the page, ms. */
  readonly answerMs: number;
  /** The longest the main thread was kept, ms; under 50 counts as none. */
  readonly longestMs: number;
}

/** Sets a reading aside with a key, and watches the ledger and the main thread. */
async function editOnce(page: Page): Promise<Edit> {
  await page.evaluate(() => {
    const watch = window as unknown as { edit: { start: number; answer: number; longest: number } };
    watch.edit = { start: 0, answer: 0, longest: 0 };
    const ledger = document.querySelector("[aria-label=Ledger]")!;
    const before = ledger.textContent;
    new PerformanceObserver((list) => {
      for (const { duration, startTime } of list.getEntries())
        if (watch.edit.start > 0 && startTime >= watch.edit.start)
          watch.edit.longest = Math.max(watch.edit.longest, duration);
    }).observe({ type: "longtask" });
    const observer = new MutationObserver(() => {
      if (ledger.textContent === before || !/nothing set aside/.test(ledger.textContent ?? "")) return;
      watch.edit.answer ||= performance.now();
      observer.disconnect();
    });
    observer.observe(ledger, { childList: true, subtree: true, characterData: true });
    window.addEventListener("keydown", () => (watch.edit.start ||= performance.now()), { capture: true });
  });
  await page.keyboard.press("x");
  await page.waitForFunction(() => (window as unknown as { edit: { answer: number } }).edit.answer > 0);
  const { start, answer } = await page.evaluate(
    () => (window as unknown as { edit: { start: number; answer: number } }).edit,
  );
  await page.locator("[aria-label=Ledger][aria-busy=false]").waitFor();
  const longest = await page.evaluate(
    () => (window as unknown as { edit: { longest: number } }).edit.longest,
  );
  return { answerMs: answer - start, longestMs: longest };
}

/** Edits on a strip: the answer after a key, and the longest the page was kept from drawing a frame. */
export async function benchEdits(
  report: Report,
  page: Page,
  address: string,
  marks: number,
  limit: number,
): Promise<readonly boolean[]> {
  const edits: Edit[] = [];
  await median(5, async () => {
    await page.goto(address, { waitUntil: "networkidle" });
    await page.waitForTimeout(800);
    for (let step = 0; step < 12; step += 1) await page.keyboard.press("ArrowRight");
    const restore = page.getByRole("button", { name: /^Restore/ });
    edits.push(await editOnce(page));
    await restore.first().click();
    await restore.first().waitFor({ state: "detached" });
  });
  return [
    report(
      `edit on ${marks} marks: from the key to the answer`,
      medianOf(edits.map(({ answerMs }) => answerMs)),
      limit,
    ),
    report(
      `edit on ${marks} marks: longest frame (0: none over 50)`,
      medianOf(edits.map(({ longestMs }) => longestMs)),
      50,
    ),
  ];
}
