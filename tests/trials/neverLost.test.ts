import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import "fake-indexeddb/auto";
import pg from "pg";
import { v7 as uuidv7 } from "uuid";
import { closeOutbox, keep, keptOf } from "#app/ride/outbox";
import { isWaiting, sendNext, type ServerAnswer, type Post } from "#app/ride/sender";
import type { Entry, EntryBody } from "#core/ride/log";
import { bikeSchema, packRecordSchema, testSchema } from "#core/records";
import { rngFrom } from "#core/world";
import { saveBike, savePack } from "#db/bikes";
import { connect, type Connection } from "#db/client";
import { listEntries } from "#db/log";
import { migrateDatabase } from "#db/migrate";
import { saveTest } from "#db/tests";
import { buildApp } from "../../command/build";
import { ensureDatabase } from "../../command/cluster";
import { MIGRATIONS } from "../../command/paths";
import { freePort } from "../../command/ports";
import { startServerProcess, type ServerProcess } from "./serverProcess";

/**
 * The outbox of Ride, as it runs in a browser, against the built server, while everything that can break breaks: requests
 * and answers lost, doubled and late, the page closed, the server process killed, the database cut. In the end every entry
 * is there once.
 */
const ROUNDS = process.env["TRIAL_LONG"] ? 240 : 60;
const SEED = 20261018;
const ids = { bike: uuidv7(), pack: uuidv7(), test: uuidv7(), ride: uuidv7() };
const address = process.env["TEST_DATABASE_URL"]!.replace(/\/[^/]+$/, "");
const url = `${address}/trial`;
const chance = rngFrom(SEED);
const figures = {
  rounds: 0,
  entries: 0,
  batches: 0,
  "requests lost": 0,
  "answers lost": 0,
  doubled: 0,
  late: 0,
  "servers killed": 0,
  "database cut": 0,
  "pages closed": 0,
};

let connection: Connection;
let admin: pg.Client;
let port = 0;
let server: ServerProcess | null = null;
/** What a server said before it ended by itself, which it never should. */
const died: string[] = [];

async function startServer(): Promise<void> {
  server = await startServerProcess(url, port);
}

/** Ends the server in the middle of whatever it does, and starts it again. */
async function killServer(): Promise<void> {
  if (server!.ended() !== undefined) died.push(server!.said());
  await server!.kill();
  await startServer();
}

/** Cuts every connection to the database, and lets none in for a moment. */
async function cutDatabase(forMs: number): Promise<void> {
  await admin.query("alter database trial allow_connections false");
  await admin.query("select pg_terminate_backend(pid) from pg_stat_activity where datname = 'trial'");
  await pause(forMs);
  await admin.query("alter database trial allow_connections true");
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const ask: Post = async (path, body) => {
  figures.batches += 1;
  const response = await fetch(`http://127.0.0.1:${port}${path}`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: `http://127.0.0.1:${port}` },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(20_000),
  });
  const told = (await response.json().catch(() => null)) as Partial<ServerAnswer> | null;
  return {
    status: response.status,
    ...(told?.sentences && { sentences: told.sentences }),
    ...(told?.verdicts && { verdicts: told.verdicts }),
  };
};

/** Batches that are on their way for long: they come in after later ones. */
const late: (() => Promise<unknown>)[] = [];
const lost = () => Promise.reject<ServerAnswer>(new TypeError("no network"));

/** A network that is like the field's. */
const field: Post = async (path, body) => {
  const draw = chance.next();
  if (draw < 0.3) return ask(path, body);
  if (draw < 0.42) {
    figures["requests lost"] += 1;
    return lost();
  }
  if (draw < 0.56) {
    figures["answers lost"] += 1;
    await ask(path, body).catch(() => undefined);
    return lost();
  }
  if (draw < 0.68) {
    figures.doubled += 1;
    const [, second] = await Promise.all([ask(path, body).catch(() => null), ask(path, body)]);
    return second;
  }
  if (draw < 0.8) {
    figures.late += 1;
    late.push(() => ask(path, body).catch(() => undefined));
    return lost();
  }
  if (draw < 0.88) {
    figures["servers killed"] += 1;
    const asked = ask(path, body);
    asked.catch(() => undefined);
    await pause(chance.between(0, 25));
    await killServer();
    return asked;
  }
  figures["database cut"] += 1;
  const asked = ask(path, body);
  asked.catch(() => undefined);
  await pause(chance.between(0, 15));
  await cutDatabase(chance.between(0, 150));
  return asked;
};

const made: Entry[] = [];

/** What a person does: mostly check-ins, now and then a correction, a strike, a note. */
function nextBody(): { body: EntryBody; supersedes: string | null } {
  const some = made[Math.floor(chance.next() * made.length)];
  const draw = chance.next();
  if (some && draw < 0.1) return { body: { kind: "strike", target: some.id }, supersedes: null };
  const checkIn: EntryBody = { kind: "checkIn", distanceM: made.length * 100, percent: 50 };
  if (some && draw < 0.2) return { body: checkIn, supersedes: some.id };
  return { body: draw < 0.3 ? { kind: "note", note: `note ${made.length}` } : checkIn, supersedes: null };
}

