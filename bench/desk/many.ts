import { v7 as uuidv7 } from "uuid";
import type { Database } from "#db/client";
import { appendEntries } from "#db/log";
import { countStale } from "#db/results";
import { listRides, listTests, type TestLine } from "#db/tests";
import { median } from "../measure.ts";
import type { Report } from "../report.ts";
import { LIMIT, page, timed, until, type Running } from "./running.ts";

/** A correction of one test: a note more in its log. */
async function correct(db: Database, test: TestLine, text: string): Promise<void> {
  const [ride] = await listRides(db, test.id);
  await appendEntries(db, ride!.id, [
    {
      id: uuidv7(),
      seq: 0,
      at: null,
      supersedes: null,
      body: { kind: "checkIn", distanceM: 70_000, percent: 20, note: text },
    },
  ]);
}

const PAGES = [
  "/",
  "/bikes",
  "/ride",
  "/strip",
  "/plan",
  "/compare?under=House",
  "/compare/claims",
  "/compare/climbs",
];

/** Cold, warm, after one correction, and 16 clients at once. */
export async function benchMany(report: Report, desk: Running, many: number): Promise<readonly boolean[]> {
  const { address, db, build } = desk;
  const fine: boolean[] = [];
  const models = await listTests(db, { limit: 200 });
  const own = models.find(({ test }) => test.title.startsWith("many"))!;
  const path = "/compare?under=House";
  // Cold: nothing is reckoned yet, and every page answers at once with how far it is.
  const first = await Promise.all(PAGES.map((each) => timed(() => page(address, each, false))));
  fine.push(report(`${many} tests, cold: slowest of ${PAGES.length} pages`, Math.max(...first), 2000));
  report(
    `${many} tests, cold: until all are reckoned`,
    await timed(() => until(async () => (await countStale(db, build)).stale === 0)),
  );
  report(`${many} tests: standings under House for the first time`, await timed(() => page(address, path)));
  fine.push(
    report(
      `${many} tests, warm: standings under House`,
      await median(9, () => page(address, path)),
      LIMIT.standings,
    ),
    report(
      `${many} tests, warm: standings as ridden`,
      await median(9, () => page(address, "/compare")),
      LIMIT.standings,
    ),
  );
  for (const each of PAGES)
    fine.push(
      report(`${many} tests, warm: ${each}`, await median(7, () => page(address, each)), LIMIT.standings),
    );
  for (const [i, each] of [...PAGES, `/strip/${own.id}`].entries()) {
    await correct(db, own, `correction ${i} of ${many}`);
    fine.push(
      report(
        `${many} tests, after one correction: ${each.replace(own.id, "ID")}`,
        await timed(() => page(address, each)),
        LIMIT.afterOne,
      ),
    );
  }
  fine.push(
    report(
      `${many} tests: 16 clients at once, each ${PAGES.length} pages`,
      await timed(() =>
        Promise.all(Array.from({ length: 16 }, () => Promise.all(PAGES.map((each) => page(address, each))))),
      ),
      LIMIT.sixteen * (many > 1000 ? 3 : 1),
    ),
  );
  return fine;
}
