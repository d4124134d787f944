import { spawn } from "node:child_process";
import { createHash } from "node:crypto";
import { createReadStream } from "node:fs";
import { open } from "node:fs/promises";
import { createGunzip } from "node:zlib";
import { z } from "zod";
import {
  BadBackup,
  END_OF_ROWS,
  BACKED_UP,
  type Head,
  type Manifest,
  type TableCount,
  type TableHead,
} from "./format.ts";
import { linesOf } from "./lines.ts";
import { migrationAt, migrationNames } from "./migrations.ts";

/** Where a backup is read, and with what. */
export interface Source {
  readonly file: string;
  /** Folder of the schema's history. */
  readonly migrations: string;
  /** Folder of PostgreSQL's programs, for files of the first format. */
  readonly programs: string | null;
}

/** What a reader of a backup is told. A row is one line of COPY text. */
export interface Visitor {
  begin?(schema: number): Promise<void>;
  table?(head: TableHead): Promise<void>;
  row?(line: Buffer): Promise<void> | void;
  tableEnd?(): Promise<void>;
}

const FOREIGN = "It is not a backup of Barometron.";
const CUT = "It breaks off before its end: the copy of it was cut short.";
const DAMAGED = "It is damaged: what it holds is not what was written. Take another copy.";

const headSchema = z.object({
  barometron: z.literal("desk backup"),
  format: z.number().int(),
  schema: z.number().int().min(1),
  schemaName: z.string(),
  madeAt: z.string(),
});
const name = z.string().regex(/^[a-z_]{1,40}$/);
const tableSchema = z.object({ table: name, columns: z.array(name).min(1).max(80) });
const tailSchema = z.object({
  end: z.literal(true),
  tables: z.array(z.object({ name, rows: z.number().int().min(0) })).max(BACKED_UP.length),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
});

function parsed<T>(schema: z.ZodType<T>, line: Buffer): T | null {
  if (line.length > 100_000) return null;
  try {
    const found = schema.safeParse(JSON.parse(line.toString("utf8")));
    return found.success ? found.data : null;
  } catch {
    return null;
  }
}

function known({ table, columns }: TableHead): TableHead {
  if (!(BACKED_UP as readonly string[]).includes(table))
    throw new BadBackup(
      `It holds a table that Barometron does not have (${table}), so nothing of it was taken.`,
    );
  return { table, columns };
}

const isEnd = (line: Buffer) => line.length <= 4 && line.toString("latin1").trimEnd() === END_OF_ROWS;

/** An uncompressed stream, its errors said as what they mean. */
async function* gunzipped(file: string): AsyncGenerator<Buffer> {
  const gunzip = createGunzip();
  const stream = createReadStream(file);
  stream.on("error", (error) => gunzip.destroy(error));
  try {
    for await (const chunk of stream.pipe(gunzip)) yield chunk as Buffer;
  } catch (error) {
    const { code, message } = error as NodeJS.ErrnoException;
    if (code === "Z_BUF_ERROR" || /unexpected end/.test(message)) throw new BadBackup(CUT);
    if (code?.startsWith("Z_")) throw new BadBackup(/header/.test(message) ? FOREIGN : DAMAGED);
    throw error;
  } finally {
    stream.destroy();
  }
}

async function readOwn({ file, migrations }: Source, visitor: Visitor): Promise<Manifest> {
  const hash = createHash("sha256");
  const tables: TableCount[] = [];
  let head: Head | null = null;
  let inside: { readonly name: string; rows: number } | null = null;
  let tail: z.infer<typeof tailSchema> | null = null;
  for await (const line of linesOf(gunzipped(file))) {
    if (tail) throw new BadBackup(DAMAGED);
    if (!head) {
      const found = parsed(headSchema, line);
      if (!found) throw new BadBackup(FOREIGN);
      if (found.format !== 1 || found.schema > migrationNames(migrations).length)
        throw new BadBackup("It was written by a newer Barometron: bring this one up to date first.");
      head = found as Head;
      await visitor.begin?.(head.schema);
    } else if (inside) {
      if (isEnd(line)) {
        await visitor.tableEnd?.();
        tables.push({ name: inside.name, rows: inside.rows });
        inside = null;
      } else {
        inside.rows += 1;
        await visitor.row?.(line);
      }
    } else {
      const next = parsed(tableSchema, line);
      if (next) {
        const told = known(next);
        await visitor.table?.(told);
        inside = { name: next.table, rows: 0 };
      } else {
        tail = parsed(tailSchema, line);
        if (!tail) throw new BadBackup(DAMAGED);
        continue;
      }
    }
    hash.update(line);
  }
  if (!head) throw new BadBackup(FOREIGN);
  if (!tail) throw new BadBackup(CUT);
  const same = JSON.stringify(tail.tables) === JSON.stringify(tables);
  if (!same || tail.sha256 !== hash.digest("hex")) throw new BadBackup(DAMAGED);
  return { schema: head.schema, schemaName: head.schemaName, madeAt: head.madeAt, tables };
}

