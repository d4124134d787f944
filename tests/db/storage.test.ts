import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import type { Entry } from "#core/ride/log";
import { bikeSchema, packRecordSchema, testSchema } from "#core/records";
import { findBike, listPacks, saveBike, savePack } from "#db/bikes";
import { connect, type Connection } from "#db/client";
import { appendEntries, listEntries } from "#db/log";
import { cachedAnalysis, keepAnalysis } from "#db/results";
import { seedOnce } from "#db/seed";
import { addSamples, chooseImport, listImports, readTelemetry, saveTelemetry } from "#db/telemetry";
import { addRide, findTest, listRides, listTests, saveTest } from "#db/tests";
import { saveTrack } from "#db/tracks";
import { loadRecord } from "#db/record";
import { analyseTest } from "#core/analysis";

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
    firstRide: { id: ids.ride, zone: "-05:00" },
  });
});
afterAll(() => connection.close());

describe("bikes and packs", () => {
  test("come back as they went in, in SI, with their pencil", async () => {
    expect(await findBike(connection.db, ids.bike)).toMatchObject({
      ...bike,
      id: ids.bike,
      archived: false,
      version: 1,
    });
    expect(await listPacks(connection.db, ids.bike)).toEqual([
      { ...pack, id: ids.pack, bikeId: ids.bike, archived: false, version: 1 },
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
  const placed = (await_: readonly Entry[]) => await_.map(({ seq: _seq, ...rest }) => rest);
  test("a repeated send changes nothing, and each entry is told what became of it", async () => {
    const { db } = connection;
    const told = async (entries: readonly Entry[]) =>
      (await appendEntries(db, ids.ride, entries)).map(({ told: word }) => word);
    expect(await told([start, end])).toEqual(["kept", "kept"]);
    expect(await told([end, start])).toEqual(["same", "same"]);
    expect(await told([{ ...end, body: { kind: "end", reason: "cutOff" } }])).toEqual(["conflict"]);
    expect(placed(await listEntries(db, ids.ride))).toEqual(placed([start, end]));
  });
  test("the server gives the places: whatever a client sends, entries stand by their time", async () => {
    const { db } = connection;
    const early = line(
      Number.MAX_SAFE_INTEGER,
      { kind: "note", note: "noted early, sent late" },
      { at: "2026-10-18T09:00:00.000Z" },
    );
    await appendEntries(db, ids.ride, [early]);
    const log = await listEntries(db, ids.ride);
    expect(log.map(({ id }) => id)).toEqual([start.id, early.id, end.id]);
    expect(Math.max(...log.map(({ seq }) => seq))).toBeLessThan(4.2e12);
  });
  test("two at once get places of their own", async () => {
    const { db } = connection;
    const notes = Array.from({ length: 8 }, (_, i) => line(0, { kind: "note", note: `at once ${i}` }));
    await Promise.all(notes.map((note) => appendEntries(db, ids.ride, [note])));
    const seqs = (await listEntries(db, ids.ride)).map(({ seq }) => seq);
    expect(new Set(seqs).size).toBe(seqs.length);
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
    const results = analyseTest(record);
    expect(results.ok && results.value.best.value.mean).toBeGreaterThan(0);
  });
  test("the stamp changes with the log, the bike and the track, and not by itself", async () => {
    const stamp = async () => (await findTest(connection.db, ids.test))!.stamp;
    const first = await stamp();
    expect(await stamp()).toBe(first);
    await appendEntries(connection.db, ids.ride, [line(7, { kind: "note", note: "n" })]);
    const second = await stamp();
    await saveBike(connection.db, ids.bike, { ...bike, massKg: 25 });
    const third = await stamp();
    await saveTrack(connection.db, uuidv7(), ids.ride, {
      name: "t",
      timeS: [1.7e9, 1.7e9 + 1],
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
    expect((await listRides(connection.db, ids.test)).map(({ name, zone }) => [name, zone])).toEqual([
      ["Ride 1", "-05:00"],
      ["Ride 2", "-05:00"],
    ]);
  });
  test("an analysis is cached under its stamp; one that cannot be read counts as none", async () => {
    const { db } = connection;
    const result = analyseTest((await loadRecord(db, ids.test))!);
    if (!result.ok) throw new Error("not reckoned");
    await keepAnalysis(db, ids.test, { stamp: "s1", inputs: "hash", result, notes: [] });
    await keepAnalysis(db, ids.test, { stamp: "s2", inputs: "hash", result, notes: [] });
    const hit = await cachedAnalysis(db, ids.test);
    expect(hit).toMatchObject({ stamp: "s2", inputs: "hash", result: { ok: true } });
    expect(hit!.result.ok && hit!.result.value.best).toEqual(result.value.best);
    await db.execute(sql`update result set body = '[1]'::jsonb where test_id = ${ids.test}`);
    expect(await cachedAnalysis(db, ids.test)).toBeNull();
  });
  test("another ride, pressed ten times at once, is one ride", async () => {
    const { db } = connection;
    const id = uuidv7();
    const before = (await listRides(db, ids.test)).length;
    await Promise.all(Array.from({ length: 10 }, () => addRide(db, id, ids.test, "")));
    expect((await listRides(db, ids.test)).length).toBe(before + 1);
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
    await saveTelemetry(connection.db, ids.ride, record, "first");
    await saveTelemetry(connection.db, ids.ride, record, "first");
    expect(await readTelemetry(connection.db, ids.ride)).toEqual(record);
    const { rows } = await connection.db.execute(sql`select count(*)::int as rows from telemetry_chunk`);
    expect(rows[0]).toEqual({ rows: 3 });
  });
  test("a corrected file takes the place of the first, which can be brought back", async () => {
    const { db } = connection;
    const corrected = { ...from(Date.UTC(2026, 9, 31, 23) / 1000), volts: seconds.map(() => 50) };
    const before = (await findTest(db, ids.test))!.stamp;
    await saveTelemetry(db, ids.ride, corrected, "second");
    expect((await findTest(db, ids.test))!.stamp).not.toBe(before);
    expect((await readTelemetry(db, ids.ride))!.volts[0]).toBe(50);
    const [first] = (await listImports(db, ids.ride)).filter(({ replaced }) => replaced);
    expect(await chooseImport(db, ids.ride, first!.id)).toBe(true);
    expect((await readTelemetry(db, ids.ride))!.volts[0]).toBe(54);
  });
  test("another logger lies beside the first, and counts when it is chosen", async () => {
    const { db } = connection;
    await saveTelemetry(db, ids.ride, { ...from(Date.UTC(2026, 9, 31, 23) / 1000), logger: "aux" }, "third");
    expect((await readTelemetry(db, ids.ride))!.logger).toBe("box");
    const aux = (await listImports(db, ids.ride)).find(({ logger }) => logger === "aux")!;
    expect(await chooseImport(db, ids.ride, aux.id)).toBe(true);
    expect((await readTelemetry(db, ids.ride))!.logger).toBe("aux");
    expect((await listImports(db, ids.ride)).filter(({ counts }) => counts)).toHaveLength(1);
    expect(await chooseImport(db, ids.ride, uuidv7())).toBe(false);
  });
  test("rows of a device join what it wrote before; many at once of a new month are all kept", async () => {
    const { db } = connection;
    const rideId = uuidv7();
    await addRide(db, rideId, ids.test, "with a device");
    const startS = Date.UTC(2027, 3, 30, 23, 59) / 1000;
    const rowAt = (i: number) => ({
      logger: "device",
      timeS: [startS + 20 * i, startS + 20 * i + 10],
      volts: [50, 50],
      amps: [3, 4],
    });
    await Promise.all(Array.from({ length: 12 }, (_, i) => addSamples(db, rideId, rowAt(i))));
    await addSamples(db, rideId, rowAt(3));
    expect((await readTelemetry(db, rideId))!.timeS).toHaveLength(24);
    expect(await listImports(db, rideId)).toMatchObject([{ samples: 24, counts: true }]);
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
