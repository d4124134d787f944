import { alias } from "drizzle-orm/pg-core";
import { and, asc, desc, eq, inArray, isNotNull, isNull, sql } from "drizzle-orm";
import {
  bikeSchema,
  packRecordSchema,
  riderSchema,
  setUpSchema,
  testSchema,
  type Test,
  type TestRecord,
  type TrackRecord,
} from "#core/records";
import type { Rehearsal } from "#core/standin";
import type { Database } from "./client.ts";
import { listInstruments } from "./bikes.ts";
import { listEntries } from "./log.ts";
import { withNulls, withoutNulls } from "./rows.ts";
import { bike, entry, instrument, pack, ride, rider, setUp, telemetry, test, track } from "./schema.ts";
import { readTelemetry } from "./telemetry.ts";

/** Who and what a test is of, besides its own fields. */
export interface TestLinks {
  readonly bikeId: string;
  readonly packId: string;
  /** A second pack that runs beside the first. */
  readonly secondPackId: string | null;
  readonly setUpId: string | null;
  readonly riderId: string | null;
}

export interface TestLine extends TestLinks {
  readonly id: string;
  readonly test: Test;
  readonly bikeName: string;
  readonly setUpName: string | null;
  readonly riderName: string | null;
  /** What its stand-in display rides, when it is practice. */
  readonly rehearsal: Rehearsal | null;
  /** Changes whenever anything the results rest on changes. */
  readonly stamp: string;
}

export interface RideRow {
  readonly id: string;
  readonly name: string;
  readonly utcOffset: string;
  readonly track: { readonly id: string; readonly name: string } | null;
}

const TEST_COLUMNS = [
  "title",
  "school",
  "drive",
  "day",
  "airTempC",
  "packTempC",
  "wind",
  "course",
  "firstLevel",
  "firstGround",
  "windMps",
  "windFromDeg",
  "effort",
  "riderW",
  "bpm",
  "stops",
  "altitudeM",
  "pencil",
] as const;

const secondPack = alias(pack, "second_pack");

/** Grows with every entry or track of the test, and with every change to what it links to. */
const stamp = sql<string>`concat_ws('/',
  extract(epoch from ${test.updatedAt}), extract(epoch from ${bike.updatedAt}), extract(epoch from ${pack.updatedAt}),
  (select extract(epoch from p.updated_at) from ${pack} p where p.id = ${test.secondPackId}),
  extract(epoch from ${setUp.updatedAt}), extract(epoch from ${rider.updatedAt}),
  (select max(extract(epoch from i.updated_at)) from ${instrument} i),
  (select count(*) from ${entry} e join ${ride} r on r.id = e.ride_id where r.test_id = ${test.id}),
  (select count(*) from ${telemetry} m join ${ride} r on r.id = m.ride_id where r.test_id = ${test.id}),
  (select count(*) from ${track} k join ${ride} r on r.id = k.ride_id where r.test_id = ${test.id}))`;

/** Tests, newest first; of one bike, or those named. Rehearsals are left out unless they are named or asked for. */
export async function listTests(
  db: Database,
  filter: {
    readonly bikeId?: string;
    readonly ids?: readonly string[];
    readonly rehearsals?: boolean;
  } = {},
): Promise<readonly TestLine[]> {
  const rows = await db
    .select({ test, bikeName: bike.name, setUpName: setUp.name, riderName: rider.name, stamp })
    .from(test)
    .innerJoin(bike, eq(bike.id, test.bikeId))
    .innerJoin(pack, eq(pack.id, test.packId))
    .leftJoin(setUp, eq(setUp.id, test.setUpId))
    .leftJoin(rider, eq(rider.id, test.riderId))
    .where(
      and(
        filter.bikeId ? eq(test.bikeId, filter.bikeId) : undefined,
        filter.ids ? inArray(test.id, [...filter.ids]) : undefined,
        filter.rehearsals ? isNotNull(test.rehearsal) : filter.ids ? undefined : isNull(test.rehearsal),
      ),
    )
    .orderBy(desc(test.day), desc(test.id));
  return rows.map((row) => ({
    id: row.test.id,
    bikeId: row.test.bikeId,
    packId: row.test.packId,
    secondPackId: row.test.secondPackId,
    setUpId: row.test.setUpId,
    riderId: row.test.riderId,
    test: testSchema.parse(withoutNulls(row.test)),
    bikeName: row.bikeName,
    setUpName: row.setUpName,
    riderName: row.riderName,
    rehearsal: row.test.rehearsal,
    stamp: row.stamp,
  }));
}

export async function findTest(db: Database, id: string): Promise<TestLine | null> {
  return (await listTests(db, { ids: [id] }))[0] ?? null;
}

