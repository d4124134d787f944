import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { strFromU8, strToU8, unzipSync, zipSync, type Unzipped } from "fflate";
import { v7 as uuidv7 } from "uuid";
import { analyseTest } from "#core/analysis";
import { readBundle, readGpx } from "#core/io";
import { sheetOptionsSchema } from "#core/telling";
import { TABLES } from "#db/backup/format";
import { bikeSchema } from "#core/records";
import { listBikes, saveBike } from "#db/bikes";
import { dropDatabase, withClient } from "#db/backup/databases";
import { connect, type Database } from "#db/client";
import { exportDesk } from "#db/exchange/exportDesk";
import { BadDesk } from "#db/exchange/format";
import { importDesk } from "#db/exchange/importDesk";
import { appendEntries, listEntries } from "#db/log";
import { migrateDatabase } from "#db/migrate";
import { loadRecord } from "#db/record";
import { seedOnce } from "#db/seed";
import { addPhotograph } from "#db/photographs";
import { bike, desk, FIRST_DESK } from "#db/schema";
import { publishSheet, saveSheet } from "#db/sheets";
import { listRides, listTests } from "#db/tests";
import { MIGRATIONS } from "../../command/paths";

const address = process.env["TEST_DATABASE_URL"]!.replace(/\/[^/]+$/, "");
const folder = mkdtempSync(join(tmpdir(), "barometron-exchange-"));
const whole = join(folder, "whole.zip");
const urlOf = (name: string) => `${address}/${name}`;
const names: string[] = [];

async function on<T>(name: string, work: (db: Database) => Promise<T>): Promise<T> {
  const { db, close } = connect(urlOf(name), 2);
  try {
    return await work(db);
  } finally {
    await close();
  }
}

/** An empty desk of today's schema. */
async function fresh(): Promise<string> {
  const name = `exchange_${names.length}_${process.pid}`;
  names.push(name);
  await withClient(`${address}/postgres`, (client) => client.query(`create database ${name}`));
  await migrateDatabase(urlOf(name), MIGRATIONS);
  return name;
}

/** Every row of a zip by table, in one order. */
const rowsIn = (file: string) => {
  const files = unzipSync(readFileSync(file));
  return Object.fromEntries(
    TABLES.map((table) => [
      table,
      strFromU8(files[`records/${table}.ndjson`] ?? new Uint8Array())
        .split("\n")
        .filter((line) => line !== "")
        .map((line) => {
          // The database gives these anew.
          const { stamp: _, updated_at: __, version, ...row } = JSON.parse(line) as Record<string, unknown>;
          return JSON.stringify(table === "reference" ? { ...row, version } : row);
        })
        .sort(),
    ]),
  );
};
const rezipped = (change: (files: Unzipped) => Unzipped) => {
  const file = join(folder, "changed.zip");
  writeFileSync(file, zipSync(change(unzipSync(readFileSync(whole)))));
  return file;
};

/** Any bytes: a desk keeps them as they are. */
const PICTURE = Uint8Array.from([0x89, 0x50, 0, 255, 10, 13, 92, 0x78]);

let source: string;
beforeAll(async () => {
  source = await fresh();
  await on(source, async (db) => {
    await seedOnce(db);
    const [line] = await listTests(db);
    const id = uuidv7();
    const options = sheetOptionsSchema.parse({
      kind: "test",
      title: 'Levee “run”: 2 % \\ "x"\n',
      words: "Own *words*\t…",
    });
    await saveSheet(db, id, { testId: line!.id, benchId: null }, options);
    const image = { type: "image/png", widthPx: 4, heightPx: 4, bytes: PICTURE } as const;
    await addPhotograph(db, uuidv7(), id, "The saddle", image);
    const document = { kind: "test" as const, title: options.title, line: "", sections: [] };
    await publishSheet(
      db,
      uuidv7(),
      id,
      { document, drawings: {}, paper: "A4", reference: null, method: "x", bundle: [1.5, null] },
      "hash",
    );
  });
  await exportDesk(urlOf(source), whole);
}, 120_000);
afterAll(async () => {
  for (const name of names) await withClient(`${address}/postgres`, (client) => dropDatabase(client, name));
  rmSync(folder, { recursive: true });
});

