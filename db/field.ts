import { and, desc, eq } from "drizzle-orm";
import { climbSchema, sweepSchema, type ClimbRecord, type Sweep } from "#core/records";
import { listed } from "./bikes.ts";
import type { Database } from "./client.ts";
import { saveEntity, type Seen } from "./entities.ts";
import { bike, climb, rider, setUp, sweep } from "./schema.ts";
import { readRow, readRows, type Unreadable } from "./unreadable.ts";

/** What is noted in the field besides tests: sweeps and runs up hills. */

export interface FieldLinks {
  readonly bikeId: string;
  readonly packId: string;
  readonly setUpId: string | null;
  readonly riderId: string | null;
}

export interface FieldLine<T> extends FieldLinks {
  readonly id: string;
  readonly body: T;
  readonly bikeName: string;
  readonly setUpName: string | null;
  readonly riderName: string | null;
  readonly archived: boolean;
  readonly version: number;
  /** Changes whenever the line does. */
  readonly stamp: string;
}

interface Filter {
  readonly id?: string;
  readonly bikeId?: string;
  readonly archived?: boolean;
  /** Told the rows that cannot be read, which are left out. */
  readonly unreadable?: Unreadable[];
}

const TABLES = { sweep, climb } as const;
type FieldTable = keyof typeof TABLES;

async function listField<T>(
  db: Database,
  kind: FieldTable,
  read: (body: unknown) => T,
  { id, bikeId, archived, unreadable }: Filter,
): Promise<readonly FieldLine<T>[]> {
  // Both tables have the same columns; their bodies are read by their own schemas.
  const table = TABLES[kind] as typeof sweep;
  const rows = await db
    .select({ row: table, bikeName: bike.name, setUpName: setUp.name, riderName: rider.name })
    .from(table)
    .innerJoin(bike, eq(bike.id, table.bikeId))
    .leftJoin(setUp, eq(setUp.id, table.setUpId))
    .leftJoin(rider, eq(rider.id, table.riderId))
    .where(
      and(
        id ? eq(table.id, id) : undefined,
        bikeId ? eq(table.bikeId, bikeId) : undefined,
        id ? undefined : listed(table, archived),
      ),
    )
    .orderBy(desc(table.day), desc(table.id));
  const lineOf = ({ row, ...names }: (typeof rows)[number]) => ({
    id: row.id,
    bikeId: row.bikeId,
    packId: row.packId,
    setUpId: row.setUpId,
    riderId: row.riderId,
    body: read(row.body),
    archived: row.archivedAt !== null,
    version: row.version,
    stamp: String(row.version),
    ...names,
  });
  return id
    ? rows.slice(0, 1).map((row) => readRow(kind, row, lineOf, (each) => each.row)!)
    : readRows(kind, rows, lineOf, unreadable, (each) => each.row);
}

export const listSweeps = (db: Database, filter: Filter = {}) =>
  listField(db, "sweep", (body): Sweep => sweepSchema.parse(body), filter);

export const listClimbs = (db: Database, filter: Filter = {}) =>
  listField(db, "climb", (body): ClimbRecord => climbSchema.parse(body), filter);

export async function findSweep(db: Database, id: string): Promise<FieldLine<Sweep> | null> {
  return (await listSweeps(db, { id }))[0] ?? null;
}

export async function findClimb(db: Database, id: string): Promise<FieldLine<ClimbRecord> | null> {
  return (await listClimbs(db, { id }))[0] ?? null;
}

export function saveSweep(
  db: Database,
  id: string,
  links: FieldLinks,
  body: Sweep,
  seen?: Seen,
): Promise<string> {
  return saveEntity(db, "sweep", { id, ...links, day: body.day, body }, seen);
}

export function saveClimb(
  db: Database,
  id: string,
  links: FieldLinks,
  body: ClimbRecord,
  seen?: Seen,
): Promise<string> {
  return saveEntity(db, "climb", { id, ...links, day: body.day, body }, seen);
}