export async function listRides(db: Database, testId: string): Promise<readonly RideRow[]> {
  const rides = await db.select().from(ride).where(eq(ride.testId, testId)).orderBy(asc(ride.position));
  const tracks = rides.length
    ? await db
        .select({ id: track.id, rideId: track.rideId, name: track.name })
        .from(track)
        .where(
          inArray(
            track.rideId,
            rides.map((row) => row.id),
          ),
        )
        .orderBy(asc(track.receivedAt))
    : [];
  return rides.map((row) => ({
    id: row.id,
    name: row.name,
    utcOffset: row.utcOffset,
    track: tracks.filter(({ rideId }) => rideId === row.id).at(-1) ?? null,
  }));
}

async function readTrack(db: Database, id: string): Promise<TrackRecord> {
  const [row] = await db.select().from(track).where(eq(track.id, id));
  if (!row) throw new Error("a track listed is gone");
  return {
    name: row.name,
    timeS: row.timeS,
    lat: row.lat,
    lon: row.lon,
    eleM: row.eleM.map((height) => (Number.isNaN(height) ? null : height)),
  };
}

/** Everything the core needs to reckon one test. */
export async function loadRecord(db: Database, id: string): Promise<TestRecord | null> {
  const [row] = await db
    .select({ test, bike, pack, secondPack, rider, setUp })
    .from(test)
    .innerJoin(bike, eq(bike.id, test.bikeId))
    .innerJoin(pack, eq(pack.id, test.packId))
    .leftJoin(secondPack, eq(secondPack.id, test.secondPackId))
    .leftJoin(setUp, eq(setUp.id, test.setUpId))
    .leftJoin(rider, eq(rider.id, test.riderId))
    .where(eq(test.id, id));
  if (!row) return null;
  const rides = await listRides(db, id);
  return {
    test: testSchema.parse(withoutNulls(row.test)),
    bike: bikeSchema.parse(withoutNulls(row.bike)),
    pack: packRecordSchema.parse(withoutNulls(row.pack)),
    secondPack: row.secondPack && packRecordSchema.parse(withoutNulls(row.secondPack)),
    rider: row.rider && riderSchema.parse(withoutNulls(row.rider)),
    setUp: row.setUp && setUpSchema.parse(withoutNulls(row.setUp)),
    rides: await Promise.all(
      rides.map(async (each) => ({
        name: each.name,
        entries: [...(await listEntries(db, each.id))],
        track: each.track && (await readTrack(db, each.track.id)),
        telemetry: await readTelemetry(db, each.id),
      })),
    ),
    instruments: [...(await listInstruments(db, { archived: true }))],
    knownFactor: null,
  };
}

/** Makes or changes a test; a new one gets its first ride. */
export async function saveTest(
  db: Database,
  id: string,
  links: TestLinks,
  value: Test,
  firstRide?: { readonly id: string; readonly utcOffset: string },
  rehearsal?: Rehearsal,
): Promise<void> {
  const { bikeId, packId, secondPackId, setUpId, riderId } = links;
  const row = {
    id,
    bikeId,
    packId,
    secondPackId,
    setUpId,
    riderId,
    ...withNulls(value, TEST_COLUMNS),
    ...(rehearsal && { rehearsal }),
    updatedAt: new Date(),
  } as typeof test.$inferInsert;
  await db.transaction(async (tx) => {
    await tx.insert(test).values(row).onConflictDoUpdate({ target: test.id, set: row });
    if (firstRide)
      await tx
        .insert(ride)
        .values({ ...firstRide, testId: id, position: 0, name: "Ride 1" })
        .onConflictDoNothing();
  });
}

/** Adds a ride on the same charge, by the same clock. */
export async function addRide(db: Database, id: string, testId: string, name: string): Promise<void> {
  const rides = await db.select().from(ride).where(eq(ride.testId, testId)).orderBy(asc(ride.position));
  const position = rides.length;
  const utcOffset = rides.at(-1)?.utcOffset ?? "+00:00";
  await db.insert(ride).values({ id, testId, position, name: name || `Ride ${position + 1}`, utcOffset });
}

/** Keeps a track beside a ride; an earlier one stays in the database and no longer counts. */
export async function saveTrack(db: Database, id: string, rideId: string, value: TrackRecord): Promise<void> {
  await db
    .insert(track)
    .values({
      id,
      rideId,
      name: value.name,
      timeS: [...value.timeS],
      lat: [...value.lat],
      lon: [...value.lon],
      eleM: value.eleM.map((height) => height ?? NaN),
    })
    .onConflictDoNothing();
}
