import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { eq } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import { bikeSchema, packRecordSchema, riderSchema, setUpSchema, testSchema } from "#core/records";
import { planSchema, templateNamed } from "#core/planning";
import { sheetOptionsSchema } from "#core/telling";
import {
  findBike,
  listBikes,
  listPacks,
  listRiders,
  listSetUps,
  saveBike,
  savePack,
  saveRider,
  saveSetUp,
} from "#db/bikes";
import { connect, type Connection, type Database } from "#db/client";
import { undo } from "#db/entities";
import { ENTITY_KINDS, nameOf, Refused, tableOf } from "#db/kinds";
import { appendEntries } from "#db/log";
import { mergedRow, mergeEntities } from "#db/merging";
import { findPlan, savePlan, startPlan } from "#db/plans";
import { desk, entry, sheet } from "#db/schema";
import { publishSheet, saveSheet } from "#db/sheets";
import { countTests, findTest, listRides, listStamps, listTests, saveTest } from "#db/tests";
import { archiveEntity, duplicateEntity, renameEntity } from "#db/tidying";
import { bringBack, deleteEntity, emptyTrash, listArchived, listTrash } from "#db/trash";

let connection: Connection;
let db: Database;
const bike = bikeSchema.parse({
  name: "Tidied bike",
  levels: ["low", "high"],
  massKg: 24,
  pencil: ["motor"],
});
const pack = packRecordSchema.parse({ name: "Main", labelWh: 500, seriesCells: 13 });
const later = () => new Date(Date.now() + 1000);

/** A bike with a pack, a set-up, a rider and a test with one entry. */
async function filled(name = "Tidied bike") {
  const ids = {
    bike: uuidv7(),
    pack: uuidv7(),
    setUp: uuidv7(),
    rider: uuidv7(),
    test: uuidv7(),
    ride: uuidv7(),
  };
  await saveBike(db, ids.bike, { ...bike, name });
  await savePack(db, ids.pack, ids.bike, pack);
  await saveSetUp(db, ids.setUp, ids.bike, setUpSchema.parse({ name: "slick" }));
  await saveRider(db, ids.rider, riderSchema.parse({ name: `${name}'s rider`, massKg: 70 }));
  const links = {
    bikeId: ids.bike,
    packId: ids.pack,
    secondPackId: null,
    setUpId: ids.setUp,
    riderId: ids.rider,
  };
  await saveTest(db, ids.test, links, testSchema.parse({ title: "first", day: "2026-10-18" }), {
    firstRide: { id: ids.ride, zone: "+02:00" },
  });
  await appendEntries(db, ids.ride, [
    {
      ...{ id: uuidv7(), seq: 0, at: null, supersedes: null },
      body: { kind: "start", distanceM: 0, percent: 100, chargerDone: true },
    },
  ]);
  return { ...ids, links };
}

beforeAll(async () => {
  connection = connect(process.env["TEST_DATABASE_URL"]!, 4);
  const deskId = uuidv7();
  await connection.db.insert(desk).values({ id: deskId, name: "Tidying" });
  db = connection.at({ deskId, actor: "" });
});
afterAll(() => connection.close());

