import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import type { Entry } from "#core/log";
import { bikeSchema, packRecordSchema, testSchema } from "#core/records";
import { findBike, listPacks, saveBike, savePack } from "#db/bikes";
import { connect, type Connection } from "#db/client";
import { appendEntries, listEntries, nextSeq } from "#db/log";
import { cachedResults, keepResult } from "#db/results";
import { seedOnce } from "#db/seed";
import { readTelemetry, saveTelemetry } from "#db/telemetry";
import { addRide, findTest, listRides, listTests, loadRecord, saveTest, saveTrack } from "#db/tests";
import { reckonTest } from "#core/results";

let connection: Connection;
const ids = { bike: uuidv7(), pack: uuidv7(), test: uuidv7(), ride: uuidv7() };
const bike = bikeSchema.parse({
  name: "Storage bike",
  levels: ["low", "high"],
  massKg: 24,
  pencil: ["motor"],
});
const pack = packRecordSchema.parse({ name: "Main", labelWh: 500, seriesCells: 13 });
const links = { bikeId: ids.bike, packId: ids.pack, secondPackId: null, setUpId: null, riderId: null };
const line = (seq: number, body: Entry["body"], rest: Partial<Entry> = {}): Entry => ({
  id: uuidv7(),
  seq,
  at: null,
  body,
  supersedes: null,
  ...rest,
});
const start = line(0, { kind: "start", distanceM: 0, percent: 100, chargerDone: true });
const end = line(
  1,
  { kind: "end", reason: "byChoice", distanceM: 20_000, percent: 60 },
  { at: "2026-10-18T10:00:00.000Z" },
);

beforeAll(async () => {
  connection = connect(process.env["TEST_DATABASE_URL"]!, 4);
  const { db } = connection;
  await saveBike(db, ids.bike, bike);
  await savePack(db, ids.pack, ids.bike, pack);
  await saveTest(db, ids.test, links, testSchema.parse({ title: "stored", day: "2026-10-18" }), {
    id: ids.ride,
    utcOffset: "-05:00",
  });
});
afterAll(() => connection.close());

describe("bikes and packs", () => {
  test("come back as they went in, in SI, with their pencil", async () => {
    expect(await findBike(connection.db, ids.bike)).toEqual({ ...bike, id: ids.bike, archived: false });
    expect(await listPacks(connection.db, ids.bike)).toEqual([
      { ...pack, id: ids.pack, bikeId: ids.bike, archived: false },
    ]);
  });
  test("an emptied field is emptied", async () => {
    const { massKg: _massKg, ...lighter } = bike;
    await saveBike(connection.db, ids.bike, lighter);
    expect((await findBike(connection.db, ids.bike))!.massKg).toBeUndefined();
    await saveBike(connection.db, ids.bike, bike);
  });
  test("a name with quotes and semicolons is only a name", async () => {
    const id = uuidv7();
    const name = `'; drop table bike; --"`;
    await saveBike(connection.db, id, { ...bike, name });
    expect((await findBike(connection.db, id))!.name).toBe(name);
  });
});

describe("the append-only log", () => {
  test("a repeated send changes nothing", async () => {
    await appendEntries(connection.db, ids.ride, [start, end]);
    await appendEntries(connection.db, ids.ride, [end, start]);
    await appendEntries(connection.db, ids.ride, [{ ...end, body: { kind: "end", reason: "cutOff" } }]);
    expect(await listEntries(connection.db, ids.ride)).toEqual([start, end]);
    expect(await nextSeq(connection.db, ids.ride)).toBe(2);
  });
  test("entries go in all or none", async () => {
    const good = line(5, { kind: "note", note: "kept?" });
    const bad = { ...line(6, { kind: "note", note: "x" }), id: "not a uuid" };
    await expect(appendEntries(connection.db, ids.ride, [good, bad])).rejects.toThrow();
    expect((await listEntries(connection.db, ids.ride)).map(({ id }) => id)).not.toContain(good.id);
  });
  test("a kind that does not match its body is refused by the database", async () => {
    await expect(
      connection.db.execute(
        sql`insert into entry (id, ride_id, seq, kind, body) values (${uuidv7()}, ${ids.ride}, 9, 'end', '{"kind":"note"}'::jsonb)`,
      ),
    ).rejects.toThrow();
  });
});

