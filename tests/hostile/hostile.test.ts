import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { v7 as uuidv7 } from "uuid";
import { readLine } from "#core/ride/log";
import { readHeading } from "#core/io";
import { rngFrom } from "#core/world";
import { dropDatabase, withClient } from "#db/backup/databases";
import { listBikes, listInstruments, listPacks, listRiders, listSetUps } from "#db/bikes";
import { listDamage } from "#db/check";
import { connect, type Connection } from "#db/client";
import { listClimbs, listSweeps } from "#db/field";
import { migrateDatabase } from "#db/migrate";
import { listCourses, listPlans } from "#db/plans";
import { seedOnce } from "#db/seed";
import { listSheets } from "#db/sheets";
import { listRides, listTests } from "#db/tests";
import { buildApp } from "../../command/build";
import { ensureDatabase } from "../../command/cluster";
import { MIGRATIONS } from "../../command/paths";
import { freePort } from "../../command/ports";
import { startServerProcess, type ServerProcess } from "../trials/serverProcess";
import { FILES, TEXTS, VALUES, WORDS } from "./corpus";
import { formDoors, pageDoors, type Door, type Ids } from "./doors";

/**
 * What nobody should send, at every door of the built application: forms, entries, recordings, addresses, files. Nothing
 * is answered with a broken server, nothing that cannot be read is kept, and afterwards every page is served. The count is
 * set by HOSTILE; the seed by HOSTILE_SEED, so that any failure comes again.
 */
/** On a machine that is busy with more than this, ms. */
const LONGEST_MS = 1_800_000;
const COUNT = Number(process.env["HOSTILE"] ?? 500);
/** The largest share of requests that may be asked to come back: more is a server that refuses its work. */
const MOST_ASKED_BACK = 0.005;
const SEED = Number(process.env["HOSTILE_SEED"] ?? 20261127);
const AT_ONCE = 6;

const admin = process.env["TEST_DATABASE_URL"]!.replace(/\/[^/]+$/, "");
const NAME = "hostile";
let connection: Connection;
let server: ServerProcess;
let address = "";
let ids: Ids;

beforeAll(async () => {
  await ensureDatabase(admin, NAME);
  const url = `${admin}/${NAME}`;
  await migrateDatabase(url, MIGRATIONS);
  const build = await buildApp();
  connection = connect(url, 3);
  const { db } = connection;
  await seedOnce(db);
  const [[bike], [rider], [instrument], [course], [plan], tests, [sweep], [climb], [sheet]] =
    await Promise.all([
      listBikes(db),
      listRiders(db),
      listInstruments(db),
      listCourses(db),
      listPlans(db),
      listTests(db),
      listSweeps(db),
      listClimbs(db),
      listSheets(db),
    ]);
  const own = tests.find(({ bikeId }) => bikeId === bike!.id)!;
  const [[pack], [setUp], [ride]] = await Promise.all([
    listPacks(db, bike!.id),
    listSetUps(db, bike!.id),
    listRides(db, own.id),
  ]);
  ids = {
    bike: bike!.id,
    rider: rider!.id,
    instrument: instrument!.id,
    course: course!.id,
    plan: plan!.id,
    sweep: sweep!.id,
    climb: climb!.id,
    sheet: sheet!.id,
    pack: pack!.id,
    setUp: setUp!.id,
    test: own.id,
    ride: ride!.id,
    rehearsal: null,
  };
  const port = await freePort(4900 + (process.pid % 90));
  server = await startServerProcess(url, port, { BAROMETRON_BUILD: build });
  address = server.address;
});
afterAll(async () => {
  await server.kill();
  await connection.close();
  await withClient(`${admin}/postgres`, (client) => dropDatabase(client, NAME));
});

const chance = rngFrom(SEED);
const oneOf = <T>(values: readonly T[]): T => values[Math.floor(chance.next() * values.length)]!;

/** A field or two of what a page would send, made hostile. */
function spoiled(fields: Readonly<Record<string, string>>): Record<string, string> {
  const names = Object.keys(fields);
  const sent = new Map(Object.entries(fields));
  const many = 1 + Math.floor(chance.next() * 2);
  for (let i = 0; i < many && names.length; i += 1) {
    const name = oneOf(names);
    if (chance.happens(0.12)) sent.delete(name);
    else sent.set(name, oneOf(TEXTS));
  }
  if (chance.happens(0.1)) sent.set(oneOf(TEXTS), oneOf(TEXTS));
  return Object.fromEntries(sent);
}

interface Sent {
  readonly what: string;
  readonly status: number;
  readonly body: string;
}

async function ask(path: string, init: RequestInit, what: string): Promise<Sent> {
  const response = await fetch(address + path, {
    redirect: "manual",
    signal: AbortSignal.timeout(120_000),
    ...init,
    headers: { origin: address, ...(init.headers as Record<string, string> | undefined) },
  });
  // A stream is left again; everything else is read to its end.
  if (response.headers.get("content-type")?.includes("event-stream")) {
    await response.body?.cancel();
    return { what, status: response.status, body: "" };
  }
  const location = response.headers.get("location");
  if (location && !location.startsWith("/"))
    return { what: `${what} sent elsewhere: ${location}`, status: 599, body: "" };
  return { what, status: response.status, body: await response.text() };
}