describe("a test", () => {
  test("that is archived is in no list and counts for nothing, but is found by its address", async () => {
    const ids = await filled();
    const change = await archiveEntity(db, "test", ids.test);
    expect(await countTests(db, { bikeId: ids.bike })).toBe(0);
    expect(await listTests(db, { bikeId: ids.bike })).toHaveLength(0);
    expect(await listTests(db, { bikeId: ids.bike, archived: true })).toHaveLength(1);
    expect((await listStamps(db)).find(({ id }) => id === ids.test)).toMatchObject({ archived: true });
    expect(await findTest(db, ids.test)).toMatchObject({ archived: true, deletedAt: null });
    expect(await listArchived(db)).toContainEqual({ kind: "test", id: ids.test, name: "first" });
    expect(await undo(db, change!)).toBe("yes");
    expect(await countTests(db, { bikeId: ids.bike })).toBe(1);
  });
  test("that is deleted is in the trash, is undone, is brought back, and is gone for good when it is emptied", async () => {
    const ids = await filled();
    const change = await deleteEntity(db, "test", ids.test);
    expect(await listTests(db, { bikeId: ids.bike, archived: true })).toHaveLength(0);
    expect((await listStamps(db)).map(({ id }) => id)).not.toContain(ids.test);
    expect((await listTrash(db)).find(({ id }) => id === ids.test)).toMatchObject({
      name: "first",
      with: "",
    });
    expect(await undo(db, change!)).toBe("yes");
    expect(await countTests(db, { bikeId: ids.bike })).toBe(1);
    await deleteEntity(db, "test", ids.test);
    await bringBack(db, "test", ids.test);
    expect(await findTest(db, ids.test)).toMatchObject({ archived: false, deletedAt: null });
    await deleteEntity(db, "test", ids.test);
    expect(await emptyTrash(db)).toBe(0);
    expect(await emptyTrash(db, later())).toBeGreaterThan(0);
    expect(await findTest(db, ids.test)).toBeNull();
    expect(await db.select().from(entry).where(eq(entry.rideId, ids.ride))).toHaveLength(0);
    expect(await findBike(db, ids.bike)).not.toBeNull();
  });
  test("that was archived before it was deleted comes back into the archive", async () => {
    const ids = await filled();
    await archiveEntity(db, "test", ids.test);
    await new Promise((done) => setTimeout(done, 5));
    await deleteEntity(db, "test", ids.test);
    await bringBack(db, "test", ids.test);
    expect(await findTest(db, ids.test)).toMatchObject({ archived: true, deletedAt: null });
  });
  test("is copied with its conditions, its clock and an empty log, once however often it is asked for", async () => {
    const ids = await filled();
    const copy = uuidv7();
    await duplicateEntity(db, "test", ids.test, { copy, today: "2026-11-02" });
    await duplicateEntity(db, "test", ids.test, { copy, today: "2026-11-02" });
    expect(await countTests(db, { bikeId: ids.bike })).toBe(2);
    expect(await findTest(db, copy)).toMatchObject({
      ...{ riderId: ids.rider, setUpId: ids.setUp },
      test: { title: "first, copy", day: "2026-11-02" },
    });
    const rides = await listRides(db, copy);
    expect(rides).toMatchObject([{ zone: "+02:00" }]);
    expect(await db.select().from(entry).where(eq(entry.rideId, rides[0]!.id))).toHaveLength(0);
  });
  test("with a published report is not deleted; with one that was withdrawn it goes, report and all", async () => {
    const ids = await filled();
    const page = uuidv7();
    await saveSheet(
      db,
      page,
      { testId: ids.test, benchId: null },
      sheetOptionsSchema.parse({ kind: "test", title: "Told" }),
    );
    await publishSheet(db, uuidv7(), page, {} as never, "hash");
    await expect(deleteEntity(db, "test", ids.test)).rejects.toThrow(/Told is published. Withdraw it first/);
    await expect(deleteEntity(db, "bike", ids.bike)).rejects.toThrow(Refused);
    await connection.db.execute(`update edition set withdrawn_at = now() where sheet_id = '${page}'`);
    await deleteEntity(db, "test", ids.test);
    expect((await listTrash(db)).find(({ id }) => id === ids.test)).toMatchObject({ with: "1 report" });
    await emptyTrash(db, later());
    expect(await db.select().from(sheet).where(eq(sheet.id, page))).toHaveLength(0);
  });
  test("in the trash leaves its plan to be ridden again", async () => {
    const ids = await filled();
    const plan = uuidv7();
    const { bikeId, packId, setUpId, riderId } = ids.links;
    const body = planSchema.parse({
      ...{ title: "loops", question: "claim", day: "2026-10-18" },
      method: templateNamed("Part charge")!.method,
    });
    await savePlan(db, plan, { bikeId, packId, setUpId, riderId, courseId: null, testId: ids.test }, body);
    expect((await findPlan(db, plan))!.testId).toBe(ids.test);
    await deleteEntity(db, "test", ids.test);
    expect((await findPlan(db, plan))!.testId).toBeNull();
    const again = await filled();
    expect(await startPlan(db, plan, () => Promise.resolve(again.test))).toBe(again.test);
  });
});

