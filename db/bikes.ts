import { isDeepStrictEqual } from "node:util";
import { and, asc, desc, eq, isNull } from "drizzle-orm";
import type { PgColumn } from "drizzle-orm/pg-core";
import type { z } from "zod";
import type { LearnedOfTests } from "#core/analysis";
import { packSheet } from "#core/battery";
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
  measuredEarlier,
} from "#core/records";
import type { Database } from "./client.ts";
import { saveEntity, saveTogether, type Seen } from "./entities.ts";
import { withNulls, withoutNulls } from "./rows.ts";
import { bench, bike, instrument, pack, rider, setUp } from "./schema.ts";
import { bySchema, readRow, readRows, type Unreadable } from "./unreadable.ts";

/** Something kept, with its id and version; put away or not. */
export type Kept<T> = T & { readonly id: string; readonly archived: boolean; readonly version: number };
/** Something of one bike. */
export type OfBike<T> = Kept<T> & { readonly bikeId: string };

interface Filter {
  /** Those put away as well. */
  readonly archived?: boolean | undefined;
  /** Told the rows that cannot be read, which are left out. */
  readonly unreadable?: Unreadable[] | undefined;
}

interface Row {
  readonly id: string;
  readonly archivedAt: Date | null;
  readonly version: number;
}

function kept<Schema extends z.ZodType<object>>(schema: Schema, row: Row): Kept<z.infer<Schema>> {
  return { ...bySchema(schema)(row), id: row.id, archived: row.archivedAt !== null, version: row.version };
}

/** Rows that are listed: those that are archived only where they are asked for, and none in the trash. */
export const listed = (
  table: { readonly archivedAt: PgColumn; readonly deletedAt: PgColumn },
  archived: boolean | undefined,
) => isNull(archived ? table.deletedAt : table.archivedAt);

export async function listBikes(db: Database, filter: Filter = {}): Promise<readonly Kept<Bike>[]> {
  const rows = await db.select().from(bike).where(listed(bike, filter.archived)).orderBy(asc(bike.name));
  return readRows("bike", rows, (row) => kept(bikeSchema, row), filter.unreadable);
}

export async function listPacks(
  db: Database,
  bikeId?: string,
  filter: Filter = {},
): Promise<readonly OfBike<PackRecord>[]> {
  const rows = await db
    .select()
    .from(pack)
    .where(and(bikeId ? eq(pack.bikeId, bikeId) : undefined, listed(pack, filter.archived)))
    .orderBy(asc(pack.name));
  return readRows(
    "pack",
    rows,
    (row) => ({ ...kept(packRecordSchema, row), bikeId: row.bikeId }),
    filter.unreadable,
  );
}

export async function listSetUps(
  db: Database,
  bikeId?: string,
  filter: Filter = {},
): Promise<readonly OfBike<SetUp>[]> {
  const rows = await db
    .select()
    .from(setUp)
    .where(and(bikeId ? eq(setUp.bikeId, bikeId) : undefined, listed(setUp, filter.archived)))
    .orderBy(desc(setUp.since), asc(setUp.name));
  return readRows(
    "set_up",
    rows,
    (row) => ({ ...kept(setUpSchema, row), bikeId: row.bikeId }),
    filter.unreadable,
  );
}

export async function listRiders(db: Database, filter: Filter = {}): Promise<readonly Kept<Rider>[]> {
  const rows = await db.select().from(rider).where(listed(rider, filter.archived)).orderBy(asc(rider.name));
  return readRows("rider", rows, (row) => kept(riderSchema, row), filter.unreadable);
}

export async function listInstruments(
  db: Database,
  filter: Filter = {},
): Promise<readonly Kept<Instrument>[]> {
  const rows = await db
    .select()
    .from(instrument)
    .where(listed(instrument, filter.archived))
    .orderBy(asc(instrument.name));
  return readRows("instrument", rows, (row) => kept(instrumentSchema, row), filter.unreadable);
}

/** Bench discharges of a pack, newest first. */
export async function listBenches(
  db: Database,
  packId: string,
  unreadable?: Unreadable[],
): Promise<readonly Kept<Bench>[]> {
  const rows = await db
    .select()
    .from(bench)
    .where(and(eq(bench.packId, packId), isNull(bench.archivedAt)));
  const benches = readRows(
    "bench",
    rows,
    ({ id, body, archivedAt, version }) => ({
      ...benchSchema.parse(body),
      id,
      archived: archivedAt !== null,
      version,
    }),
    unreadable,
  );
  return [...benches].sort((a, b) => b.on.localeCompare(a.on));
}

/** Every bench discharge by its id and what it is called, the newest first. */
export async function listAllBenches(
  db: Database,
): Promise<readonly { readonly id: string; readonly name: string }[]> {
  const rows = await db
    .select({ id: bench.id, body: bench.body, packName: pack.name, bikeName: bike.name })
    .from(bench)
    .innerJoin(pack, eq(pack.id, bench.packId))
    .innerJoin(bike, eq(bike.id, pack.bikeId))
    .where(isNull(bench.archivedAt));
  const named = readRows("bench", rows, ({ id, body, packName, bikeName }) => {
    const { on } = benchSchema.parse(body);
    return { id, on, name: `${packName}, ${bikeName}, ${on}` };
  });
  return [...named].sort((a, b) => b.on.localeCompare(a.on)).map(({ id, name }) => ({ id, name }));
}

/** A bench discharge with its pack and bike; null when there is none. */
export async function findBench(db: Database, id: string) {
  const [row] = await db
    .select({ packId: bench.packId, bikeId: pack.bikeId })
    .from(bench)
    .innerJoin(pack, eq(pack.id, bench.packId))
    .where(eq(bench.id, id));
  if (!row) return null;
  const [found, packs, benches] = await Promise.all([
    findBike(db, row.bikeId),
    listPacks(db, row.bikeId, { archived: true }),
    listBenches(db, row.packId),
  ]);
  const own = packs.find((each) => each.id === row.packId);
  const discharge = benches.find((each) => each.id === id);
  return found && own && discharge ? { bike: found, pack: own, bench: discharge } : null;
}

