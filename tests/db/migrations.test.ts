import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { v7 as uuidv7 } from "uuid";
import { planSchema, templateNamed } from "#core/planning";
import { dropDatabase, withClient } from "#db/backup/databases";
import { withMigrationsUpTo } from "#db/backup/migrations";
import { connect } from "#db/client";
import { undo } from "#db/entities";
import { migrateDatabase } from "#db/migrate";
import { findPlan } from "#db/plans";
import { listRides } from "#db/tests";
import { MIGRATIONS } from "../../command/paths";

const address = process.env["TEST_DATABASE_URL"]!.replace(/\/[^/]+$/, "");
const name = "earlier_desk";
const url = `${address}/${name}`;

/** Migrations before clocks were kept by the name of their zone. */
const BEFORE_ZONES = 11;

beforeAll(async () => {
  await withClient(`${address}/postgres`, (client) => client.query(`create database ${name}`));
  await withMigrationsUpTo(MIGRATIONS, BEFORE_ZONES, (folder) => migrateDatabase(url, folder));
});
afterAll(() => withClient(`${address}/postgres`, (client) => dropDatabase(client, name)));

test("clocks kept as an offset go on as they were, in rides, plans and what an undo brings back", async () => {
  const ids = {
    bike: uuidv7(),
    pack: uuidv7(),
    plan: uuidv7(),
    test: uuidv7(),
    ride: uuidv7(),
    change: uuidv7(),
  };
  const { zone: _, ...body } = planSchema.parse({
    title: "earlier",
    question: "claim",
    method: templateNamed("Part charge")!.method,
    day: "2026-12-01",
  });
  await withClient(url, async (client) => {
    await client.query("insert into bike (id, name, levels) values ($1, 'early', '{low}')", [ids.bike]);
    await client.query("insert into pack (id, bike_id, name) values ($1, $2, 'early')", [ids.pack, ids.bike]);
    const was = { ...body, utcOffset: "-03:30" };
    const is = { ...body, utcOffset: "+02:00" };
    await client.query("insert into plan (id, bike_id, pack_id, day, body) values ($1, $2, $3, $4, $5)", [
      ...[ids.plan, ids.bike, ids.pack, body.day],
      JSON.stringify(is),
    ]);
    const before = { id: ids.plan, bikeId: ids.bike, packId: ids.pack, day: body.day, body: was, version: 1 };
    await client.query("insert into change (id, kind, row_id, before, made) values ($1, 'plan', $2, $3, 1)", [
      ...[ids.change, ids.plan],
      JSON.stringify(before),
    ]);
    await client.query(
      "insert into test (id, bike_id, pack_id, title, school, drive, day) values ($1, $2, $3, 'early', 'run-down', 'pedal', '2026-10-18')",
      [ids.test, ids.bike, ids.pack],
    );
    await client.query("insert into ride (id, test_id, position, utc_offset) values ($1, $2, 0, '+05:30')", [
      ...[ids.ride, ids.test],
    ]);
  });
  await migrateDatabase(url, MIGRATIONS);
  const { db, close } = connect(url, 2);
  try {
    expect((await listRides(db, ids.test)).map(({ zone }) => zone)).toEqual(["+05:30"]);
    expect((await findPlan(db, ids.plan))?.plan).toMatchObject({ title: "earlier", zone: "+02:00" });
    expect(await undo(db, ids.change)).toBe("yes");
    expect((await findPlan(db, ids.plan))?.plan.zone).toBe("-03:30");
  } finally {
    await close();
  }
});
