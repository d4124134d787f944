import { readFile } from "node:fs/promises";
import { unzip, type Unzipped } from "fflate";
import type pg from "pg";
import { z } from "zod";
import { TABLES } from "../backup/format.ts";
import { quoted, withClient } from "../backup/databases.ts";
import { listDamage } from "../check.ts";
import { actAt, connect, type Scope } from "../client.ts";
import { BadDesk, HEAD_FILE, headSchema, recordsFile, type DeskHead } from "./format.ts";

/** What came of taking a desk in. */
export interface TakenIn {
  /** Rows that were not there before, and those that were and stay as they are. */
  readonly added: number;
  readonly there: number;
  /** Of the desk's stored rows, those that cannot be read now. */
  readonly unreadable: number;
}

/** Largest desk unpacked, bytes: what is larger is a trick, or belongs in a backup. */
const MOST_BYTES = 1024 ** 3;
/** Rows that are written at a time. */
const PART = 200;

const NO_DESK = "This is no desk of Barometron: choose the zip that “Everything as open files” wrote.";

/** What of a zip is taken in, unpacked. Throws `BadDesk` where it is none. */
function unpacked(bytes: Uint8Array): Promise<Unzipped> {
  let total = 0;
  return new Promise((resolve, reject) => {
    unzip(
      bytes,
      {
        filter: ({ name, originalSize }) => {
          if (name !== HEAD_FILE && !name.startsWith("records/")) return false;
          total += originalSize;
          return total <= MOST_BYTES;
        },
      },
      (error, files) => {
        if (error || !files[HEAD_FILE]) reject(new BadDesk(NO_DESK));
        else if (total > MOST_BYTES)
          reject(new BadDesk("Unpacked this is over 1 GB: bring it back from a backup."));
        else resolve(files);
      },
    );
  });
}

function headOf(bytes: Uint8Array | undefined): DeskHead {
  let value: unknown = null;
  try {
    value = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw new BadDesk(NO_DESK);
  }
  const head = headSchema.safeParse(value);
  if (!head.success) throw new BadDesk(NO_DESK);
  const strange = head.data.tables.find(({ name }) => !(TABLES as readonly string[]).includes(name));
  if (strange)
    throw new BadDesk(
      `It has “${strange.name}”, which this Barometron does not know: it was made by a newer one.`,
    );
  return head.data;
}

const rowSchema = z.record(z.string(), z.json());
type Row = z.infer<typeof rowSchema>;

/** The rows of one table. Throws `BadDesk` at the line that is none. */
function rowsOf(bytes: Uint8Array | undefined, table: string): readonly Row[] {
  const lines = new TextDecoder().decode(bytes ?? new Uint8Array()).split("\n");
  return lines.flatMap((line, i) => {
    if (line.trim() === "") return [];
    const found = (() => {
      try {
        return rowSchema.safeParse(JSON.parse(line));
      } catch {
        return null;
      }
    })();
    if (!found?.success) throw new BadDesk(`${recordsFile(table)}, line ${i + 1} is no row.`);
    return [found.data];
  });
}

/** Types of a table's columns by name. */
async function columnsOf(client: pg.Client, table: string): Promise<ReadonlyMap<string, string>> {
  const { rows } = await client.query<{ name: string; type: string }>(
    `select column_name as name, data_type as type from information_schema.columns
     where table_schema = 'public' and table_name = $1`,
    [table],
  );
  return new Map(rows.map(({ name, type }) => [name, type]));
}

/** Whether the database gives a column its value: what a file says of it is not taken. */
const isGiven = (table: string, column: string) =>
  column === "stamp" || column === "updated_at" || (column === "version" && table !== "reference");

const withoutGiven = (table: string, row: Row): Row =>
  Object.fromEntries(Object.entries(row).filter(([name]) => !isGiven(table, name)));

/** Largest whole numbers a file may bring (places in a log are milliseconds), and the years its days and moments may be in. */
const MOST: ReadonlyMap<string, number> = new Map([
  ["integer", 1_000_000_000],
  ["bigint", 1_000_000_000_000_000],
]);
const YEAR = /^(19[7-9]|20\d|21\d)\d-\d\d-\d\d/;

/** What is wrong with a value for a column of some type; null where it will do. PostgreSQL itself sees to the rest. */
function wrongIn(value: unknown, type: string): string | null {
  if (value === null || value === undefined) return null;
  if (type === "date" || type.startsWith("timestamp"))
    return typeof value === "string" && YEAR.test(value) ? null : "is no day from 1970 to 2199";
  const most = MOST.get(type);
  if (most !== undefined)
    return Number.isInteger(value) && Math.abs(value as number) <= most
      ? null
      : `is no whole number up to ${most.toLocaleString("en")}`;
  if (type === "double precision") return Number.isFinite(value) ? null : "is no number";
  return null;
}

