import { and, asc, desc, eq, inArray, isNotNull, isNull, sql } from "drizzle-orm";
import { testSchema, type Test } from "#core/records";
import { rehearsalSchema, type Rehearsal } from "#core/simulator";
import { listed } from "./bikes.ts";
import type { Database } from "./client.ts";
import { saveEntity, type Seen } from "./entities.ts";
import { withNulls, withoutNulls } from "./rows.ts";
import { bike, pack, ride, rider, setUp, test, track } from "./schema.ts";
import { restampRide } from "./stamps.ts";
import { readRow, readRows, type Unreadable } from "./unreadable.ts";

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
  readonly archived: boolean;
  /** When it was deleted, while it is in the trash. */
  readonly deletedAt: Date | null;
  /** Changes whenever anything the results rest on changes. */
  readonly stamp: string;
  /** Counts the changes of its own fields and links. */
  readonly version: number;
}

export interface RideRow {
  readonly id: string;
  readonly name: string;
  readonly zone: string;
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

const linesOf = (db: Database) =>
  db
    .select({ test, bikeName: bike.name, setUpName: setUp.name, riderName: rider.name })
    .from(test)
    .innerJoin(bike, eq(bike.id, test.bikeId))
    .innerJoin(pack, eq(pack.id, test.packId))
    .leftJoin(setUp, eq(setUp.id, test.setUpId))
    .leftJoin(rider, eq(rider.id, test.riderId));
type LineRow = Awaited<ReturnType<typeof linesOf>>[number];

const lineOf = (row: LineRow): TestLine => ({
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
  rehearsal: row.test.rehearsal && rehearsalSchema.parse(row.test.rehearsal),
  archived: row.test.archivedAt !== null,
  deletedAt: row.test.deletedAt,
  stamp: String(row.test.stamp),
  version: row.test.version,
});

export interface TestFilter {
  readonly bikeId?: string;
  readonly ids?: readonly string[];
  /** Archived tests as well; those that are named are found whether they are archived or not. */
  readonly archived?: boolean | undefined;
  /** Rehearsals alone; else they are left out unless they are named. */
  readonly rehearsals?: boolean;
  /** A page of the list. */
  readonly limit?: number;
  readonly offset?: number;
  /** Told the tests that cannot be read, which are left out. */
  readonly unreadable?: Unreadable[];
}

const where = ({ bikeId, ids, archived, rehearsals }: TestFilter) =>
  and(
    bikeId ? eq(test.bikeId, bikeId) : undefined,
    ids ? inArray(test.id, [...ids]) : undefined,
    ids ? undefined : listed(test, archived),
    rehearsals ? isNotNull(test.rehearsal) : ids ? undefined : isNull(test.rehearsal),
  );

/** Tests, newest first; of one bike, or those named, or a page of them. */
export async function listTests(db: Database, filter: TestFilter = {}): Promise<readonly TestLine[]> {
  const { limit, offset, unreadable } = filter;
  const query = linesOf(db)
    .where(where(filter))
    .orderBy(desc(test.day), desc(test.id))
    .offset(offset ?? 0);
  const rows = await (limit === undefined ? query : query.limit(limit));
  return readRows("test", rows, lineOf, unreadable, (row) => row.test);
}

/** How many tests there are of a filter, those that cannot be read among them. */
export async function countTests(db: Database, filter: TestFilter = {}): Promise<number> {
  return db.$count(test, where(filter));
}

/**
 * The rider somebody last chose for a test, of this bike before any other; null where nobody chose one. Riders without a name of
 * their own are nobody's usual one.
 */
export async function usualRider(db: Database, bikeId: string): Promise<string | null> {
  const [found] = await db
    .select({ id: rider.id })
    .from(test)
    .innerJoin(rider, eq(rider.id, test.riderId))
    .where(
      and(
        isNull(rider.archivedAt),
        listed(test, false),
        isNull(test.rehearsal),
        sql`not ('name' = any(${rider.pencil}))`,
      ),
    )
    .orderBy(desc(sql`${test.bikeId} = ${bikeId}`), desc(test.day), desc(test.id))
    .limit(1);
  return found?.id ?? null;
}

/** A test by its id and stamp, and whether it is archived. */
export interface Stamped {
  readonly id: string;
  readonly stamp: string;
  readonly archived: boolean;
}

/** Ids and stamps of all tests but those in the trash: what a ranking rests on, at little cost. */
export async function listStamps(db: Database): Promise<readonly Stamped[]> {
  const rows = await db
    .select({ id: test.id, stamp: test.stamp, archivedAt: test.archivedAt })
    .from(test)
    .where(and(isNull(test.rehearsal), listed(test, true)));
  return rows.map(({ id, stamp, archivedAt }) => ({
    id,
    stamp: String(stamp),
    archived: archivedAt !== null,
  }));
}

/** The newest test of each bike, by bike. */
export async function latestTests(
  db: Database,
): Promise<ReadonlyMap<string, { readonly id: string; readonly title: string; readonly stamp: string }>> {
  const rows = await db
    .selectDistinctOn([test.bikeId], {
      bikeId: test.bikeId,
      id: test.id,
      title: test.title,
      stamp: test.stamp,
    })
    .from(test)
    .where(and(isNull(test.rehearsal), listed(test, false)))
    .orderBy(asc(test.bikeId), desc(test.day), desc(test.id));
  return new Map(rows.map(({ bikeId, stamp, ...line }) => [bikeId, { ...line, stamp: String(stamp) }]));
}

/** Whether a ride is one of a test. */
export async function isRideOf(db: Database, rideId: string, testId: string): Promise<boolean> {
  const [found] = await db
    .select({ id: ride.id })
    .from(ride)
    .where(and(eq(ride.id, rideId), eq(ride.testId, testId)));
  return found !== undefined;
}

/** A test by its id; null when there is none. @throws UnreadableRow */
export async function findTest(db: Database, id: string): Promise<TestLine | null> {
  const [row] = await linesOf(db).where(eq(test.id, id));
  return readRow("test", row, lineOf, (each) => each.test);
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
    zone: row.zone,
    track: tracks.filter(({ rideId }) => rideId === row.id).at(-1) ?? null,
  }));
}