describe("a desk as open files", () => {
  test("comes out of another desk as it went in, row by row", async () => {
    const other = await fresh();
    const { added, unreadable } = await importDesk(urlOf(other), whole);
    expect([added > 200, unreadable]).toEqual([true, 0]);
    const again = join(folder, "again.zip");
    await exportDesk(urlOf(other), again);
    const [first, second] = [rowsIn(whole), rowsIn(again)];
    for (const table of TABLES.filter((each) => each !== "desk")) expect(second[table]).toEqual(first[table]);
  });
  test("photographs stand in it as files of their own", () => {
    const files = unzipSync(readFileSync(whole));
    const [name] = Object.keys(files).filter((each) => each.startsWith("photographs/"));
    expect(name).toMatch(/\.png$/);
    expect([...files[name!]!]).toEqual([...PICTURE]);
  });
  test("taken in twice, nothing doubles and nothing changes", async () => {
    const other = await fresh();
    await importDesk(urlOf(other), whole);
    const before = await on(other, (db) => listTests(db));
    const { added, there } = await importDesk(urlOf(other), whole);
    expect([added, there > 200]).toEqual([0, true]);
    expect((await on(other, (db) => listTests(db))).map(({ id }) => id)).toEqual(before.map(({ id }) => id));
  });
  test("each test has a bundle that gives the same figure, and tracks that read back", async () => {
    const files = unzipSync(readFileSync(whole));
    const bundles = Object.keys(files).filter((name) => name.endsWith("/bundle.json"));
    const records = await on(source, async (db) =>
      Promise.all((await listTests(db)).map(({ id }) => loadRecord(db, id))),
    );
    expect(bundles).toHaveLength(records.length);
    for (const name of bundles.slice(0, 4)) {
      const bundle = readBundle(JSON.parse(strFromU8(files[name]!)));
      if (!bundle.ok) throw new Error(bundle.problems[0]!.sentence);
      const [told] = bundle.value.tests;
      const own = records.find(
        (record) => record!.test.title === told!.test.title && record!.bike.name === told!.bike.name,
      )!;
      const [a, b] = [analyseTest(told!), analyseTest(own)];
      expect(a.ok && a.value.best.value).toEqual(b.ok && b.value.best.value);
    }
    const tracks = Object.keys(files).filter((name) => /track-\d+\.gpx$/.test(name));
    expect(tracks.length).toBeGreaterThan(0);
    for (const name of tracks) {
      const read = readGpx(strFromU8(files[name]!));
      const track = records
        .flatMap((record) => record!.rides.flatMap((ride) => ride.track ?? []))
        .find(
          (each) => read.ok && each.lat.length === read.value.lat.length && each.lat[5] === read.value.lat[5],
        );
      expect(read.ok && read.value.lon).toEqual(track!.lon);
    }
  });
  test("any part of a desk that is there already stays, and what is missing comes", async () => {
    const lost = rowsIn(whole)["entry"]!.filter(Boolean);
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 0, max: lost.length - 1 }), async (kept) => {
        const other = await fresh();
        const part = rezipped((files) => ({
          ...files,
          "records/entry.ndjson": strToU8(lost.slice(0, kept).join("\n")),
        }));
        await importDesk(urlOf(other), part);
        const { added } = await importDesk(urlOf(other), whole);
        expect(added).toBe(lost.length - kept);
      }),
      { numRuns: 3 },
    );
  }, 120_000);
  test("a test whose log has grown here keeps what grew, and is reckoned anew", async () => {
    const other = await fresh();
    await importDesk(urlOf(other), whole);
    const [line, ride] = await on(other, async (db) => {
      const [first] = await listTests(db);
      const [own] = await listRides(db, first!.id);
      await appendEntries(db, own!.id, [
        { id: uuidv7(), seq: 0, at: null, body: { kind: "note", note: "grown" }, supersedes: null },
      ]);
      return [first!, own!];
    });
    await importDesk(urlOf(other), whole);
    await on(other, async (db) => {
      expect(
        (await listEntries(db, ride.id)).some(({ body }) => body.kind === "note" && body.note === "grown"),
      ).toBe(true);
      expect((await listTests(db)).find(({ id }) => id === line.id)!.stamp).not.toBe(line.stamp);
    });
  });
});

describe("one desk of several on a machine", () => {
  test("leaves alone, and what it leaves as becomes another desk's own", async () => {
    const host = await fresh();
    await importDesk(urlOf(host), whole);
    const [second, bikeId] = [uuidv7(), uuidv7()];
    const scope = { deskId: second, actor: "somebody" };
    const { db, at, close } = connect(urlOf(host), 2, true);
    try {
      await db.insert(desk).values({ id: second, name: "Second" });
      await saveBike(at(scope), bikeId, bikeSchema.parse({ name: "Only here", levels: ["low"], massKg: 20 }));
      const alone = join(folder, "alone.zip");
      await exportDesk(urlOf(host), alone, scope);
      const rows = rowsIn(alone);
      expect(rows["bike"]!.filter(Boolean)).toHaveLength(1);
      expect(rows["bike"]!.join("")).toContain("Only here");
      expect([rows["test"], rows["entry"], rows["desk"]!.filter(Boolean).length]).toEqual([[], [], 1]);

      const elsewhere = await fresh();
      await importDesk(urlOf(elsewhere), alone, { deskId: FIRST_DESK, actor: "" });
      await on(elsewhere, async (there) => {
        const rowsThere = await there.select({ id: bike.id, deskId: bike.deskId }).from(bike);
        expect(rowsThere).toEqual([{ id: bikeId, deskId: FIRST_DESK }]);
      });
      await expect(importDesk(urlOf(host), whole, scope)).rejects.toThrow("Another desk of this machine");
      expect((await listTests(at(scope))).length).toBe(0);
    } finally {
      await close();
    }
  });
});