/** @throws BadDesk at the first value that no desk would write */
function refuseStrange(table: string, rows: readonly Row[], columns: ReadonlyMap<string, string>): void {
  for (const [i, row] of rows.entries())
    for (const [name, value] of Object.entries(row)) {
      const type = columns.get(name);
      if (type === undefined)
        throw new BadDesk(`${recordsFile(table)} has “${name}”, which this Barometron does not know.`);
      const wrong = isGiven(table, name) ? null : wrongIn(value, type);
      if (wrong) throw new BadDesk(`${recordsFile(table)}, row ${i + 1}: “${name}” ${wrong}.`);
    }
}

/** Writes rows of one table; those that are there already stay as they are. Returns how many were new. */
async function takeRows(client: pg.Client, table: string, rows: readonly Row[]): Promise<number> {
  const columns = await columnsOf(client, table);
  refuseStrange(table, rows, columns);
  const named = [...new Set(rows.flatMap((row) => Object.keys(row)))].filter((name) => !isGiven(table, name));
  const list = named.map(quoted).join(", ");
  let added = 0;
  for (let at = 0; at < rows.length; at += PART) {
    const { rowCount } = await client.query(
      `insert into ${quoted(table)} (${list}) select ${list} from json_populate_recordset(null::${quoted(table)}, $1::json) on conflict do nothing`,
      [JSON.stringify(rows.slice(at, at + PART).map((row) => withoutGiven(table, row)))],
    );
    added += rowCount ?? 0;
  }
  return added;
}

/** Refuses what another desk of the same machine holds: by their ids the two could not be told apart. */
async function refuseElsewhere(client: pg.Client, table: string, rows: readonly Row[], deskId: string) {
  const ids = rows.flatMap(({ id }) => (typeof id === "string" ? [id] : []));
  if (ids.length === 0) return;
  const { rowCount } = await client.query(
    `select 1 from ${quoted(table)} where id::text = any($1) and desk_id <> $2 limit 1`,
    [ids, deskId],
  );
  if (rowCount)
    throw new BadDesk("Another desk of this machine holds some of it already: a record stands at one desk.");
}

/** What PostgreSQL says of a row it will not take, as a sentence. */
function asBadDesk(error: unknown, table: string): unknown {
  const { code, message } = error as { code?: string; message?: string };
  return code && /^(22|23|42)/.test(code)
    ? new BadDesk(`A row of ${recordsFile(table)} cannot be taken: ${(message ?? "").split("\n")[0]}.`)
    : error;
}

/** Tests of the zip that were there before: their logs may have grown, so that they are reckoned anew. */
async function restampThere(client: pg.Client, ids: readonly unknown[]): Promise<void> {
  await client.query(`update test set stamp = nextval('test_stamp') where id = any($1::uuid[])`, [ids]);
}

/**
 * Takes a desk's open files into another desk: all of them or none. What is there already, by its id, stays as it is.
 *
 * @param url of the desk's database; @param path of the zip; @param scope of the desk that takes it in, null for the first
 * @throws BadDesk, with nothing changed
 */
export async function importDesk(url: string, path: string, scope: Scope | null = null): Promise<TakenIn> {
  const files = await unpacked(await readFile(path));
  const head = headOf(files[HEAD_FILE]);
  const counts = await withClient(url, async (client) => {
    await client.query("begin");
    if (scope) await actAt(client, scope);
    let [added, all] = [0, 0];
    const known = await client.query<{ id: string }>("select id from test");
    const before = new Set(known.rows.map(({ id }) => id));
    const there: unknown[] = [];
    for (const table of TABLES) {
      if (!head.tables.some(({ name }) => name === table)) continue;
      // Taken in at a desk, rows become its own.
      if (scope && table === "desk") continue;
      const rows = rowsOf(files[recordsFile(table)], table).map((row) =>
        scope ? { ...row, desk_id: scope.deskId } : row,
      );
      if (rows.length === 0) continue;
      if (table === "test") there.push(...rows.map(({ id }) => id).filter((id) => before.has(String(id))));
      all += rows.length;
      added += await takeRows(client, table, rows).catch((error: unknown) => {
        throw asBadDesk(error, table);
      });
    }
    await restampThere(client, there);
    if (scope) {
      await client.query("reset role");
      for (const table of TABLES)
        if (table !== "desk")
          await refuseElsewhere(client, table, rowsOf(files[recordsFile(table)], table), scope.deskId);
    }
    await client.query("commit");
    return { added, there: all - added };
  });
  const { db, at, close } = connect(url, 1);
  try {
    return { ...counts, unreadable: (await listDamage(scope ? at(scope) : db)).length };
  } finally {
    await close();
  }
}