/** The zone of a ride's clock; UTC for one that is not there. */
export async function zoneOfRide(db: Database, rideId: string): Promise<string> {
  const [row] = await db.select({ zone: ride.zone }).from(ride).where(eq(ride.id, rideId));
  return row?.zone ?? "+00:00";
}

/**
 * Makes or changes a test; a new one gets its first ride.
 *
 * @param more the first ride of a new test, what a rehearsal rides, and the version a change was made on
 * @returns the change's id, by which it can be undone
 * @throws StaleSave when the test was changed since that version
 */
export async function saveTest(
  db: Database,
  id: string,
  links: TestLinks,
  value: Test,
  more: {
    readonly firstRide?: { readonly id: string; readonly zone: string };
    readonly rehearsal?: Rehearsal;
    readonly seen?: Seen;
  } = {},
): Promise<string> {
  const { bikeId, packId, secondPackId, setUpId, riderId } = links;
  const { firstRide, rehearsal, seen } = more;
  return db.transaction(async (transaction) => {
    const tx = transaction as unknown as Database;
    const row = {
      id,
      ...{ bikeId, packId, secondPackId, setUpId, riderId },
      ...withNulls(value, TEST_COLUMNS),
      ...(rehearsal && { rehearsal }),
    };
    const changed = await saveEntity(tx, "test", row, seen);
    if (firstRide)
      await tx
        .insert(ride)
        .values({ ...firstRide, testId: id, position: 0, name: "Ride 1" })
        .onConflictDoNothing();
    return changed;
  });
}

/**
 * Adds a ride on the same charge, by the same clock. The id comes from the page that asks: pressed ten times, there is one
 * ride.
 */
export async function addRide(db: Database, id: string, testId: string, name: string): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.select({ id: test.id }).from(test).where(eq(test.id, testId)).for("no key update");
    const rides = await tx.select().from(ride).where(eq(ride.testId, testId)).orderBy(asc(ride.position));
    if (rides.some((each) => each.id === id)) return;
    const last = rides.at(-1);
    const position = last ? last.position + 1 : 0;
    const zone = last?.zone ?? "+00:00";
    await tx
      .insert(ride)
      .values({ id, testId, position, name: name || `Ride ${position + 1}`, zone })
      .onConflictDoNothing();
    await restampRide(tx as unknown as Database, id);
  });
}
