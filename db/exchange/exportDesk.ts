import type pg from "pg";
import { fileName, writeBundle, writeCourseGpx, writeCsv, writeTrackGpx } from "#core/io";
import { readingRows } from "#core/telling";
import { TABLES } from "../backup/format.ts";
import { quoted, withClient } from "../backup/databases.ts";
import { actAt, connect, type Database, type Scope } from "../client.ts";
import { listCourses } from "../plans.ts";
import { loadRecord } from "../record.ts";
import { cachedAnalysis } from "../results.ts";
import { listTests, type TestLine } from "../tests.ts";
import { HEAD_FILE, README, recordsFile, type DeskHead } from "./format.ts";
import { entryPhotograph, photograph } from "../schema.ts";
import { zipTo, type ZipWriter } from "./writer.ts";

/** Rows that are read at a time. */
const PART = 200;

/** Every row of a table as a line of JSON. */
async function writeTable(client: pg.Client, zip: ZipWriter, table: string): Promise<number> {
  const lines = zip.file(recordsFile(table));
  await client.query(
    `declare rows no scroll cursor for select row_to_json(t)::text as line from ${quoted(table)} t`,
  );
  let count = 0;
  for (;;) {
    const { rows } = await client.query<{ line: string }>(`fetch ${PART} from rows`);
    for (const { line } of rows) await lines.write(`${line}\n`);
    count += rows.length;
    if (rows.length < PART) break;
  }
  await client.query("close rows");
  await lines.end();
  return count;
}

/** One test for other programs: its bundle, its readings, its tracks. */
async function writeTest(db: Database, zip: ZipWriter, line: TestLine, folder: string): Promise<void> {
  const record = await loadRecord(db, line.id);
  if (!record) return;
  await zip.put(`${folder}/bundle.json`, JSON.stringify(writeBundle([record])));
  const result = (await cachedAnalysis(db, line.id))?.result;
  if (result?.ok) await zip.put(`${folder}/readings.csv`, writeCsv(readingRows(result.value, "metric")));
  for (const [i, { track }] of record.rides.entries())
    if (track) await zip.put(`${folder}/track-${i + 1}.gpx`, writeTrackGpx(track));
}

/** Photographs as files of their own. */
async function writePhotographs(db: Database, zip: ZipWriter): Promise<void> {
  for (const table of [photograph, entryPhotograph]) {
    const rows = await db.select({ id: table.id, type: table.type, bytes: table.bytes }).from(table);
    for (const { id, type, bytes } of rows)
      await zip.bytes(`photographs/${id}.${type === "image/png" ? "png" : "jpg"}`, bytes);
  }
}

/** Names of folders, each only once. */
function folders() {
  const taken = new Map<string, number>();
  return (title: string) => {
    const stem = fileName(title, "").slice(0, -1);
    const times = (taken.get(stem) ?? 0) + 1;
    taken.set(stem, times);
    return times === 1 ? stem : `${stem}-${times}`;
  };
}

/**
 * Writes everything of a desk as open files into one zip, as it was at one moment.
 *
 * @param url of the desk's database; @param path of the zip; @param scope of one desk of several, null for all that is there
 */
export async function exportDesk(url: string, path: string, scope: Scope | null = null): Promise<DeskHead> {
  const zip = zipTo(path);
  const tables: { name: string; rows: number }[] = [];
  await withClient(url, async (client) => {
    await client.query("begin isolation level repeatable read read only");
    if (scope) await actAt(client, scope);
    for (const name of TABLES) {
      const { rows } = await client.query("select to_regclass($1) as there", [`public.${name}`]);
      if ((rows[0] as { there: string | null }).there !== null)
        tables.push({ name, rows: await writeTable(client, zip, name) });
    }
  });
  const { db: every, at, close } = connect(url, 1);
  const db = scope ? at(scope) : every;
  try {
    const named = folders();
    for (const line of await listTests(db, { archived: true }))
      await writeTest(db, zip, line, `tests/${named(`${line.bikeName} ${line.test.title}`)}`);
    const courseNamed = folders();
    for (const course of await listCourses(db, { archived: true }))
      await zip.put(`courses/${courseNamed(course.name)}.gpx`, writeCourseGpx(course));
    await writePhotographs(db, zip);
  } finally {
    await close();
  }
  const head: DeskHead = { barometron: "desk", format: 1, madeAt: new Date().toISOString(), tables };
  await zip.put("README.txt", README);
  await zip.put(HEAD_FILE, JSON.stringify(head, null, 1));
  await zip.end();
  return head;
}