const COPY = /^COPY (public|drizzle)\.("?)(\w+)\2 \(([^)]*)\) FROM stdin;$/;

/** Rows of a file of the first format, as PostgreSQL's own reader writes them out; of its statements only COPY is heeded. */
async function* dumped({ file, programs }: Source): AsyncGenerator<Buffer> {
  if (!programs)
    throw new BadBackup("It is of the first format, and PostgreSQL's programs are not here to read it.");
  const child = spawn(`${programs}/pg_restore`, ["--data-only", "--no-owner", "--file", "-", file], {
    stdio: ["ignore", "pipe", "ignore"],
  });
  const ended = new Promise<number>((resolve) => child.once("close", (code) => resolve(code ?? 1)));
  for await (const chunk of child.stdout) yield chunk as Buffer;
  if ((await ended) !== 0) throw new BadBackup(DAMAGED);
}

/** Partitions of the first schemas' telemetry are rows of one table. */
const plainName = (table: string) => (/^telemetry_\d{4}_\d{2}$/.test(table) ? "telemetry" : table);
const CACHES = ["result", "derived", "session", "verification", "rate_limit"];

async function schemaOfDump(source: Source): Promise<number> {
  let inside = false;
  let last = 0;
  for await (const line of linesOf(dumped(source))) {
    const text = line.length < 2000 ? line.toString("utf8").trimEnd() : "";
    const copy = inside ? null : COPY.exec(text);
    if (copy?.[3] === "__drizzle_migrations") inside = true;
    else if (inside && isEnd(line)) inside = false;
    else if (inside)
      last = Math.max(last, migrationAt(source.migrations, Number(text.split("\t").at(-1))) ?? 0);
  }
  if (last === 0) throw new BadBackup(FOREIGN);
  return last;
}

async function readDump(source: Source, visitor: Visitor): Promise<Manifest> {
  const schema = await schemaOfDump(source);
  await visitor.begin?.(schema);
  const counts = new Map<string, number>();
  let inside: string | null = null;
  let heeded = false;
  for await (const line of linesOf(dumped(source))) {
    if (inside !== null) {
      if (isEnd(line)) {
        if (heeded) await visitor.tableEnd?.();
        inside = null;
      } else if (heeded) {
        counts.set(inside, (counts.get(inside) ?? 0) + 1);
        await visitor.row?.(line);
      }
      continue;
    }
    const copy = line.length < 4000 ? COPY.exec(line.toString("utf8").trimEnd()) : null;
    if (!copy) continue;
    inside = plainName(copy[3]!);
    heeded = copy[1] === "public" && !CACHES.includes(inside);
    if (!heeded) continue;
    counts.set(inside, counts.get(inside) ?? 0);
    const columns = copy[4]!.split(",").map((column) => column.trim().replaceAll('"', ""));
    const head = tableSchema.safeParse({ table: inside, columns });
    if (!head.success) throw new BadBackup(FOREIGN);
    const told = known(head.data);
    await visitor.table?.(told);
  }
  const tables = [...counts].map(([table, rows]) => ({ name: table, rows }));
  return { schema, schemaName: migrationNames(source.migrations)[schema - 1]!, madeAt: null, tables };
}

/** Whether a file is of the first format, an archive of PostgreSQL's. */
async function isDump(file: string): Promise<boolean> {
  const handle = await open(file, "r");
  try {
    const { buffer } = await handle.read(Buffer.alloc(5), 0, 5, 0);
    return buffer.toString("latin1") === "PGDMP";
  } finally {
    await handle.close();
  }
}

/**
 * Reads a backup from its beginning to its end and tells the visitor what it holds; without one it is only verified.
 *
 * @throws BadBackup with the sentence that says what is wrong with it
 */
export async function readBackup(source: Source, visitor: Visitor = {}): Promise<Manifest> {
  return (await isDump(source.file)) ? readDump(source, visitor) : readOwn(source, visitor);
}
