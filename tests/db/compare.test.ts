import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { v7 as uuidv7 } from "uuid";
import {
  bikeSchema,
  climbSchema,
  packRecordSchema,
  referenceSchema,
  sweepSchema,
  testSchema,
} from "#core/records";
import { analyseTest } from "#core/analysis";
import { REFERENCES } from "#core/bike";
import { findBike, keepLearned, saveBike, savePack } from "#db/bikes";
import { connect, type Connection } from "#db/client";
import { findDerived, keepDerived } from "#db/derived";
import { findClimb, findSweep, listClimbs, listSweeps, saveClimb, saveSweep } from "#db/field";
import { undo } from "#db/entities";
import { archiveEntity } from "#db/tidying";
import { appendEntries } from "#db/log";
import { listPublished, listReferences, publish, saveReference } from "#db/references";
import { cachedDigests, headlinesOf, keepAnalysis } from "#db/results";
import { findTest, saveTest } from "#db/tests";
import { loadRecord } from "#db/record";

let connection: Connection;
const [bike, pack, testId, rideId] = [uuidv7(), uuidv7(), uuidv7(), uuidv7()];
const links = { bikeId: bike, packId: pack, setUpId: null, riderId: null };

beforeAll(async () => {
  connection = connect(process.env["TEST_DATABASE_URL"]!, 4);
  const { db } = connection;
  await saveBike(db, bike, bikeSchema.parse({ name: "Compared", levels: ["low"], throttle: true }));
  await savePack(
    db,
    pack,
    bike,
    packRecordSchema.parse({ name: "p", labelWh: 500, seriesCells: 13, priceMinor: 70_000 }),
  );
  const value = testSchema.parse({
    title: "compared",
    day: "2026-10-18",
    effort: "steady",
    bpm: 120,
    windMps: 3,
    windFromDeg: 90,
    stops: 7,
    altitudeM: 200,
  });
  await saveTest(db, testId, { ...links, secondPackId: null }, value, {
    firstRide: { id: rideId, zone: "+00:00" },
  });
  const entry = (seq: number, body: object) => ({
    id: uuidv7(),
    seq,
    at: null,
    supersedes: null,
    body: body as never,
  });
  await appendEntries(db, rideId, [
    entry(0, { kind: "start", distanceM: 0, percent: 100 }),
    entry(1, { kind: "checkIn", distanceM: 16_000, percent: 70, section: "upper", side: "B" }),
    entry(2, { kind: "checkIn", distanceM: 24_000, percent: 50 }),
  ]);
});
afterAll(() => connection.close());

test("a test keeps what it takes to bring it to other conditions, and its runs", async () => {
  const record = (await loadRecord(connection.db, testId))!;
  expect(record.test).toMatchObject({
    effort: "steady",
    bpm: 120,
    windMps: 3,
    windFromDeg: 90,
    stops: 7,
    altitudeM: 200,
  });
  expect(record.pack.priceMinor).toBe(70_000);
  const results = analyseTest(record);
  expect(results.ok && results.value.course.legs.map(({ section, side }) => [section, side])).toEqual([
    ["", null],
    ["upper", "B"],
  ]);
});

test("digests are kept beside results, and read without them", async () => {
  const { db } = connection;
  const results = analyseTest((await loadRecord(db, testId))!);
  if (!results.ok) throw new Error("reckoned");
  await keepAnalysis(db, testId, { stamp: "s1", inputs: "i1", result: results, notes: [] });
  const digest = (await cachedDigests(db, [testId])).get(testId)!;
  expect(digest.best.value).toEqual(results.value.best.value);
  expect(digest).not.toHaveProperty("curve");
  expect((await headlinesOf(db, [testId])).get(testId)).toMatchObject({ whPerM: results.value.best.value });
});

test("a test's stamp moves with its own entries", async () => {
  const { db } = connection;
  const before = (await findTest(db, testId))!.stamp;
  await appendEntries(db, rideId, [
    { id: uuidv7(), seq: 3, at: null, supersedes: null, body: { kind: "note", note: "later" } as never },
  ]);
  expect((await findTest(db, testId))!.stamp).not.toBe(before);
});

