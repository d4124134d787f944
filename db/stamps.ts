import { eq, inArray, or, sql, type SQL } from "drizzle-orm";
import type { Database } from "./client.ts";
import type { EntityKind } from "./kinds.ts";
import { entry, ride, telemetryImport, test } from "./schema.ts";

/** Names that readings without a name of their own go by. */
const DEFAULT_NAMES = ["meter", "logger", "charger"];

const next = { stamp: sql`nextval('test_stamp')` as never };

/** Tests whose log or loggers name an instrument. */
function namedBy(db: Database, names: readonly string[]): SQL | undefined {
  if (names.some((name) => DEFAULT_NAMES.includes(name))) return sql`true`;
  const among = (value: SQL) => inArray(value, [...names]);
  const logs = db
    .select({ id: ride.testId })
    .from(ride)
    .innerJoin(entry, eq(entry.rideId, ride.id))
    .where(or(among(sql`${entry.body}->>'meter'`), among(sql`${entry.body}->>'charger'`)));
  const loggers = db
    .select({ id: ride.testId })
    .from(ride)
    .innerJoin(telemetryImport, eq(telemetryImport.rideId, ride.id))
    .where(inArray(telemetryImport.logger, [...names]));
  return or(inArray(test.id, logs), inArray(test.id, loggers));
}

/**
 * Gives new stamps to the tests whose results rest on a row that changed, and to no other.
 *
 * @param names an instrument's name before and after: tests refer to it by them
 */
export async function restamp(
  db: Database,
  kind: EntityKind,
  id: string,
  names: readonly unknown[] = [],
): Promise<void> {
  const resting: Partial<Record<EntityKind, SQL | undefined>> = {
    test: eq(test.id, id),
    bike: eq(test.bikeId, id),
    pack: or(eq(test.packId, id), eq(test.secondPackId, id)),
    setUp: eq(test.setUpId, id),
    rider: eq(test.riderId, id),
    instrument:
      kind === "instrument"
        ? namedBy(
            db,
            names.filter((name): name is string => typeof name === "string"),
          )
        : undefined,
  };
  const where = resting[kind];
  if (!where) return;
  // Locked in one order, so that two changes whose tests overlap wait for one another and never both.
  const locked = await db
    .select({ id: test.id })
    .from(test)
    .where(where)
    .orderBy(test.id)
    .for("no key update");
  const ids = locked.map((row) => row.id);
  if (ids.length) await db.update(test).set(next).where(inArray(test.id, ids));
}

/** A new stamp for the test a ride belongs to: its log or its recordings changed. */
export async function restampRide(db: Database, rideId: string): Promise<void> {
  await db
    .update(test)
    .set(next)
    .where(inArray(test.id, db.select({ id: ride.testId }).from(ride).where(eq(ride.id, rideId))));
}
