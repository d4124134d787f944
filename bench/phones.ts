import { randomBytes } from "node:crypto";
import { request } from "node:http";
import { setTimeout } from "node:timers/promises";
import { v7 as uuidv7 } from "uuid";
import { connect, type Database } from "#db/client";
import { appendEntries } from "#db/log";
import { newPhone, pairPhone } from "#db/people/phones";
import { entry, FIRST_DESK } from "#db/schema";
import { listTests, saveTest } from "#db/tests";
import { eq } from "drizzle-orm";
import { setDemo } from "../command/throwaway.ts";
import { startServerProcess } from "../tests/trials/serverProcess.ts";
import type { Report } from "./report.ts";

const PHONES = 50;
/** Each notes something so often, ms; a tester in the field does every few minutes. */
const EVERY_MS = 2000;
const ROUNDS = 30;
/** How often somebody at the desk looks at a ride, ms. */
const READ_EVERY_MS = 1000;
/** Rounds until the servers have what they need at hand. */
const WARMING = 10;
const P95_LIMIT_MS = 300;
const HOST = "desk.test";

/** Asks a server behind its proxy's name. */
function ask(address: string, path: string, cookie: string, body?: unknown) {
  const { hostname, port } = new URL(address);
  const text = body === undefined ? null : JSON.stringify(body);
  const began = performance.now();
  return new Promise<{ readonly status: number; readonly ms: number }>((resolve, reject) => {
    const asked = request(
      {
        ...{ hostname, port, path, method: text === null ? "GET" : "POST" },
        headers: {
          ...{ host: HOST, cookie, origin: `https://${HOST}` },
          ...(text !== null && {
            "content-type": "application/json",
            "content-length": Buffer.byteLength(text),
          }),
        },
      },
      (answer) => {
        answer.resume();
        answer.once("end", () => resolve({ status: answer.statusCode!, ms: performance.now() - began }));
      },
    );
    asked.once("error", reject);
    asked.end(text);
  });
}

const at95 = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length * 0.95)]!;

/** Phones, each with a test of its own to log. */
async function pairAll(db: Database) {
  const [line] = await listTests(db);
  const phones = [];
  for (let i = 0; i < PHONES; i += 1) {
    const [testId, rideId] = [uuidv7(), uuidv7()];
    await saveTest(db, testId, { ...line!, secondPackId: null }, line!.test, {
      firstRide: { id: rideId, zone: "+00:00" },
    });
    await appendEntries(db, rideId, [
      {
        id: uuidv7(),
        seq: 1,
        at: null,
        supersedes: null,
        body: { kind: "start", percent: 100, distanceM: 0 },
      },
    ]);
    const { code } = await newPhone(db, { deskId: FIRST_DESK, name: `phone ${i}`, tests: [testId] });
    const paired = await pairPhone(db, code);
    phones.push({ testId, rideId, cookie: `__Host-barometron-phone=${paired!.secret}` });
  }
  return phones;
}

/**
 * Many phones logging at once on a shared desk that is read meanwhile, by two servers on one database: how long a batch
 * takes, and whether every entry is there in the end.
 */
export async function benchPhones(report: Report, url: string): Promise<readonly boolean[]> {
  let phones: Awaited<ReturnType<typeof pairAll>> = [];
  await setDemo(url, async (db) => {
    phones = await pairAll(db);
  });
  const env = {
    PUBLIC_URL: `https://${HOST}`,
    BAROMETRON_SECRET: randomBytes(32).toString("hex"),
    BAROMETRON_LOG: "error",
  };
  const servers = [await startServerProcess(url, 4900, env), await startServerProcess(url, 4920, env)];
  const addressOf = (i: number) => servers[i % servers.length]!.address;
  const times: number[] = [];
  const pages: number[] = [];
  let sent = 0;
  let done = false;
  try {
    const reading = (async () => {
      for (let i = 0; !done; i += 1) {
        const { testId, cookie } = phones[i % PHONES]!;
        pages.push((await ask(addressOf(i), `/ride/${testId}`, cookie)).ms);
        await setTimeout(READ_EVERY_MS);
      }
    })();
    await Promise.all(
      phones.map(async ({ testId, rideId, cookie }, p) => {
        await setTimeout((p / PHONES) * EVERY_MS);
        for (let round = 1; round <= ROUNDS; round += 1) {
          const began = performance.now();
          const entries = [
            {
              ...{ id: uuidv7(), seq: 1 + round, at: null, supersedes: null },
              body: { kind: "checkIn", distanceM: 800 * round, percent: 100 - round },
            },
          ];
          const answer = await ask(addressOf(p), `/ride/${testId}/entries`, cookie, {
            rideId,
            entries,
            waiting: 0,
          });
          if (answer.status === 200) sent += 1;
          if (round > WARMING) times.push(answer.ms);
          await setTimeout(Math.max(0, EVERY_MS - (performance.now() - began)));
        }
      }),
    );
    done = true;
    await reading;
  } finally {
    for (const server of servers) await server.kill();
  }
  const { db, close } = connect(url, 1);
  let held = 0;
  for (const { rideId } of phones) held += (await db.$count(entry, eq(entry.rideId, rideId))) - 1;
  await close();
  const wanted = PHONES * ROUNDS;
  process.stdout.write(`${wanted} entries of ${PHONES} phones: ${sent} told as kept, ${held} there\n`);
  return [
    sent === wanted && held === wanted,
    report(
      `${PHONES} phones, an entry every two seconds each: a batch, 95 of 100`,
      at95(times),
      P95_LIMIT_MS,
    ),
    report("a ride's page meanwhile, 95 of 100", at95(pages)),
  ];
}