test("sweeps and climbs are kept, listed, put away and brought back", async () => {
  const { db } = connection;
  const [sweep, climb] = [uuidv7(), uuidv7()];
  await saveSweep(db, sweep, links, sweepSchema.parse({ title: "evening", day: "2026-10-18" }));
  const body = { hill: "tower", day: "2026-10-18", lengthM: 1000, gainM: 47, timeS: 184, energyWh: 31 };
  const change = await saveClimb(db, climb, links, climbSchema.parse(body));
  expect(await findSweep(db, sweep)).toMatchObject({ bikeName: "Compared", body: { title: "evening" } });
  expect((await findClimb(db, climb))!.body.gainM).toBe(47);
  expect((await listSweeps(db, { bikeId: bike })).map(({ id }) => id)).toEqual([sweep]);
  await archiveEntity(db, "sweep", sweep);
  expect(await listSweeps(db, { bikeId: bike })).toEqual([]);
  expect(await undo(db, change)).toBe("yes");
  expect(await listClimbs(db, { bikeId: bike })).toEqual([]);
});

test("a reference changed is a new version; what was published keeps its own", async () => {
  const { db } = connection;
  const house = REFERENCES[0]!;
  const changed = referenceSchema.parse({ name: "House", carriedKg: 90, speedMps: 6 });
  expect(await saveReference(db, changed, house.version)).toBe(2);
  expect(await saveReference(db, { ...changed, carriedKg: 95 }, house.version)).toBe(3);
  expect(await saveReference(db, { ...changed, name: "Ours alone" }, 0)).toBe(1);
  const versions = (await listReferences(db)).filter(({ body }) => body.name === "House");
  expect(versions.map(({ version, body }) => [version, body.carriedKg])).toEqual([
    [3, 95],
    [2, 90],
  ]);
  await publish(db, testId, { mean: 0.009, sd: 0.0004 }, house);
  expect(await listPublished(db, testId)).toMatchObject([
    { whPerM: { mean: 0.009 }, reference: { name: "House", version: 1, carriedKg: 100 } },
  ]);
});

test("what was derived is found by its key, once", async () => {
  const { db } = connection;
  expect(await findDerived(db, "pair/x")).toBeNull();
  await keepDerived(db, "pair/x", { a: 1 });
  await keepDerived(db, "pair/x", { a: 2 });
  expect(await findDerived(db, "pair/x")).toEqual({ body: { a: 2 } });
  await keepDerived(db, "fit/none", null);
  expect(await findDerived(db, "fit/none")).toEqual({ body: null });
});

test("what the other tests of a bike showed is in its record once taken over, is kept by a save and undone as one", async () => {
  const { db } = connection;
  const other = uuidv7();
  const stamp = async () => (await findTest(db, testId))!.stamp;
  const shown = (id: string) => ({ testId: id, point: "bar 3", mean: 0.55, sd: 0.02 });
  const before = await stamp();
  const change = await keepLearned(db, bike, {
    display: [shown(testId), shown(other)],
    packs: new Map([[pack, [{ testId: other, on: "2026-10-18", wh: 440, sdWh: 8 }]]]),
  });
  const record = (await loadRecord(db, testId))!;
  // What a test itself showed counts not for it.
  expect(record.known!.points).toEqual([{ point: "bar 3", mean: 0.55, sd: 0.02, tests: 1 }]);
  expect(record.known!.capacity!.mean).toBeCloseTo(440, 9);
  expect(await stamp()).not.toBe(before);
  const { id: _, archived, version, ...kept } = (await findBike(db, bike))!;
  await saveBike(db, bike, bikeSchema.parse({ ...kept, learned: undefined, what: "cargo" }));
  expect((await findBike(db, bike))!.learned).toHaveLength(2);
  expect([archived, version > 1]).toEqual([false, true]);
  expect((await keepLearned(db, bike, { display: [], packs: new Map() }))!).toEqual(expect.any(String));
  expect((await loadRecord(db, testId))!.known).toBeNull();
  expect(await keepLearned(db, bike, { display: [], packs: new Map() })).toBeNull();
  expect(change).toEqual(expect.any(String));
});
