import { asc, eq } from "drizzle-orm";
import {
  bikeSchema,
  packRecordSchema,
  riderSchema,
  setUpSchema,
  type Bike,
  type PackRecord,
  type Rider,
  type SetUp,
} from "#core/records";
import type { Database } from "./client.ts";
import { withNulls, withoutNulls } from "./rows.ts";
import { bike, pack, rider, setUp } from "./schema.ts";

export type Kept<T> = T & { readonly id: string };

const kept = <T>(parse: (row: unknown) => T, row: { id: string }): Kept<T> => ({
  ...parse(withoutNulls(row)),
  id: row.id,
});

export async function listBikes(db: Database): Promise<readonly Kept<Bike>[]> {
  const rows = await db.select().from(bike).orderBy(asc(bike.name));
  return rows.map((row) => kept((value) => bikeSchema.parse(value), row));
}

export async function listPacks(
  db: Database,
  bikeId?: string,
): Promise<readonly (Kept<PackRecord> & { bikeId: string })[]> {
  const rows = await db
    .select()
    .from(pack)
    .where(bikeId ? eq(pack.bikeId, bikeId) : undefined)
    .orderBy(asc(pack.name));
  return rows.map((row) => ({ ...kept((value) => packRecordSchema.parse(value), row), bikeId: row.bikeId }));
}

export async function listSetUps(
  db: Database,
  bikeId?: string,
): Promise<readonly (Kept<SetUp> & { bikeId: string })[]> {
  const rows = await db
    .select()
    .from(setUp)
    .where(bikeId ? eq(setUp.bikeId, bikeId) : undefined)
    .orderBy(asc(setUp.name));
  return rows.map((row) => ({ ...kept((value) => setUpSchema.parse(value), row), bikeId: row.bikeId }));
}

export async function listRiders(db: Database): Promise<readonly Kept<Rider>[]> {
  const rows = await db.select().from(rider).orderBy(asc(rider.name));
  return rows.map((row) => kept((value) => riderSchema.parse(value), row));
}

export async function findBike(db: Database, id: string): Promise<Kept<Bike> | null> {
  const [row] = await db.select().from(bike).where(eq(bike.id, id));
  return row ? kept((value) => bikeSchema.parse(value), row) : null;
}

const BIKE_COLUMNS = [
  "name",
  "what",
  "massKg",
  "motor",
  "levels",
  "throttle",
  "percentStep",
  "counts",
  "bars",
  "meterStepV",
  "wheelCircumferenceM",
  "claimLowM",
  "claimHighM",
  "pencil",
] as const;
const PACK_COLUMNS = [
  "name",
  "chemistry",
  "labelWh",
  "ampHours",
  "seriesCells",
  "measuredWh",
  "measuredSdWh",
  "measuredOn",
  "resistanceOhm",
  "ocv",
  "firstUsedOn",
  "cycles",
  "pencil",
] as const;
const RIDER_COLUMNS = ["name", "massKg", "pencil"] as const;
const SET_UP_COLUMNS = ["name", "tyre", "pressurePa", "lightsOn", "carriedKg", "pencil"] as const;

/** What an insert or update writes: columns that may be empty are null, the others keep their defaults' types. */
type Written<Table extends { $inferInsert: object }> = Table["$inferInsert"];

export async function saveBike(db: Database, id: string, value: Bike): Promise<void> {
  const row = { id, ...withNulls(value, BIKE_COLUMNS), updatedAt: new Date() } as Written<typeof bike>;
  await db.insert(bike).values(row).onConflictDoUpdate({ target: bike.id, set: row });
}

export async function savePack(db: Database, id: string, bikeId: string, value: PackRecord): Promise<void> {
  const row = { id, bikeId, ...withNulls(value, PACK_COLUMNS), updatedAt: new Date() } as Written<
    typeof pack
  >;
  await db.insert(pack).values(row).onConflictDoUpdate({ target: pack.id, set: row });
}

export async function saveSetUp(db: Database, id: string, bikeId: string, value: SetUp): Promise<void> {
  const row = { id, bikeId, ...withNulls(value, SET_UP_COLUMNS), updatedAt: new Date() } as Written<
    typeof setUp
  >;
  await db.insert(setUp).values(row).onConflictDoUpdate({ target: setUp.id, set: row });
}

export async function saveRider(db: Database, id: string, value: Rider): Promise<void> {
  const row = { id, ...withNulls(value, RIDER_COLUMNS), updatedAt: new Date() } as Written<typeof rider>;
  await db.insert(rider).values(row).onConflictDoUpdate({ target: rider.id, set: row });
}
