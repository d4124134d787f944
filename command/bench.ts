import { spawnSync } from "node:child_process";
import { chromium } from "@playwright/test";
import { v7 as uuidv7 } from "uuid";
import { reckonTest } from "#core/results";
import { appendEntries } from "#db/log";
import { listTests, saveTest, type TestLine } from "#db/tests";
import { longRide, SMALL_LEDGER } from "../bench/inputs.ts";
import { median, yardstick } from "../bench/measure.ts";
import { needChromium } from "./packages.ts";
import { ROOT } from "./paths.ts";
import { CHROMIUM_FLAGS, serveDemo, withThrowawayCluster } from "./throwaway.ts";

/** Prints one figure, also as a multiple of the yardstick; says whether it keeps its limit. */
type Report = (what: string, ms: number, limit?: number) => boolean;

function reporter(unit: number): Report {
  return (what, ms, limit) => {
    const fine = limit === undefined || ms <= limit;
    const verdict = limit === undefined ? "" : `${fine ? "within" : "OVER"} ${limit} ms`;
    const figures = `${ms.toFixed(1).padStart(9)} ms ${(ms / unit).toFixed(2).padStart(8)} x`;
    process.stdout.write(`${what.padEnd(54)} ${figures}  ${verdict}\n`);
    return fine;
  };
}

async function benchCore(report: Report): Promise<readonly boolean[]> {
  const many = JSON.stringify(Array.from({ length: 400 }, () => SMALL_LEDGER));
  const calc = () => spawnSync("./barometron", ["calc", "-"], { cwd: ROOT, input: many });
  return [
    report("core: ride of 20 marks", await median(9, () => reckonTest(longRide(20)))),
    report("core: ride of 60 marks", await median(5, () => reckonTest(longRide(60)))),
    report("core: ride of 300 marks", await median(3, () => reckonTest(longRide(300)))),
    report("calc: 400 small ledgers in one call", await median(3, calc), 20_000),
  ];
}

const PAGE_LIMIT_MS = 150;

async function benchPages(report: Report, url: string): Promise<readonly boolean[]> {
  const ids = { test: uuidv7(), ride: uuidv7() };
  const long = longRide(300);
  let first: TestLine | undefined;
  const before = performance.now();
  const serving = await serveDemo(url, async (db) => {
    [first] = await listTests(db);
    await saveTest(db, ids.test, first!, long.test, { id: ids.ride, utcOffset: "+00:00" });
    await appendEntries(db, ids.ride, long.rides[0]!.entries);
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
    `/bikes/${first!.bikeId}`,
    `/strip/${first!.id}`,
  ])
    fine.push(
      report(`page ${path.replace(/[0-9a-f-]{36}/, "ID")}`, await median(15, fetched(path)), PAGE_LIMIT_MS),
    );
  const longPath = `/strip/${ids.test}`;
  fine.push(report("page of the 300-mark ride", await median(7, fetched(longPath)), PAGE_LIMIT_MS));
  const browser = await chromium.launch({ executablePath: needChromium(), args: CHROMIUM_FLAGS });
  const page = await browser.newPage();
  const walk = async () => {
    await page.goto(serving.address + longPath, { waitUntil: "commit" });
    while ((await page.getByText("energy left").count()) === 0) await page.keyboard.press("ArrowRight");
  };
  fine.push(report("strip of 300 marks: from address to the keys answer", await median(5, walk), 1000));
  await browser.close();
  await serving.close();
  return fine;
}

/** Times the core, calc, the server's pages and the strip in a browser. Exit code 1 when a limit is broken. */
export async function bench(): Promise<number> {
  const unit = await median(5, yardstick);
  const report = reporter(unit);
  report("yardstick", unit);
  const core = await benchCore(report);
  const pages = await withThrowawayCluster(({ url }) => benchPages(report, url));
  return [...core, ...pages].every(Boolean) ? 0 : 1;
}