async function note(): Promise<void> {
  const entry: Entry = { id: uuidv7(), seq: made.length, at: new Date().toISOString(), ...nextBody() };
  made.push(entry);
  figures.entries += 1;
  await keep({ id: entry.id, testId: ids.test, rideId: ids.ride, entry, sent: false });
}

beforeAll(async () => {
  await ensureDatabase(address, "trial");
  await migrateDatabase(url, MIGRATIONS);
  await buildApp();
  connection = connect(url, 2);
  admin = new pg.Client({ connectionString: `${address}/postgres` });
  await admin.connect();
  const { db } = connection;
  await saveBike(db, ids.bike, bikeSchema.parse({ name: "Trial bike", levels: ["low"] }));
  await savePack(db, ids.pack, ids.bike, packRecordSchema.parse({ name: "p", labelWh: 500 }));
  await saveTest(
    db,
    ids.test,
    { bikeId: ids.bike, packId: ids.pack, secondPackId: null, setUpId: null, riderId: null },
    testSchema.parse({ title: "Never lost", day: "2026-10-18" }),
    { firstRide: { id: ids.ride, zone: "+00:00" } },
  );
  port = await freePort(4500 + (process.pid % 200));
  await startServer();
});

afterAll(async () => {
  await server?.kill();
  await admin.end();
  await connection.close();
});

describe("an entry that was kept once", () => {
  test("is on the server once, whatever broke", async () => {
    // What breaks is drawn, and how often depends on how much is sent: it goes on until each kind was seen.
    const seen = () => Math.min(figures["servers killed"], figures["database cut"]) > 2;
    for (let round = 0; round < ROUNDS || (round < 5 * ROUNDS && !seen()); round += 1) {
      figures.rounds += 1;
      const many = Math.floor(chance.between(1, 6));
      for (let i = 0; i < many; i += 1) await note();
      await sendNext(ids.test, field);
      if (chance.happens(0.15)) {
        figures["pages closed"] += 1;
        await closeOutbox();
      }
      if (late.length > 0 && chance.happens(0.4)) {
        const [again] = late.splice(Math.floor(chance.next() * late.length), 1);
        await again!();
      }
    }
    for (const again of late.splice(0).reverse()) await again();
    for (let tries = 0; tries < 100; tries += 1) if ((await sendNext(ids.test, ask)) === "empty") break;

    expect([...died, ...(server!.ended() === undefined ? [] : [server!.said()])]).toEqual([]);
    expect((await keptOf(ids.test)).filter(isWaiting)).toEqual([]);
    const { db } = connection;
    const held = await listEntries(db, ids.ride).catch(() => listEntries(db, ids.ride));
    process.stdout.write(
      `  ${Object.entries(figures)
        .map(([name, count]) => `${count} ${name}`)
        .join(
          ", ",
        )}; ${held.length} entries on the server, ${new Set(held.map(({ id }) => id)).size} of them different\n`,
    );
    expect(held).toHaveLength(made.length);
    const byId = new Map(held.map((entry) => [entry.id, entry]));
    for (const { id, body, supersedes } of made) expect(byId.get(id)).toMatchObject({ id, body, supersedes });
    // What has a time stands in the order it was made; a correction after what it corrects.
    const place = new Map(held.map(({ id }, i) => [id, i]));
    const timely = made.filter(({ body, supersedes }) => supersedes === null && body.kind !== "strike");
    const places = timely.map(({ id }) => place.get(id)!);
    expect(places).toEqual([...places].sort((a, b) => a - b));
    for (const { id, supersedes } of made)
      if (supersedes) expect(place.get(id)!).toBeGreaterThan(place.get(supersedes)!);
    expect(figures["servers killed"]).toBeGreaterThan(2);
    expect(figures["database cut"]).toBeGreaterThan(2);
  }, 400_000);

  test("an entry the server will not have holds back no other, and says why", async () => {
    const entry = {
      id: uuidv7(),
      seq: -1,
      at: null,
      body: { kind: "note", note: "bad place" },
      supersedes: null,
    };
    await keep({ id: entry.id, testId: ids.test, rideId: ids.ride, entry: entry as Entry, sent: false });
    await note();
    expect(await sendNext(ids.test, ask)).toBe("refused");
    const kept = await keptOf(ids.test);
    expect(kept.find(({ id }) => id === entry.id)).toMatchObject({
      sent: false,
      refused: expect.any(String),
    });
    expect(kept.find(({ id }) => id === made.at(-1)!.id)).toMatchObject({ sent: true });
  });
});
