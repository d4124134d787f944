import { chromium } from "@playwright/test";
import { v7 as uuidv7 } from "uuid";
import { appendEntries } from "#db/log";
import { listTests, saveTest, type TestLine } from "#db/tests";
import { benchJoint, benchPosterior } from "../bench/compare.ts";
import { benchCore } from "../bench/core.ts";
import { benchDesk } from "../bench/desk/index.ts";
import { benchEdits } from "../bench/edits.ts";
import { longRide } from "../bench/inputs.ts";
import { median, yardstick } from "../bench/measure.ts";
import { benchPhones } from "../bench/phones.ts";
import { benchPlanCore, benchPlanPage } from "../bench/plan.ts";
import { benchSheets, sheetToTake, type SheetsToTake } from "../bench/sheet.ts";
import { benchFirstVisit, benchRide, benchStream } from "../bench/ride.ts";
import { reporter, type Report } from "../bench/report.ts";
import { needChromium } from "./packages.ts";
import { ROOT } from "./paths.ts";
import { CHROMIUM_FLAGS, serveDemo, withThrowawayCluster } from "./throwaway.ts";

const PAGE_LIMIT_MS = 150;

async function benchPages(report: Report, url: string): Promise<readonly boolean[]> {
  const rides = [60, 300].map((marks) => ({ marks, id: uuidv7(), record: longRide(marks) }));
  let first: TestLine | undefined;
  let sheet: SheetsToTake | null = null;
  const before = performance.now();
  const serving = await serveDemo(url, async (db) => {
    [first] = await listTests(db);
    sheet = await sheetToTake(db);
    for (const { id, record } of rides) {
      const ride = { id: uuidv7(), zone: "+00:00" };
      await saveTest(db, id, { ...first!, secondPackId: null }, record.test, { firstRide: ride });
      await appendEntries(db, ride.id, record.rides[0]!.entries);
    }
  });
  const fetched = (path: string) => async () => (await fetch(serving.address + path)).text();
  await fetched("/health")();
  const fine = [report("server: migrate, seed, build if needed, first answer", performance.now() - before)];
  for (const path of [
    "/",
    "/bikes",
    "/strip",
    "/compare",
    "/settings",
    "/plan",
    `/bikes/${first!.bikeId}`,
    `/strip/${first!.id}`,
  ])
    fine.push(
      report(`page ${path.replace(/[0-9a-f-]{36}/, "ID")}`, await median(15, fetched(path)), PAGE_LIMIT_MS),
    );
  if (sheet) fine.push(...(await benchSheets(report, serving.address, sheet)));
  const longPath = `/strip/${rides.at(-1)!.id}`;
  fine.push(report("page of the 300-mark ride", await median(7, fetched(longPath)), PAGE_LIMIT_MS));
  const browser = await chromium.launch({ executablePath: needChromium(), args: CHROMIUM_FLAGS });
  try {
    const page = await browser.newPage();
    const walk = async () => {
      await page.goto(serving.address + longPath, { waitUntil: "commit" });
      while ((await page.getByText("energy left").count()) === 0) await page.keyboard.press("ArrowRight");
    };
    fine.push(report("strip of 300 marks: from address to the keys answer", await median(5, walk), 1000));
    for (const { id, marks } of rides)
      fine.push(
        ...(await benchEdits(report, page, `${serving.address}/strip/${id}`, marks, marks > 100 ? 300 : 100)),
      );
    fine.push(...(await benchPlanPage(report, page, serving.address)));
    fine.push(...(await benchFirstVisit(report, browser, `${serving.address}/ride/${rides[0]!.id}`)));
    for (const { id, marks } of rides)
      fine.push(...(await benchRide(report, page, `${serving.address}/ride/${id}`, marks)));
    await page.goto(`${serving.address}/ride`);
    await page
      .getByRole("button", { name: /^Rehearse / })
      .first()
      .click();
    await page.getByRole("heading", { name: /^Rehearsal/ }).waitFor();
    await benchStream((line) => process.stdout.write(`${line}\n`), page.url());
  } finally {
    await browser.close();
    await serving.close();
  }
  return fine;
}

/**
 * Times the core, calc, the server's pages, the strip in a browser, and the desk under load. Exit code 1 when a limit is
 * broken.
 *
 * @param part one part of it only: core, pages, phones or desk
 */
export async function bench(part?: string): Promise<number> {
  const unit = await median(5, yardstick);
  const report = reporter(unit);
  report("yardstick", unit);
  const asked = (name: string) => part === undefined || part === name;
  const fine: boolean[] = [];
  if (asked("core"))
    fine.push(
      ...(await benchCore(report, ROOT)),
      ...(await benchPlanCore(report)),
      ...(await benchJoint(report)),
      ...(await benchPosterior(report)),
    );
  if (asked("pages")) fine.push(...(await withThrowawayCluster(({ url }) => benchPages(report, url))));
  if (asked("phones")) fine.push(...(await withThrowawayCluster(({ url }) => benchPhones(report, url))));
  if (asked("desk")) fine.push(...(await benchDesk(report)));
  return fine.every(Boolean) ? 0 : 1;
}
