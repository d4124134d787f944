import { medianOf } from "#core/base";
import type { Page } from "@playwright/test";
import { readCourseGpx } from "#core/io";
import { NOTHING_KNOWN, planSchema, reckonPlan, templateNamed, yieldOf } from "#core/planning";
import { bikeSchema, packRecordSchema } from "#core/records";
import { longTrack } from "./inputs.ts";
import { median } from "./measure.ts";
import type { Report } from "./report.ts";

/** A hundred miles at a point a second. */
const POINTS = 25_000;

/** The plan's core: a long track read, profiled and forecast; what an edit reckons again. */
export async function benchPlanCore(report: Report): Promise<readonly boolean[]> {
  const text = longTrack(POINTS);
  const record = {
    plan: planSchema.parse({
      title: "t",
      question: "claim",
      method: templateNamed("Part charge")!.method,
      day: "2026-11-26",
    }),
    bike: bikeSchema.parse({ name: "b", levels: ["low", "mid"], massKg: 26, bars: 5 }),
    pack: packRecordSchema.parse({ name: "p", labelWh: 1500, seriesCells: 13, ampHours: 31 }),
    setUp: null,
    rider: null,
    known: NOTHING_KNOWN,
  };
  const course = () => {
    const read = readCourseGpx(text, "round");
    if (!read.ok) throw new Error(read.problems[0]!.sentence);
    return read.value.course;
  };
  const long = course();
  return [
    report(
      `plan: ${POINTS} points read, profiled and forecast`,
      await median(3, () => reckonPlan({ ...record, course: course() })),
      1500,
    ),
    report(
      "plan: forecast of 100 miles again",
      await median(5, () => reckonPlan({ ...record, course: long })),
      100,
    ),
    report("plan: what its method will leave", await median(5, () => yieldOf({ ...record, course: long }))),
  ];
}

/** Times one edit of a plan: from the key to the new figures on the page, ms. */
async function typeSpeed(page: Page, text: string): Promise<number> {
  await page.evaluate(() => {
    const watch = window as unknown as { typed: { start: number; answer: number } };
    watch.typed = { start: 0, answer: 0 };
    const table = document.querySelector("[aria-label=Check-ins]")!;
    const observer = new MutationObserver(() => {
      if (watch.typed.start === 0) return;
      watch.typed.answer ||= performance.now();
      observer.disconnect();
    });
    observer.observe(table, { childList: true, subtree: true, characterData: true });
    window.addEventListener("input", () => (watch.typed.start ||= performance.now()), { capture: true });
  });
  await page.getByLabel("Speed held").fill(text);
  await page.waitForFunction(() => (window as unknown as { typed: { answer: number } }).typed.answer > 0);
  const { start, answer } = await page.evaluate(
    () => (window as unknown as { typed: { start: number; answer: number } }).typed,
  );
  return answer - start;
}

/** The plan's page in a browser: a long track brought in, and edits answered. */
export async function benchPlanPage(
  report: Report,
  page: Page,
  address: string,
): Promise<readonly boolean[]> {
  const file = { name: "round.gpx", mimeType: "application/gpx+xml", buffer: Buffer.from(longTrack(POINTS)) };
  const bringIn = async () => {
    await page.goto(`${address}/plan/courses/import`, { waitUntil: "networkidle" });
    await page.evaluate(() => {
      const watch = window as unknown as { chosen: number };
      window.addEventListener("change", () => (watch.chosen ||= performance.now()), { capture: true });
    });
    await page.getByLabel("GPX file").setInputFiles(file);
    await page.getByRole("img", { name: /^Profile/ }).waitFor();
    return page.evaluate(() => performance.now() - (window as unknown as { chosen: number }).chosen);
  };
  const times: number[] = [];
  for (let i = 0; i < 3; i += 1) times.push(await bringIn());
  await page.goto(`${address}/plan`, { waitUntil: "networkidle" });
  await page.getByRole("link", { name: "How far with the child on" }).click();
  await page.getByLabel("Speed held").waitFor();
  await page.waitForLoadState("networkidle");
  await typeSpeed(page, "12 mph");
  const edits: number[] = [];
  for (const mph of [13, 14.5, 15, 16, 13.5]) {
    await page.waitForTimeout(1200);
    edits.push(await typeSpeed(page, `${mph} mph`));
  }
  return [
    report(`plan page: ${POINTS} points brought in and drawn`, medianOf(times), 1500),
    report("plan page: from a key to the new forecast", medianOf(edits), 100),
  ];
}
