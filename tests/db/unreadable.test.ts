import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { sql } from "drizzle-orm";
import { v7 as uuidv7 } from "uuid";
import { bikeSchema, packRecordSchema, sweepSchema, testSchema } from "#core/records";
import { findBike, listBikes, saveBike, savePack } from "#db/bikes";
import { listDamage, setRowAside } from "#db/check";
import { connect, type Connection } from "#db/client";
import { findSweep, listSweeps, saveSweep } from "#db/field";
import { appendEntries, listEntries } from "#db/log";
import { findTest, listTests, saveTest } from "#db/tests";
import { loadRecord } from "#db/record";
import { UnreadableRow, type Unreadable } from "#db/unreadable";

let connection: Connection;
const ids = { bike: uuidv7(), pack: uuidv7(), test: uuidv7(), ride: uuidv7(), entry: uuidv7() };
const sweeps: string[] = [];
const links = { bikeId: ids.bike, packId: ids.pack, secondPackId: null, setUpId: null, riderId: null };

beforeAll(async () => {
  connection = connect(process.env["TEST_DATABASE_URL"]!, 4);
  const { db } = connection;
  await saveBike(db, ids.bike, bikeSchema.parse({ name: "Damaged bike", levels: ["low"], massKg: 24 }));
  await savePack(db, ids.pack, ids.bike, packRecordSchema.parse({ name: "p", labelWh: 500 }));
  await saveTest(db, ids.test, links, testSchema.parse({ title: "damaged", day: "2026-10-18" }), {
    firstRide: { id: ids.ride, zone: "+00:00" },
  });
  await appendEntries(db, ids.ride, [
    { id: ids.entry, seq: 0, at: null, supersedes: null, body: { kind: "note", note: "fine" } },
  ]);
});
afterAll(() => connection.close());

/** Sets every damaged row of these tests aside. */
async function asideAll(): Promise<readonly string[]> {
  const said: string[] = [];
  const own: readonly string[] = [...Object.values(ids), ...sweeps];
  for (const row of await listDamage(connection.db))
    if (own.includes(row.id)) said.push(await setRowAside(connection.db, row));
  return said;
}

const aside = async () =>
  (await connection.db.execute<{ table_name: string; row: unknown }>(sql`select * from set_aside`)).rows;

describe("a stored row that cannot be read", () => {
  test.each([
    ["a place beyond all numbers", sql`update entry set seq = 9007199254740992 where id = ${ids.entry}`],
    [
      "a body that is none",
      sql`update entry set body = '{"kind":"note"}'::jsonb, seq = 0 where id = ${ids.entry}`,
    ],
    ["a time without end", sql`update entry set at = 'infinity' where id = ${ids.entry}`],
  ])("of a log, with %s, is left out and told; the rest is read", async (_what, damage) => {
    const { db } = connection;
    const other = uuidv7();
    await appendEntries(db, ids.ride, [
      { id: other, seq: 0, at: null, supersedes: null, body: { kind: "note", note: "beside it" } },
    ]);
    await db.execute(damage);
    const unreadable: Unreadable[] = [];
    const log = await listEntries(db, ids.ride, unreadable);
    expect(log.map(({ id }) => id)).toContain(other);
    expect(unreadable.map(({ id }) => id)).toEqual([ids.entry]);
    expect(await loadRecord(db, ids.test)).not.toBeNull();
    expect(await asideAll()).toEqual(["It is kept aside whole."]);
    expect((await aside()).at(-1)).toMatchObject({ table_name: "entry", row: { id: ids.entry } });
    await appendEntries(db, ids.ride, [
      { id: ids.entry, seq: 0, at: null, supersedes: null, body: { kind: "note", note: "fine" } },
    ]);
  });
  test("a bike with a weight that cannot be takes no list down, and is mended in place", async () => {
    const { db } = connection;
    await db.execute(sql`update bike set mass_kg = 1e308, bars = -4 where id = ${ids.bike}`);
    const unreadable: Unreadable[] = [];
    expect((await listBikes(db, { unreadable })).map(({ id }) => id)).not.toContain(ids.bike);
    expect(unreadable).toMatchObject([{ table: "bike", id: ids.bike, label: "Damaged bike" }]);
    await expect(findBike(db, ids.bike)).rejects.toBeInstanceOf(UnreadableRow);
    await expect(loadRecord(db, ids.test)).rejects.toBeInstanceOf(UnreadableRow);
    await asideAll();
    expect(await findBike(db, ids.bike)).toMatchObject({ name: "Damaged bike", bars: 0 });
    expect((await aside()).at(-1)).toMatchObject({ row: { massKg: 1e308, bars: -4 } });
  });
  test("a test whose title was emptied is named by its place, and gets one", async () => {
    const { db } = connection;
    await db.execute(sql`update test set title = '', stops = -5 where id = ${ids.test}`);
    expect((await listTests(db)).map(({ id }) => id)).not.toContain(ids.test);
    await asideAll();
    expect((await findTest(db, ids.test))!.test.title).toBe("could not be read");
  });
  test("a sweep of nothing is set aside whole", async () => {
    const { db } = connection;
    const id = uuidv7();
    sweeps.push(id);
    await saveSweep(db, id, links, sweepSchema.parse({ title: "evening", day: "2026-10-18" }));
    await db.execute(sql`update sweep set body = '{"rows": 7}'::jsonb where id = ${id}`);
    const unreadable: Unreadable[] = [];
    await listSweeps(db, { unreadable });
    expect(unreadable).toHaveLength(1);
    await expect(findSweep(db, id)).rejects.toBeInstanceOf(UnreadableRow);
    await asideAll();
    expect(await findSweep(db, id)).toBeNull();
    expect((await listDamage(db)).map((row) => row.id)).not.toContain(id);
  });
});