describe("a bike", () => {
  test("goes to the trash with all that belongs to it, and comes back with it", async () => {
    const ids = await filled("Whole");
    await deleteEntity(db, "bike", ids.bike);
    const trash = await listTrash(db);
    expect(trash.find(({ id }) => id === ids.bike)).toMatchObject({ with: "1 pack, 1 set-up, and 1 test" });
    expect(trash.map(({ id }) => id)).not.toContain(ids.pack);
    expect((await listBikes(db, { archived: true })).map(({ id }) => id)).not.toContain(ids.bike);
    await bringBack(db, "bike", ids.bike);
    expect(await listPacks(db, ids.bike)).toHaveLength(1);
    expect(await countTests(db, { bikeId: ids.bike })).toBe(1);
    await deleteEntity(db, "bike", ids.bike);
    await emptyTrash(db, later());
    expect(await findBike(db, ids.bike)).toBeNull();
  });
  test("is copied with its packs and set-ups", async () => {
    const ids = await filled("Copied");
    const copy = uuidv7();
    await duplicateEntity(db, "bike", ids.bike, { copy, today: "2026-11-02" });
    expect((await findBike(db, copy))!.name).toBe("Copied, copy");
    expect(await listPacks(db, copy)).toMatchObject([{ name: "Main" }]);
    expect(await listSetUps(db, copy)).toMatchObject([{ name: "slick" }]);
    expect(await countTests(db, { bikeId: copy })).toBe(0);
  });
  test("entered twice is made one: tests, packs and facts, and that is undone at once", async () => {
    const [first, second] = [await filled("One"), await filled("Two")];
    await saveBike(db, second.bike, {
      ...bike,
      name: "Two",
      massKg: undefined,
      motor: "mid",
      motorW: 250,
      pencil: [],
    });
    const change = await mergeEntities(db, "bike", second.bike, first.bike);
    expect(await countTests(db, { bikeId: first.bike })).toBe(2);
    expect(await listPacks(db, first.bike)).toHaveLength(2);
    expect(await findBike(db, first.bike)).toMatchObject({
      name: "One",
      massKg: 24,
      motorW: 250,
      motor: "mid",
      pencil: [],
    });
    expect((await listTrash(db)).find(({ id }) => id === second.bike)).toMatchObject({ name: "Two" });
    const moved = await mergeEntities(db, "pack", second.pack, first.pack);
    expect(await listPacks(db, first.bike)).toHaveLength(1);
    expect((await findTest(db, second.test))!.packId).toBe(first.pack);
    expect(await undo(db, moved!)).toBe("yes");
    expect(await undo(db, change!)).toBe("yes");
    expect(await countTests(db, { bikeId: second.bike })).toBe(1);
    expect(await findBike(db, first.bike)).toMatchObject({ massKg: 24, motor: "hub", pencil: ["motor"] });
  });
  test("is not merged with itself, nor packs of two bikes with one another", async () => {
    const [first, second] = [await filled("One"), await filled("Two")];
    await expect(mergeEntities(db, "bike", first.bike, first.bike)).rejects.toThrow("Choose another one");
    await expect(mergeEntities(db, "pack", first.pack, second.pack)).rejects.toThrow("different bikes");
    expect(await mergeEntities(db, "bike", first.bike, uuidv7())).toBeNull();
  });
});

describe("a rider", () => {
  test("who rode is not deleted, but merged with whom they are", async () => {
    const ids = await filled("Ridden");
    await expect(deleteEntity(db, "rider", ids.rider)).rejects.toThrow(
      /rider is used by 1 test\. Delete those first, or archive/,
    );
    const other = uuidv7();
    await saveRider(db, other, riderSchema.parse({ name: "Maren", pencil: ["massKg"] }));
    await mergeEntities(db, "rider", ids.rider, other);
    expect((await findTest(db, ids.test))!.riderId).toBe(other);
    expect((await listRiders(db)).find(({ id }) => id === other)).toMatchObject({
      name: "Maren",
      massKg: 70,
      pencil: [],
    });
  });
  test("in the trash whom a test needs comes back with that test", async () => {
    const ids = await filled("Needed");
    await deleteEntity(db, "test", ids.test);
    await deleteEntity(db, "rider", ids.rider);
    await emptyTrash(db, new Date(0));
    await bringBack(db, "test", ids.test);
    expect((await listRiders(db)).map(({ id }) => id)).toContain(ids.rider);
  });
});

test("facts that are known take the place of those that were assumed, and of none", () => {
  const kept = { id: "a", massKg: null, motor: "hub", motorW: 250, pencil: ["motor"] };
  const other = { id: "b", massKg: 20, motor: "mid", motorW: 500, pencil: ["massKg"] };
  expect(mergedRow(kept, other)).toEqual({
    id: "a",
    massKg: 20,
    motor: "mid",
    motorW: 250,
    pencil: ["massKg"],
  });
});

test("every kind is renamed, archived, deleted and brought back", async () => {
  const ids = await filled("Every");
  for (const kind of ["bike", "pack", "setUp", "rider", "test"] as const) {
    await renameEntity(db, kind, ids[kind], `${kind} by another name`);
    const [row] = await db
      .select()
      .from(tableOf(kind))
      .where(eq(tableOf(kind).id, ids[kind]));
    expect(nameOf(kind, row as never)).toBe(`${kind} by another name`);
  }
  for (const kind of ENTITY_KINDS) {
    expect(await renameEntity(db, kind, uuidv7(), "nobody")).toBeNull();
    expect(await archiveEntity(db, kind, uuidv7())).toBeNull();
    expect(await deleteEntity(db, kind, uuidv7())).toBeNull();
    expect(await bringBack(db, kind, uuidv7())).toBeNull();
    expect(await duplicateEntity(db, kind, uuidv7(), { copy: uuidv7(), today: "2026-11-02" })).toBeNull();
  }
});
