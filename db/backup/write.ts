import { createHash } from "node:crypto";
import { createWriteStream } from "node:fs";
import { mkdir, rename, rm } from "node:fs/promises";
import { once } from "node:events";
import { dirname } from "node:path";
import { pipeline } from "node:stream/promises";
import { createGzip } from "node:zlib";
import pg from "pg";
import { to as copyTo } from "pg-copy-streams";
import { BACKED_UP, END_OF_ROWS, type Head, type Manifest, type TableCount, type Tail } from "./format.ts";
import { migrationNames } from "./migrations.ts";

const NEW_LINE = 0x0a;

async function columnsOf(client: pg.Client, table: string): Promise<readonly string[]> {
  const { rows } = await client.query<{ name: string }>(
    `select column_name as name from information_schema.columns
     where table_schema = 'public' and table_name = $1 order by ordinal_position`,
    [table],
  );
  return rows.map(({ name }) => name);
}

/** How many migrations made a database. */
export async function schemaOf(client: pg.Client): Promise<number> {
  const { rows } = await client.query<{ count: string }>("select count(*) from drizzle.__drizzle_migrations");
  return Number(rows[0]!.count);
}

/**
 * Writes everything a desk holds to one file, as it was at one moment, while the desk is in use. The file is readable by
 * its owner only, and is there whole or not at all.
 *
 * @param url of the desk's database; @param file to write; @param migrations the folder of the schema's history
 */
export async function writeBackup(url: string, file: string, migrations: string): Promise<Manifest> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  await mkdir(dirname(file), { recursive: true });
  const part = `${file}.${process.pid}.part`;
  const gzip = createGzip({ level: 6 });
  const written = pipeline(gzip, createWriteStream(part, { mode: 0o600 }));
  written.catch(() => undefined);
  const hash = createHash("sha256");
  const put = async (bytes: Buffer | string) => {
    hash.update(bytes);
    if (!gzip.write(bytes)) await Promise.race([once(gzip, "drain"), written]);
  };
  try {
    await client.query("begin isolation level repeatable read read only");
    const schema = await schemaOf(client);
    const head: Head = {
      barometron: "desk backup",
      format: 1,
      schema,
      schemaName: migrationNames(migrations)[schema - 1] ?? "",
      madeAt: new Date().toISOString(),
    };
    await put(`${JSON.stringify(head)}\n`);
    const tables: TableCount[] = [];
    for (const name of BACKED_UP) {
      const columns = await columnsOf(client, name);
      if (columns.length === 0) continue;
      await put(`${JSON.stringify({ table: name, columns })}\n`);
      let rows = 0;
      const list = columns.map((column) => pg.escapeIdentifier(column)).join(", ");
      for await (const chunk of client.query(copyTo(`copy (select ${list} from "${name}") to stdout`))) {
        const bytes = chunk as Buffer;
        for (let at = bytes.indexOf(NEW_LINE); at >= 0; at = bytes.indexOf(NEW_LINE, at + 1)) rows += 1;
        await put(bytes);
      }
      await put(`${END_OF_ROWS}\n`);
      tables.push({ name, rows });
    }
    const tail: Tail = { end: true, tables, sha256: hash.copy().digest("hex") };
    gzip.end(`${JSON.stringify(tail)}\n`);
    await written;
    await rename(part, file);
    return { schema, schemaName: head.schemaName, madeAt: head.madeAt, tables };
  } catch (error) {
    gzip.destroy();
    await written.catch(() => undefined);
    await rm(part, { force: true });
    throw error;
  } finally {
    await client.end().catch(() => undefined);
  }
}