describe("tests", () => {
  test("load whole and can be reckoned", async () => {
    const record = (await loadRecord(connection.db, ids.test))!;
    const results = reckonTest(record);
    expect(results.ok && results.value.best.value.mean).toBeGreaterThan(0);
  });
  test("the stamp changes with the log, the bike and the track, and not by itself", async () => {
    const stamp = async () => (await findTest(connection.db, ids.test))!.stamp;
    const first = await stamp();
    expect(await stamp()).toBe(first);
    await appendEntries(connection.db, ids.ride, [line(7, { kind: "note", note: "n" })]);
    const second = await stamp();
    await saveBike(connection.db, ids.bike, bike);
    const third = await stamp();
    await saveTrack(connection.db, uuidv7(), ids.ride, {
      name: "t",
      timeS: [0, 1],
      lat: [0, 0],
      lon: [0, 0.1],
      eleM: [null, 3],
    });
    expect(new Set([first, second, third, await stamp()]).size).toBe(4);
  });
  test("a point without a height comes back without one", async () => {
    expect((await loadRecord(connection.db, ids.test))!.rides[0]!.track!.eleM).toEqual([null, 3]);
  });
  test("rides of one charge keep their order", async () => {
    await addRide(connection.db, uuidv7(), ids.test, "");
    expect(
      (await listRides(connection.db, ids.test)).map(({ name, utcOffset }) => [name, utcOffset]),
    ).toEqual([
      ["Ride 1", "-05:00"],
      ["Ride 2", "-05:00"],
    ]);
  });
  test("a result is cached under its stamp", async () => {
    const result = reckonTest((await loadRecord(connection.db, ids.test))!);
    if (!result.ok) throw new Error("not reckoned");
    const cached = { inputs: "hash", body: result.value };
    await keepResult(connection.db, ids.test, { stamp: "s1", ...cached });
    await keepResult(connection.db, ids.test, { stamp: "s2", ...cached });
    const hit = (await cachedResults(connection.db, [ids.test])).get(ids.test)!;
    expect(hit).toMatchObject({ stamp: "s2", inputs: "hash" });
    expect(hit.body.best).toEqual(result.value.best);
  });
});

describe("telemetry", () => {
  const seconds = Array.from({ length: 9000 }, (_, i) => i);
  const from = (startS: number) => ({
    logger: "box",
    timeS: seconds.map((second) => startS + second),
    volts: seconds.map((second) => 54 - second / 1000),
    amps: seconds.map((second) => (second % 7) - 1),
    speedMps: seconds.map(() => 6),
  });
  test("comes back as it was, over chunks and the turn of a month", async () => {
    const record = from(Date.UTC(2026, 9, 31, 23) / 1000);
    await saveTelemetry(connection.db, ids.ride, record);
    await saveTelemetry(connection.db, ids.ride, record);
    expect(await readTelemetry(connection.db, ids.ride)).toEqual(record);
    const parts = await connection.db.execute(
      sql`select count(*)::int as rows, count(distinct tableoid)::int as months from telemetry`,
    );
    expect(parts.rows[0]).toEqual({ rows: 3, months: 2 });
  });
  test("moves the stamp of its test", async () => {
    const before = (await findTest(connection.db, ids.test))!.stamp;
    await saveTelemetry(connection.db, ids.ride, from(Date.UTC(2026, 10, 2) / 1000));
    expect((await findTest(connection.db, ids.test))!.stamp).not.toBe(before);
  });
  test("a ride without any has none", async () => {
    expect(await readTelemetry(connection.db, uuidv7())).toBeNull();
  });
});

test("the demo is seeded only into an empty desk", async () => {
  const before = (await listTests(connection.db)).length;
  expect(await seedOnce(connection.db)).toBe(false);
  expect((await listTests(connection.db)).length).toBe(before);
});
