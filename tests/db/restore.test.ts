import { spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { gunzipSync, gzipSync } from "node:zlib";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import pg from "pg";
import { v7 as uuidv7 } from "uuid";
import { bikeSchema } from "#core/records";
import { dropDatabase, withClient } from "#db/backup/databases";
import { migrationNames, withMigrationsUpTo } from "#db/backup/migrations";
import { readBackup } from "#db/backup/read";
import { beforeName, restoreBackup, undoRestore } from "#db/backup/restore";
import { writeBackup } from "#db/backup/write";
import { listBikes, saveBike } from "#db/bikes";
import { connect, type Database } from "#db/client";
import { listDamage } from "#db/check";
import { appendEntries, listEntries } from "#db/log";
import { migrateDatabase } from "#db/migrate";
import { listPlans } from "#db/plans";
import { seedOnce } from "#db/seed";
import { readTelemetry } from "#db/telemetry";
import { listRides, listTests } from "#db/tests";
import { postgresPrograms } from "../../command/packages";
import { MIGRATIONS } from "../../command/paths";

const address = process.env["TEST_DATABASE_URL"]!.replace(/\/[^/]+$/, "");
const folder = mkdtempSync(join(tmpdir(), "barometron-restore-"));
const programs = postgresPrograms();
const source = (file: string) => ({ file, migrations: MIGRATIONS, programs });
const desk = { address, database: "restored_desk" };
const url = `${address}/${desk.database}`;
const whole = join(folder, "whole.backup");

const admin = (sql: string) => withClient(`${address}/postgres`, (client) => client.query(sql));
const drop = (name: string) => withClient(`${address}/postgres`, (client) => dropDatabase(client, name));

async function on<T>(database: string, work: (db: Database) => Promise<T>): Promise<T> {
  const { db, close } = connect(`${address}/${database}`, 2);
  try {
    return await work(db);
  } finally {
    await close();
  }
}

/** Everything a desk shows, for setting one against another. */
const contents = (database: string) =>
  on(database, async (db) => {
    const tests = await listTests(db);
    const rides = (await Promise.all(tests.map(({ id }) => listRides(db, id)))).flat();
    const strip = ({ stamp: _stamp, ...line }: (typeof tests)[number]) => line;
    return {
      bikes: await listBikes(db, { archived: true }),
      tests: tests.map(strip),
      plans: await listPlans(db),
      logs: await Promise.all(rides.map(({ id }) => listEntries(db, id))),
      telemetry: (await Promise.all(rides.map(({ id }) => readTelemetry(db, id)))).filter(Boolean),
    };
  });

beforeAll(async () => {
  await admin(`create database ${desk.database}`);
  await migrateDatabase(url, MIGRATIONS);
  await on(desk.database, seedOnce);
  await writeBackup(url, whole, MIGRATIONS);
});
afterAll(async () => {
  for (const name of [desk.database, beforeName(desk.database), `${desk.database}_undone`]) await drop(name);
  rmSync(folder, { recursive: true, force: true });
});

describe("a backup", () => {
  test("is its owner's alone to read, and says what it holds", async () => {
    expect(statSync(whole).mode & 0o777).toBe(0o600);
    const manifest = await readBackup(source(whole));
    expect(manifest.schemaName).toBe(migrationNames(MIGRATIONS).at(-1));
    expect(manifest.tables).toContainEqual({ name: "bike", rows: 5 });
    expect(manifest.tables.find(({ name }) => name === "telemetry_chunk")!.rows).toBeGreaterThan(0);
  });
  test("brings back a desk with telemetry, word for word, and what was there is kept and put back", async () => {
    const before = await contents(desk.database);
    expect(before.telemetry).toHaveLength(1);
    await on(desk.database, (db) => db.execute("update bike set name = 'changed since'"));
    const { unreadable, before: kept } = await restoreBackup(desk, source(whole));
    expect(unreadable).toBe(0);
    expect(await contents(desk.database)).toEqual(before);
    expect((await contents(kept!)).bikes.map(({ name }) => name)).toContain("changed since");
    expect(await undoRestore(desk)).toBe(true);
    expect((await contents(desk.database)).bikes.map(({ name }) => name)).toContain("changed since");
    expect(await undoRestore(desk)).toBe(true);
    expect(await contents(desk.database)).toEqual(before);
  });
  test("goes beside the desk, which stays as it was", async () => {
    const beside = `${desk.database}_old`;
    try {
      const before = await contents(desk.database);
      const done = await restoreBackup(desk, source(whole), beside);
      expect(done.before).toBeNull();
      expect(await contents(beside)).toEqual(before);
      await expect(restoreBackup(desk, source(whole), beside)).rejects.toThrow("of that name already");
    } finally {
      await drop(beside);
    }
  });
  test("holds one moment, whatever is written meanwhile; a restore ends connections that are open", async () => {
    const file = join(folder, "meanwhile.backup");
    const open = connect(url, 2);
    const [first] = await listTests(open.db);
    const [ride] = await listRides(open.db, first!.id);
    let writing = true;
    const writes = (async () => {
      let written = 0;
      while (writing) {
        await appendEntries(open.db, ride!.id, [
          {
            id: uuidv7(),
            seq: 0,
            at: null,
            supersedes: null,
            body: { kind: "note", note: `meanwhile ${written}` },
          },
        ]);
        written += 1;
      }
      return written;
    })();
    const manifest = await writeBackup(url, file, MIGRATIONS);
    writing = false;
    expect(await writes).toBeGreaterThan(0);
    expect(await readBackup(source(file))).toEqual(manifest);
    await restoreBackup(desk, source(file));
    // The pool opens a new connection and finds the desk that was brought back.
    const again = await listEntries(open.db, ride!.id).catch(() => listEntries(open.db, ride!.id));
    expect(again.length).toBeGreaterThan(0);
    await open.close();
    await restoreBackup(desk, source(whole));
  });
});

/** Rows as the schema of each migration took them. */
async function fill(database: string, migrations: number): Promise<void> {
  const client = new pg.Client({ connectionString: `${address}/${database}` });
  await client.connect();
  const ids = { bike: uuidv7(), pack: uuidv7(), test: uuidv7(), ride: uuidv7() };
  try {
    await client.query(
      `insert into bike (id, name, levels) values ($1, 'Old bike "with" words\\and\ttabs', '{low,high}')`,
      [ids.bike],
    );
    await client.query(`insert into pack (id, bike_id, name, label_wh) values ($1, $2, 'p', 500)`, [
      ids.pack,
      ids.bike,
    ]);
    await client.query(
      `insert into test (id, bike_id, pack_id, title, school, drive, day) values ($1, $2, $3, 'old test', 'part charge', 'pedal', '2026-10-18')`,
      [ids.test, ids.bike, ids.pack],
    );
    await client.query(`insert into ride (id, test_id, position) values ($1, $2, 0)`, [ids.ride, ids.test]);
    await client.query(
      `insert into entry (id, ride_id, seq, kind, body) values ($1, $2, 0, 'note', '{"kind":"note","note":"line\\none"}')`,
      [uuidv7(), ids.ride],
    );
    if (migrations >= 2 && migrations < 7) {
      await client.query(
        `create table telemetry_2026_10 partition of telemetry for values from ('2026-10-01') to ('2026-11-01')`,
      );
      for (const [logger, startS] of [
        ["aux", 1_792_300_000],
        ["box", 1_792_300_000],
        ["aux", 1_792_300_100],
      ] as const)
        await client.query(
          `insert into telemetry (ride_id, logger, starts_at, time_s, volts, amps) values ($1, $2, to_timestamp($3), array[$3, $3 + 1]::float8[], '{50,50}', '{3,4}')`,
          [ids.ride, logger, startS],
        );
    }
  } finally {
    await client.end();
  }
}

describe("a backup of an earlier schema", () => {
  const names = migrationNames(MIGRATIONS);
  const archive = (database: string, file: string) =>
    spawnSync(`${programs}/pg_dump`, ["--format=custom", "--file", file, `${address}/${database}`]);
  /** With every change: the first schemas, those about where telemetry moved, and the newest three. With `test --all`: each. */
  const isTried = (count: number) =>
    process.env["MUCH"] === "all" || [1, 2, 6, 7].includes(count) || count > names.length - 3;
  const cases = names.map((name, i) => ({ name, count: i + 1 })).filter(({ count }) => isTried(count));
  test.each(cases)(
    "$name is brought back and forward, and so is an archive of the first format",
    async ({ count }) => {
      const old = `restore_old_${count}`;
      const [file, archived] = [join(folder, `${old}.backup`), join(folder, `${old}.archive`)];
      const beside = `${old}_beside`;
      await admin(`create database ${old}`);
      try {
        await withMigrationsUpTo(MIGRATIONS, count, (part) => migrateDatabase(`${address}/${old}`, part));
        await fill(old, count);
        await writeBackup(`${address}/${old}`, file, MIGRATIONS);
        archive(old, archived);
        for (const each of [file, archived]) {
          const { manifest, unreadable } = await restoreBackup(desk, source(each), beside);
          expect(manifest.schema).toBe(count);
          expect(unreadable).toBe(0);
          const found = await contents(beside);
          expect(found.bikes.map(({ name }) => name)).toEqual(['Old bike "with" words\\and\ttabs']);
          expect(found.logs.flat().map(({ body }) => body)).toEqual([{ kind: "note", note: "line\none" }]);
          if (count >= 2 && count < 7)
            expect(found.telemetry[0]).toMatchObject({ logger: "aux", volts: [50, 50, 50, 50] });
          await drop(beside);
        }
      } finally {
        for (const name of [old, beside]) await drop(name);
      }
    },
  );
});

describe("a file that is no whole backup changes nothing, and the sentence says which", () => {
  const bytes = () => readFileSync(whole);
  const text = () => gunzipSync(bytes()).toString("utf8");
  const packed = (changed: string) => gzipSync(changed);
  const names = () =>
    on(desk.database, async (db) => (await listBikes(db)).map(({ name, version }) => [name, version]));
  /** What a crafted file would have the database do. */
  const MARK = join(folder, "owned");
  const cases: readonly (readonly [string, () => Buffer, string])[] = [
    ["nothing at all", () => Buffer.alloc(0), "cut short"],
    ["a word", () => Buffer.from("hello"), "not a backup"],
    ["another program's compressed file", () => gzipSync("some notes\n"), "not a backup"],
    ["cut in the middle", () => bytes().subarray(0, bytes().length / 2), "cut short"],
    ["cut by its last byte", () => bytes().subarray(0, -1), "cut short"],
    [
      "a flipped bit",
      () => {
        const flipped = Buffer.from(bytes());
        flipped[Math.floor(flipped.length / 3)]! ^= 4;
        return flipped;
      },
      "damaged",
    ],
    ["a changed word", () => packed(text().replace("Ondrey", "Andrey")), "damaged"],
    ["a row left out", () => packed(text().replace(/\n[^\n]*Ondrey[^\n]*\n/, "\n")), "damaged"],
    ["its end left out", () => packed(text().replace(/\{"end".*\n/, "")), "cut short"],
    ["a newer schema", () => packed(text().replace(/"schema":\d+/, '"schema":9999')), "newer"],
    [
      "a table nobody knows",
      () => packed(text().replace('{"table":"bike"', '{"table":"pg_authid"')),
      "does not have (pg_authid)",
    ],
    [
      "a table that is a command",
      () => packed(text().replace('{"table":"bike"', `{"table":"bike from program 'touch ${MARK}'--"`)),
      "damaged",
    ],
    ["an archive that is none", () => Buffer.concat([Buffer.from("PGDMP"), Buffer.alloc(4000, 7)]), ""],
  ];
  test.each(cases)("%s", async (_what, make, says) => {
    const file = join(folder, "wrong.backup");
    writeFileSync(file, make());
    const before = await names();
    await expect(restoreBackup(desk, source(file))).rejects.toThrow(says);
    expect(await names()).toEqual(before);
  });
  test("an archive whose schema runs a command when a row comes in: only its rows are read", async () => {
    const hostile = "restore_hostile";
    const file = join(folder, "hostile.backup");
    await admin(`create database ${hostile}`);
    try {
      await migrateDatabase(`${address}/${hostile}`, MIGRATIONS);
      await fill(hostile, 99);
      const client = new pg.Client({ connectionString: `${address}/${hostile}` });
      await client.connect();
      await client.query(
        `create function own() returns boolean language plpgsql as $$ begin execute 'copy (select 1) to program ''touch ${MARK}'''; return true; exception when others then return true; end $$`,
      );
      await client.query(`alter table bike add constraint owned check (own())`);
      await client.query(`create table stowaway (word text); insert into stowaway values ('here')`);
      await client.end();
      spawnSync(`${programs}/pg_dump`, ["--format=custom", "--file", file, `${address}/${hostile}`]);
      await expect(restoreBackup(desk, source(file))).rejects.toThrow("does not have (stowaway)");
      expect(() => statSync(MARK)).toThrow();
      const { rows } = await on(desk.database, (db) =>
        db.execute("select rolsuper from pg_roles where rolname = current_user"),
      );
      expect(rows[0]).toEqual({ rolsuper: false });
    } finally {
      await drop(hostile);
    }
  });
  /** Written anew with a hash of its own, as a crafted one would be. */
  const crafted = (file: string, lines: string[]) => {
    const tailAt = lines.findIndex((line) => line.startsWith('{"end"'));
    const head = `${lines.slice(0, tailAt).join("\n")}\n`;
    const tail = JSON.parse(lines[tailAt]!) as { sha256: string };
    tail.sha256 = createHash("sha256").update(head).digest("hex");
    writeFileSync(file, gzipSync(`${head}${JSON.stringify(tail)}\n`));
  };
  /** Lines of the backup with one column of a table's first row changed. */
  const withFirst = (table: string, column: string, value: string) => {
    const lines = text().split("\n");
    const at = lines.findIndex((line) => line.startsWith(`{"table":"${table}"`));
    const place = (JSON.parse(lines[at]!) as { columns: string[] }).columns.indexOf(column);
    lines[at + 1] = lines[at + 1]!.split("\t")
      .map((cell, i) => (i === place ? value : cell))
      .join("\t");
    return lines;
  };
  test.each([
    ["test", "stamp", "9223372036854775807"],
    ["trail", "id", "9223372036854775807"],
    ["bike", "version", "2147483647"],
  ])("a poisoned %s.%s is numbered anew: the desk goes on saving", async (table, column, value) => {
    const file = join(folder, "poisoned.backup");
    crafted(file, withFirst(table, column, value));
    await restoreBackup(desk, source(file), "restore_poisoned");
    try {
      await on("restore_poisoned", async (db) => {
        const [first] = await listBikes(db);
        await saveBike(db, first!.id, bikeSchema.parse({ ...first, name: "Renamed" }), first!.version);
        const [line] = await listTests(db);
        const [ride] = await listRides(db, line!.id);
        await appendEntries(db, ride!.id, [
          { id: uuidv7(), seq: 900, at: null, supersedes: null, body: { kind: "note", note: "on" } },
        ]);
        expect(Number((await listTests(db))[0]!.stamp)).toBeLessThan(2 ** 48);
      });
    } finally {
      await drop("restore_poisoned");
    }
  });
  test("rows that break a rule of the schema", async () => {
    const file = join(folder, "rows.backup");
    const lines = text().split("\n");
    const at = lines.findIndex((line) => line.startsWith('{"table":"entry"')) + 1;
    lines[at] = lines[at]!.replace(/\tnote\t|\tcheckIn\t|\tstart\t/, "\tend\t");
    crafted(file, lines);
    const before = await contents(desk.database);
    await expect(restoreBackup(desk, source(file))).rejects.toThrow("cannot be taken");
    expect(await contents(desk.database)).toEqual(before);
    expect(await on(desk.database, listDamage)).toEqual([]);
  });
});
