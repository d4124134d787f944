import { spawn, type ChildProcess } from "node:child_process";
import { setTimeout } from "node:timers/promises";
import { chromium } from "@playwright/test";
import { v7 as uuidv7 } from "uuid";
import { connect, type Database } from "#db/client";
import { appendEntries } from "#db/log";
import { migrateDatabase } from "#db/migrate";
import { countStale } from "#db/results";
import { seedOnce } from "#db/seed";
import { saveTelemetry } from "#db/telemetry";
import { listRides, listTests, saveTest, type TestLine } from "#db/tests";
import { buildApp } from "../command/build.ts";
import { needChromium } from "../command/packages.ts";
import { MIGRATIONS, ROOT } from "../command/paths.ts";
import { freePort } from "../command/ports.ts";
import { CHROMIUM_FLAGS, withThrowawayCluster } from "../command/throwaway.ts";
import { addMany } from "./compare.ts";
import { longRide, longTrack } from "./inputs.ts";
import { median } from "./measure.ts";
import type { Report } from "./report.ts";

/** Limits on the machine they were set on, ms; each is held as a multiple of the yardstick. */
const LIMIT = { standings: 300, afterOne: 500, page: 250, delay: 200, sixteen: 5000 };
const FIRST_PAGE_BYTES = 220_000;
const HOURS = 10;

interface Running {
  readonly address: string;
  readonly db: Database;
  readonly build: string;
  stop(): Promise<void>;
}

/** A server in a process of its own, on a database that `prepare` fills. */
async function running(url: string, prepare: (db: Database) => Promise<void>): Promise<Running> {
  await migrateDatabase(url, MIGRATIONS);
  const build = await buildApp();
  const { db, close } = connect(url, 3);
  await seedOnce(db);
  await prepare(db);
  const port = await freePort(4380);
  const child: ChildProcess = spawn("node", ["--import", "tsx", "tests/trials/server.ts", String(port)], {
    cwd: ROOT,
    env: {
      ...process.env,
      DATABASE_URL: url,
      BAROMETRON_BUILD: build,
      NODE_ENV: "production",
      BAROMETRON_MOST_REQUESTS: "1000000",
    },
    stdio: ["ignore", "pipe", "inherit", "ipc"],
  });
  const address = await new Promise<string>((resolve, reject) => {
    child.stdout!.once("data", (text: Buffer) => resolve(text.toString().trim()));
    child.once("exit", (code) => reject(new Error(`the server ended with ${code}`)));
  });
  return {
    address,
    db,
    build,
    stop: async () => {
      const gone = new Promise((resolve) => child.once("exit", resolve));
      child.kill("SIGKILL");
      await gone;
      await close();
    },
  };
}

/** Asks for a page, waits for the whole of it, and holds it to its status; what is still being reckoned is asked again. */
async function page(address: string, path: string, whole = true): Promise<string> {
  for (;;) {
    const response = await fetch(address + path);
    const text = await response.text();
    if (response.status === 200) return text;
    if (response.status !== 202) throw new Error(`${path} answered ${response.status}`);
    if (!whole) return text;
    await setTimeout(20);
  }
}

async function until(done: () => Promise<boolean>): Promise<void> {
  while (!(await done())) await setTimeout(100);
}

const timed = async (work: () => Promise<unknown>): Promise<number> => {
  const beganMs = performance.now();
  await work();
  return performance.now() - beganMs;
};

/** The longest a light page waits while something heavy goes on, beyond what it takes by itself, ms. */
async function delayOnce({ address }: Running, heavy: () => Promise<unknown>): Promise<number> {
  const light = () => page(address, "/bikes/riders/new");
  const alone = await median(9, light);
  let going = true;
  const over = heavy().finally(() => {
    going = false;
  });
  let longest = 0;
  while (going) {
    longest = Math.max(longest, (await timed(light)) - alone);
    await setTimeout(15);
  }
  await over;
  return longest;
}