function sendForm({ path, fields, file }: Door): Promise<Sent> {
  const sent = spoiled(fields);
  const what = `POST ${path} ${JSON.stringify(sent)}`;
  if (!file && chance.happens(0.7)) {
    const body = new URLSearchParams(
      Object.entries(sent).map(([name, value]) => [name, value.toWellFormed()]),
    );
    return ask(path, { method: "POST", body }, what);
  }
  const form = new FormData();
  for (const [name, value] of Object.entries(sent)) form.append(name.toWellFormed(), value.toWellFormed());
  if (file) {
    const [name, text] = oneOf(FILES);
    form.append(file, new Blob([text]), oneOf([`${name}.csv`, "a'b\".gpx", "x".repeat(300)]));
  }
  return ask(path, { method: "POST", body: form }, what);
}

function askPage({ path, fields }: Door): Promise<Sent> {
  const to = chance.happens(0.15)
    ? path.replace(
        /[0-9a-f]{8}-[0-9a-f-]{27}/,
        encodeURIComponent(oneOf(TEXTS).toWellFormed().slice(0, 400)) || "x",
      )
    : path;
  const query = new URLSearchParams(
    Object.entries(chance.happens(0.8) ? spoiled(fields) : fields).map(([name, value]) => [
      name.toWellFormed(),
      value.toWellFormed().slice(0, 2000),
    ]),
  );
  return ask(`${to}?${query}`, {}, `GET ${to}?${query}`);
}

/** A record as JSON with something in it replaced, at any depth. */
function twisted(value: unknown): unknown {
  if (chance.happens(0.12)) return oneOf(VALUES);
  if (Array.isArray(value)) return value.map(twisted);
  if (typeof value === "object" && value !== null)
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, twisted(each)]));
  return value;
}

const entry = () => ({
  id: uuidv7(),
  seq: 3,
  at: "2026-10-18T09:30:00.000Z",
  supersedes: null,
  body: {
    kind: "checkIn",
    distanceM: 9000,
    percent: 60,
    level: "low",
    ground: "asphalt",
    note: oneOf(WORDS),
  },
});
const samples = () => ({
  logger: "device",
  timeS: [1_792_300_000, 1_792_300_001],
  volts: [50, 50],
  amps: [3, 4],
  distanceM: [10, 16],
});

function sendJson(): Promise<Sent> {
  const [path, body] = chance.happens(0.6)
    ? [
        `/ride/${ids.test}/entries`,
        { rideId: ids.ride, sentAt: "2026-10-18T09:31:00.000Z", entries: [entry(), entry()] },
      ]
    : [`/ride/${ids.test}/telemetry`, { rideId: ids.ride, record: samples() }];
  const text = JSON.stringify(twisted(body)) ?? "";
  const spoilt = chance.happens(0.05) ? text.slice(0, text.length / 2) : text;
  return ask(
    path as string,
    { method: "POST", body: spoilt, headers: { "content-type": "application/json" } },
    `POST ${path} ${spoilt}`,
  );
}

describe("what nobody should send", () => {
  test(
    `${COUNT} times, seed ${SEED}: no answer is a broken server`,
    async () => {
      const [forms, pages] = [formDoors(ids), pageDoors(ids)];
      const broken: string[] = [];
      const counts = new Map<number, number>();
      let done = 0;
      const worker = async () => {
        while (done < COUNT) {
          done += 1;
          const draw = chance.next();
          const sent = await (draw < 0.6
            ? sendForm(oneOf(forms))
            : draw < 0.8
              ? sendJson()
              : askPage(oneOf(pages)));
          counts.set(sent.status, (counts.get(sent.status) ?? 0) + 1);
          // 503 asks to come back: what met with another's change, or more than can be done at once, is no broken server.
          if ((sent.status >= 500 && sent.status !== 503) || /\bat .*\.(ts|js):\d+/.test(sent.body))
            broken.push(`${sent.status} ${sent.what.slice(0, 600)}`);
        }
      };
      await Promise.all(Array.from({ length: AT_ONCE }, worker));
      process.stdout.write(
        `  ${COUNT} hostile requests: ${[...counts]
          .sort((a, b) => a[0] - b[0])
          .map(([status, count]) => `${count} x ${status}`)
          .join(", ")}\n`,
      );
      expect(broken.slice(0, 20)).toEqual([]);
      expect(counts.get(503) ?? 0).toBeLessThanOrEqual(Math.ceil(COUNT * MOST_ASKED_BACK));
    },
    LONGEST_MS,
  );
  test("afterwards every page is served, and nothing is stored that cannot be read", async () => {
    for (const { path } of pageDoors(ids)) {
      if (path.startsWith("/settings/backups") || path.endsWith("/display")) continue;
      const { status, what } = await ask(path, {}, path);
      expect([what, status < 500 ? "served" : status]).toEqual([what, "served"]);
    }
    expect(await listDamage(connection.db)).toEqual([]);
  });
  test("the log of the server holds nothing that was typed", () => {
    const log = server.said();
    expect(log).not.toContain("params:");
    for (const text of ["drop table bike", "alert(1)", "evil.example"]) expect(log).not.toContain(text);
  });
});

describe("words typed by people", () => {
  const setting = { levels: ["low", "high"], throttle: true };
  test("are read as a line, or said not to be", () => {
    for (const line of [...WORDS, ...TEXTS]) {
      const { body, problem } = readLine(line, setting);
      expect([line, body !== null || problem !== null]).toEqual([line, true]);
    }
  });
  test("name a column as a heading, or none", () => {
    for (const heading of [...WORDS, ...TEXTS]) {
      const { field, unit } = readHeading(heading);
      expect([heading, field === null || typeof field === "string"]).toEqual([heading, true]);
      expect([heading, unit === null || typeof unit === "string"]).toEqual([heading, true]);
    }
  });
});