export async function findBike(db: Database, id: string): Promise<Kept<Bike> | null> {
  const [row] = await db.select().from(bike).where(eq(bike.id, id));
  return readRow("bike", row, (found) => kept(bikeSchema, found));
}

const columnsOf = <T extends object>(schema: { readonly shape: T }) =>
  Object.keys(schema.shape) as (keyof T)[];

/** A record as a row: every field of its schema, null where it is empty. */
const rowFrom = <T extends object>(id: string, schema: { readonly shape: object }, value: T) => ({
  id,
  ...withNulls(value, columnsOf(schema) as unknown as readonly (keyof T)[]),
});

/** Keeps a bike; what its tests showed of its display stays with it. */
export async function saveBike(db: Database, id: string, value: Bike, seen?: Seen): Promise<string> {
  const [before] = value.learned.length
    ? []
    : await db.select({ learned: bike.learned }).from(bike).where(eq(bike.id, id));
  const learned = before?.learned ?? value.learned;
  return saveEntity(db, "bike", rowFrom(id, bikeSchema, { ...value, learned }), seen);
}

/**
 * Takes over what the tests of a bike showed, in place of what was taken over before: its tests are calculated with it from then on.
 *
 * @returns the id by which it can be undone; null when nothing changed
 */
export function keepLearned(db: Database, bikeId: string, found: LearnedOfTests): Promise<string | null> {
  return saveTogether(db, async (tx, save) => {
    const [ofBike] = await tx.select().from(bike).where(eq(bike.id, bikeId));
    const packs = await tx.select().from(pack).where(eq(pack.bikeId, bikeId));
    let changed = false;
    const keep = async (
      kind: "bike" | "pack",
      row: Row & { readonly learned: unknown },
      learned: unknown,
    ) => {
      if (isDeepStrictEqual(row.learned, learned)) return;
      await save(kind, { ...row, learned });
      changed = true;
    };
    if (ofBike) await keep("bike", ofBike, found.display);
    for (const row of packs) await keep("pack", row, found.packs.get(row.id) ?? []);
    return changed;
  });
}

/** A pack as it is kept; null when there is none, or it cannot be read. */
async function packAsKept(db: Database, id: string): Promise<PackRecord | null> {
  const [row] = await db.select().from(pack).where(eq(pack.id, id));
  return (row && packRecordSchema.safeParse(withoutNulls(row)).data) ?? null;
}

/** Keeps a pack; a measurement that gives way to another stays among the earlier ones. */
export async function savePack(
  db: Database,
  id: string,
  bikeId: string,
  value: PackRecord,
  seen?: Seen,
): Promise<string> {
  const before = await packAsKept(db, id);
  const learned = value.learned.length ? value.learned : (before?.learned ?? []);
  const whole = before ? { ...value, learned, measuredBefore: measuredEarlier(before, value) } : value;
  return saveEntity(db, "pack", { ...rowFrom(id, packRecordSchema, whole), bikeId }, seen);
}

export function saveSetUp(
  db: Database,
  id: string,
  bikeId: string,
  value: SetUp,
  seen?: Seen,
): Promise<string> {
  return saveEntity(db, "setUp", { ...rowFrom(id, setUpSchema, value), bikeId }, seen);
}

export function saveRider(db: Database, id: string, value: Rider, seen?: Seen): Promise<string> {
  return saveEntity(db, "rider", rowFrom(id, riderSchema, value), seen);
}

/** Keeps an instrument. A name it had before stays with it, so that logs that use it go on meaning it. */
export async function saveInstrument(
  db: Database,
  id: string,
  value: Omit<Instrument, "formerNames">,
  seen?: Seen,
): Promise<string> {
  return db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    const [before] = await tx.select().from(instrument).where(eq(instrument.id, id)).for("no key update");
    const names = before ? [...before.formerNames, before.name] : [];
    const formerNames = [...new Set(names)].filter((name) => name !== value.name);
    return saveEntity(tx, "instrument", rowFrom(id, instrumentSchema, { ...value, formerNames }), seen);
  });
}

/** A pack with what a bench discharge told, brought to 25 C: the latest is its capacity, others stay by their days. */
function withBench(before: PackRecord, bench: Bench): PackRecord {
  const wh = packSheet(before, bench)?.measured.mean;
  if (wh === undefined) return before;
  const sdWh = bench.sdWh === undefined ? undefined : (bench.sdWh * wh) / bench.wh;
  const pencil = before.pencil.filter((name) => !name.startsWith("measured"));
  const after = { ...before, pencil, measuredWh: wh, measuredSdWh: sdWh, measuredOn: bench.on };
  if (before.measuredOn === undefined || bench.on >= before.measuredOn)
    return { ...after, measuredBefore: measuredEarlier(before, after) };
  return { ...before, measuredBefore: measuredEarlier(after, before) };
}

/** Keeps a bench discharge; the newest, brought to 25 C, becomes the pack's measured capacity. */
export async function saveBench(
  db: Database,
  id: string,
  packId: string,
  value: Bench,
  seen?: Seen,
): Promise<string> {
  const changed = await saveEntity(db, "bench", { id, packId, body: value }, seen);
  const [row] = await db.select().from(pack).where(eq(pack.id, packId));
  const before = await packAsKept(db, packId);
  if (row && before)
    await saveEntity(db, "pack", { ...row, ...rowFrom(packId, packRecordSchema, withBench(before, value)) });
  return changed;
}