/** The same, the middle one of three: a pause of the collector counts once. */
async function delayBy(desk: Running, heavy: () => Promise<unknown>): Promise<number> {
  const delays: number[] = [];
  for (let i = 0; i < 3; i += 1) delays.push(await delayOnce(desk, heavy));
  return delays.sort((a, b) => a - b)[1]!;
}

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

async function benchMany(report: Report, desk: Running, many: number): Promise<readonly boolean[]> {
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

/** A ride of many marks, put on the desk. */
async function addMarks(db: Database, first: TestLine, marks: number): Promise<string> {
  const record = longRide(marks);
  const id = uuidv7();
  const ride = { id: uuidv7(), utcOffset: "+00:00" };
  await saveTest(db, id, { ...first, secondPackId: null }, record.test, { firstRide: ride });
  await appendEntries(
    db,
    ride.id,
    record.rides[0]!.entries.map((entry) => ({ ...entry, id: uuidv7() })),
  );
  return id;
}

/** Others' work: nothing that one person asks for holds up another. */
async function benchDelays(report: Report, desk: Running): Promise<readonly boolean[]> {
  const { address, db } = desk;
  const [first] = await listTests(db, { limit: 1 });
  const [ride] = await listRides(db, first!.id);
  const origin = { origin: address };
  const long = await addMarks(db, first!, 5000);
  const strip = async (id: string) => [
    await page(address, `/strip/${id}`),
    await page(address, `/strip/${id}/long`),
  ];
  /** A form with a file, written out before the clock runs: what is measured is the server's work, not the sender's. */
  const upload = (path: string, name: string, text: string) => {
    const edge = "----bench";
    const body = Buffer.from(
      `--${edge}\r\nContent-Disposition: form-data; name="rideId"\r\n\r\n${ride!.id}\r\n--${edge}\r\nContent-Disposition: form-data; name="file"; filename="${name}"\r\nContent-Type: text/plain\r\n\r\n${text}\r\n--${edge}--\r\n`,
    );
    const headers = { ...origin, "content-type": `multipart/form-data; boundary=${edge}` };
    return async () => {
      const response = await fetch(address + path, { method: "POST", body, headers, redirect: "manual" });
      await response.text();
      if (response.status >= 500) throw new Error(`${path} answered ${response.status}`);
    };
  };
  const track = longTrack(220_000);
  const rows = `time,volts,amps\n${Array.from({ length: 199_000 }, (_, i) => `${1_760_000_000 + i},50.1,6.2`).join("\n")}`;
  const delays: readonly (readonly [string, () => Promise<unknown>])[] = [
    ["a strip of 5,000 marks", () => strip(long)],
    [`a track of ${(track.length / 1e6).toFixed(0)} MB`, upload(`/strip/${first!.id}/track`, "a.gpx", track)],
    ["a logger's file of 199,000 rows", upload(`/strip/${first!.id}/logger`, "a.csv", rows)],
    [
      "a logger's file of 1,000,000 rows, refused",
      upload(`/strip/${first!.id}/logger`, "b.csv", `time,volts,amps\n${"1,50,6\n".repeat(1_000_000)}`),
    ],
    [
      "16 clients at the standings",
      () =>
        Promise.all(
          Array.from({ length: 16 }, (_, i) => page(address, `/compare?under=House&pack=${300 + i}`)),
        ),
    ],
  ];
  const fine: boolean[] = [];
  for (const [what, heavy] of delays)
    fine.push(report(`delay of another's page by ${what}`, await delayBy(desk, heavy), LIMIT.delay));
  fine.push(report("page of the 5,000-mark strip, reckoned", await median(3, () => strip(long)), 4000));
  return fine;
}

/** Ten hours of a logger at one sample a second. */
async function benchTelemetry(report: Report, desk: Running): Promise<readonly boolean[]> {
  const { address, db, build } = desk;
  const [first] = await listTests(db, { limit: 1 });
  const [ride] = await listRides(db, first!.id);
  const seconds = Array.from({ length: HOURS * 3600 }, (_, i) => i);
  const startS = 1_760_600_000;
  const record = {
    logger: "ten hours",
    timeS: seconds.map((second) => startS + second),
    volts: seconds.map((second) => 54 - second / 4000),
    amps: seconds.map((second) => 5 + 3 * Math.sin(second / 40)),
    speedMps: seconds.map(() => 6),
  };
  const saving = await timed(() => saveTelemetry(db, ride!.id, record, "ten hours"));
  const fine = [report(`${HOURS} h of telemetry kept`, saving, 3000)];
  await page(address, `/strip/${first!.id}`);
  await until(async () => (await countStale(db, build)).stale === 0);
  fine.push(
    report(
      `strip of a test with ${HOURS} h of telemetry`,
      await median(5, () => page(address, `/strip/${first!.id}`)),
      LIMIT.afterOne,
    ),
  );
  return fine;
}

/** What a browser is sent for its first page, and how soon it answers on slow processors. */
async function benchBrowser(report: Report, { address }: Running): Promise<readonly boolean[]> {
  const fine: boolean[] = [];
  const browser = await chromium.launch({ executablePath: needChromium(), args: CHROMIUM_FLAGS });
  try {
    for (const path of ["/", "/ride", "/strip"]) {
      const context = await browser.newContext({ serviceWorkers: "block" });
      const tab = await context.newPage();
      const session = await context.newCDPSession(tab);
      await session.send("Network.enable");
      let bytes = 0;
      session.on("Network.loadingFinished", ({ encodedDataLength }) => {
        bytes += encodedDataLength;
      });
      await tab.goto(address + path);
      await tab.locator("html[data-alive]").waitFor({ state: "attached" });
      await setTimeout(300);
      const kept = bytes <= FIRST_PAGE_BYTES;
      process.stdout.write(
        `${`first page ${path}: bytes sent`.padEnd(62)} ${String(bytes).padStart(9)}              ${kept ? "within" : "OVER"} ${FIRST_PAGE_BYTES}\n`,
      );
      fine.push(kept);
      await context.close();
    }
    for (const rate of [4, 6])
      for (const path of ["/", "/compare?under=House"]) {
        const times: number[] = [];
        for (let i = 0; i < 3; i += 1) {
          const context = await browser.newContext({ serviceWorkers: "block" });
          const tab = await context.newPage();
          const session = await context.newCDPSession(tab);
          await session.send("Emulation.setCPUThrottlingRate", { rate });
          times.push(
            await timed(async () => {
              await tab.goto(address + path);
              await tab.locator("html[data-alive]").waitFor({ state: "attached" });
            }),
          );
          await context.close();
        }
        times.sort((a, b) => a - b);
        fine.push(report(`${path} alive on a processor ${rate} times slower`, times[1]!, 1300 * rate));
      }
  } finally {
    await browser.close();
  }
  return fine;
}

/** The desk under load: 528 and 5,028 tests, others' work, long recordings, slow browsers. */
export async function benchDesk(report: Report): Promise<readonly boolean[]> {
  const fine: boolean[] = [];
  for (const many of process.env["BENCH_MANY"] ? [Number(process.env["BENCH_MANY"])] : [500, 5000])
    fine.push(
      ...(await withThrowawayCluster(async ({ url }) => {
        const desk = await running(url, async (db) => addMany(db, await listTests(db), many));
        try {
          const shown = await benchMany(report, desk, many + 28);
          if (many > 1000) return shown;
          return [
            ...shown,
            ...(await benchBrowser(report, desk)),
            ...(await benchTelemetry(report, desk)),
            ...(await benchDelays(report, desk)),
          ];
        } finally {
          await desk.stop();
        }
      })),
    );
  return fine;
}