describe("what is no desk", () => {
  const refusal = async (file: string) => {
    const other = await fresh();
    const error = await importDesk(urlOf(other), file).then(
      () => null,
      (problem: unknown) => problem,
    );
    expect(error).toBeInstanceOf(BadDesk);
    expect(await on(other, (db) => listTests(db))).toEqual([]);
    return (error as BadDesk).message;
  };
  test.each([
    ["no zip at all", () => Buffer.from("hello")],
    ["a zip of something else", () => zipSync({ "notes.txt": strToU8("x") })],
    ["a zip that breaks off", () => readFileSync(whole).subarray(0, 4000)],
  ])("%s", async (_, bytes) => {
    const file = join(folder, "other.zip");
    writeFileSync(file, bytes());
    expect(await refusal(file)).toContain("This is no desk of Barometron");
  });
  test("a line that is no row is named; a row that cannot be kept as well; nothing is half taken in", async () => {
    const broken = (line: string) =>
      rezipped((files) => ({
        ...files,
        "records/test.ndjson": strToU8(`${strFromU8(files["records/test.ndjson"]!)}${line}\n`),
      }));
    expect(await refusal(broken("[1,2]"))).toMatch(/records\/test\.ndjson, line \d+ is no row/);
    expect(await refusal(broken('{"id":"no id"}'))).toContain("cannot be taken");
    expect(await refusal(broken('{"colour":"red"}'))).toContain(
      "“colour”, which this Barometron does not know",
    );
  });
  const withFirst = (table: string, change: (row: Record<string, unknown>) => object) =>
    rezipped((files) => {
      const [line, ...rest] = strFromU8(files[`records/${table}.ndjson`]!).split("\n");
      const row = change(JSON.parse(line || `{"id":"${uuidv7()}","name":"n"}`) as Record<string, unknown>);
      return { ...files, [`records/${table}.ndjson`]: strToU8([JSON.stringify(row), ...rest].join("\n")) };
    });
  const HUGE = "9223372036854775807";
  test("stamps and versions are the database's to give, whatever a file says", async () => {
    const other = await fresh();
    const poisoned = rezipped((files) => ({
      ...files,
      "records/test.ndjson": strToU8(
        strFromU8(files["records/test.ndjson"]!).replaceAll(/"stamp":\d+/g, `"stamp":${HUGE}`),
      ),
      "records/bike.ndjson": strToU8(
        strFromU8(files["records/bike.ndjson"]!).replaceAll(/"version":\d+/g, '"version":2147483647'),
      ),
    }));
    await importDesk(urlOf(other), poisoned);
    await on(other, async (db) => {
      const [line] = await listTests(db);
      expect(Number(line!.stamp)).toBeLessThan(1000);
      const [first] = await listBikes(db);
      expect(first!.version).toBe(1);
      // Both go on being saved.
      await saveBike(db, first!.id, bikeSchema.parse({ ...first, name: "Renamed" }), 1);
      const [ride] = await listRides(db, line!.id);
      await appendEntries(db, ride!.id, [
        { id: uuidv7(), seq: 900, at: null, supersedes: null, body: { kind: "note", note: "on" } },
      ]);
    });
  });
  test.each([
    ["reference", "version", 2147483647, "no whole number"],
    ["ride", "position", 2147483647, "no whole number"],
    ["entry", "seq", 9e15, "no whole number"],
    ["entry", "received_at", "infinity", "no day"],
    ["test", "day", "infinity", "no day"],
    ["edition", "at", "294276-01-01", "no day"],
    ["bike", "mass_kg", "NaN", "no number"],
    ["pack", "label_wh", "Infinity", "no number"],
  ])("a poisoned %s.%s is refused by name", async (table, column, value, says) => {
    const sentence = await refusal(withFirst(table, (row) => ({ ...row, [column]: value })));
    expect(sentence).toContain(`records/${table}.ndjson, row 1: “${column}”`);
    expect(sentence).toContain(says);
  });
  test("one of a newer version says so", async () => {
    const newer = rezipped((files) => {
      const head = JSON.parse(strFromU8(files["desk.json"]!)) as { tables: object[] };
      return {
        ...files,
        "desk.json": strToU8(
          JSON.stringify({ ...head, tables: [...head.tables, { name: "moon", rows: 1 }] }),
        ),
      };
    });
    expect(await refusal(newer)).toContain("made by a newer one");
  });
});
