import { existsSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, expect, test } from "@jest/globals";
import { v7 as uuidv7 } from "uuid";
import { dropDatabase, withClient } from "#db/backup/databases";
import { withMigrationsUpTo } from "#db/backup/migrations";
import { readBackup } from "#db/backup/read";
import { migrateDatabase } from "#db/migrate";
import { MIGRATIONS } from "../../command/paths";
import { backupBeforeUpgrade } from "../../command/upgrade";

const address = process.env["TEST_DATABASE_URL"]!.replace(/\/[^/]+$/, "");
const name = "upgraded_desk";
const url = `${address}/${name}`;
const folder = mkdtempSync(join(tmpdir(), "barometron-upgrade-"));
const EARLIER = 12;

beforeAll(() => withClient(`${address}/postgres`, (client) => client.query(`create database ${name}`)));
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true });
  await withClient(`${address}/postgres`, (client) => dropDatabase(client, name));
});

test("before a newer version changes anything, all data is in a file that the version before reads", async () => {
  expect(await backupBeforeUpgrade(url, folder)).toBeNull();
  await withMigrationsUpTo(MIGRATIONS, EARLIER, (earlier) => migrateDatabase(url, earlier));
  await withClient(url, (client) =>
    client.query("insert into bike (id, name, levels) values ($1, 'early', '{low}')", [uuidv7()]),
  );
  const file = await backupBeforeUpgrade(url, folder);
  expect(existsSync(file!)).toBe(true);
  const { schema, tables } = await readBackup({ file: file!, migrations: MIGRATIONS, programs: null });
  expect(schema).toBe(EARLIER);
  expect(tables.find((table) => table.name === "bike")).toMatchObject({ rows: 1 });
  await migrateDatabase(url, MIGRATIONS);
  expect(await backupBeforeUpgrade(url, folder)).toBeNull();
});
