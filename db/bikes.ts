import { and, asc, desc, eq, isNull } from "drizzle-orm";
import type { z } from "zod";
import { packSheet } from "#core/pack";
import {
  benchSchema,
  bikeSchema,
  instrumentSchema,
  packRecordSchema,
  riderSchema,
  setUpSchema,
  type Bench,
  type Bike,
  type Instrument,
  type PackRecord,
  type Rider,
  type SetUp,
} from "#core/records";
import type { Database } from "./client.ts";
import { keep } from "./kept.ts";
import { withNulls, withoutNulls } from "./rows.ts";
import { bench, bike, instrument, pack, rider, setUp } from "./schema.ts";

/** Something kept, with its id; put away or not. */
export type Kept<T> = T & { readonly id: string; readonly archived: boolean };
/** Something of one bike. */
export type OfBike<T> = Kept<T> & { readonly bikeId: string };

interface Filter {
  /** Those put away as well. */
  readonly archived?: boolean | undefined;
}

interface Row {
  readonly id: string;
  readonly archivedAt: Date | null;
}

function kept<Schema extends z.ZodType<object>>(schema: Schema, row: Row): Kept<z.infer<Schema>> {
  return { ...schema.parse(withoutNulls(row)), id: row.id, archived: row.archivedAt !== null };
}

const shown = (table: { readonly archivedAt: typeof bike.archivedAt }, { archived }: Filter) =>
  archived ? undefined : isNull(table.archivedAt as never);

export async function listBikes(db: Database, filter: Filter = {}): Promise<readonly Kept<Bike>[]> {
  const rows = await db.select().from(bike).where(shown(bike, filter)).orderBy(asc(bike.name));
  return rows.map((row) => kept(bikeSchema, row));
}

export async function listPacks(
  db: Database,
  bikeId?: string,
  filter: Filter = {},
): Promise<readonly OfBike<PackRecord>[]> {
  const rows = await db
    .select()
    .from(pack)
    .where(and(bikeId ? eq(pack.bikeId, bikeId) : undefined, shown(pack as never, filter)))
    .orderBy(asc(pack.name));
  return rows.map((row) => ({ ...kept(packRecordSchema, row), bikeId: row.bikeId }));
}

export async function listSetUps(
  db: Database,
  bikeId?: string,
  filter: Filter = {},
): Promise<readonly OfBike<SetUp>[]> {
  const rows = await db
    .select()
    .from(setUp)
    .where(and(bikeId ? eq(setUp.bikeId, bikeId) : undefined, shown(setUp as never, filter)))
    .orderBy(desc(setUp.since), asc(setUp.name));
  return rows.map((row) => ({ ...kept(setUpSchema, row), bikeId: row.bikeId }));
}

export async function listRiders(db: Database, filter: Filter = {}): Promise<readonly Kept<Rider>[]> {
  const rows = await db
    .select()
    .from(rider)
    .where(shown(rider as never, filter))
    .orderBy(asc(rider.name));
  return rows.map((row) => kept(riderSchema, row));
}

export async function listInstruments(
  db: Database,
  filter: Filter = {},
): Promise<readonly Kept<Instrument>[]> {
  const rows = await db
    .select()
    .from(instrument)
    .where(shown(instrument as never, filter))
    .orderBy(asc(instrument.name));
  return rows.map((row) => kept(instrumentSchema, row));
}

/** Bench discharges of a pack, newest first. */
export async function listBenches(db: Database, packId: string): Promise<readonly Kept<Bench>[]> {
  const rows = await db
    .select()
    .from(bench)
    .where(and(eq(bench.packId, packId), isNull(bench.archivedAt)));
  return rows
    .map(({ id, body, archivedAt }) => ({ ...benchSchema.parse(body), id, archived: archivedAt !== null }))
    .sort((a, b) => b.on.localeCompare(a.on));
}

export async function findBike(db: Database, id: string): Promise<Kept<Bike> | null> {
  const [row] = await db.select().from(bike).where(eq(bike.id, id));
  return row ? kept(bikeSchema, row) : null;
}

const columnsOf = <T extends object>(schema: { readonly shape: T }) =>
  Object.keys(schema.shape) as (keyof T)[];

/** A record as a row: every field of its schema, null where it is empty. */
const rowFrom = <T extends object>(id: string, schema: { readonly shape: object }, value: T) => ({
  id,
  ...withNulls(value, columnsOf(schema) as unknown as readonly (keyof T)[]),
});

export function saveBike(db: Database, id: string, value: Bike): Promise<string> {
  return keep(db, "bike", rowFrom(id, bikeSchema, value));
}

export function savePack(db: Database, id: string, bikeId: string, value: PackRecord): Promise<string> {
  return keep(db, "pack", { ...rowFrom(id, packRecordSchema, value), bikeId });
}

export function saveSetUp(db: Database, id: string, bikeId: string, value: SetUp): Promise<string> {
  return keep(db, "setUp", { ...rowFrom(id, setUpSchema, value), bikeId });
}

export function saveRider(db: Database, id: string, value: Rider): Promise<string> {
  return keep(db, "rider", rowFrom(id, riderSchema, value));
}

export function saveInstrument(db: Database, id: string, value: Instrument): Promise<string> {
  return keep(db, "instrument", rowFrom(id, instrumentSchema, value));
}

/** Keeps a bench discharge; the newest, brought to 25 C, becomes the pack's measured capacity. */
export async function saveBench(db: Database, id: string, packId: string, value: Bench): Promise<string> {
  const changed = await keep(db, "bench", { id, packId, body: value });
  const [newest] = await listBenches(db, packId);
  const [row] = await db.select().from(pack).where(eq(pack.id, packId));
  const sheet = row && newest && packSheet(packRecordSchema.parse(withoutNulls(row)), newest);
  if (row && newest && sheet && (row.measuredOn === null || newest.on >= row.measuredOn))
    await keep(db, "pack", {
      ...row,
      measuredWh: sheet.measured.mean,
      measuredSdWh: newest.sdWh === undefined ? null : (newest.sdWh * sheet.measured.mean) / newest.wh,
      measuredOn: newest.on,
      pencil: row.pencil.filter((name) => !name.startsWith("measured")),
    });
  return changed;
}
