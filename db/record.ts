import { alias } from "drizzle-orm/pg-core";
import { eq } from "drizzle-orm";
import { knownFor } from "#core/analysis";
import {
  bikeSchema,
  packRecordSchema,
  riderSchema,
  setUpSchema,
  testSchema,
  type TestRecord,
} from "#core/records";
import type { Database } from "./client.ts";
import { listInstruments } from "./bikes.ts";
import { listEntries } from "./log.ts";
import { bike, pack, rider, setUp, test } from "./schema.ts";
import { readTelemetry } from "./telemetry.ts";
import { listRides } from "./tests.ts";
import { readTrack } from "./tracks.ts";
import { bySchema, readRow, type Unreadable } from "./unreadable.ts";

const secondPack = alias(pack, "second_pack");

/** Everything the core needs to reckon one test, and what of its log could not be read. */
export async function loadRecord(
  db: Database,
  id: string,
  unreadable?: Unreadable[],
): Promise<TestRecord | null> {
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
  const part = <T>(table: string, found: object | null, read: (row: object) => T) =>
    found ? readRow(table, found, read) : null;
  const rides = await listRides(db, id);
  const own = {
    test: part("test", row.test, bySchema(testSchema))!,
    bike: part("bike", row.bike, bySchema(bikeSchema))!,
    pack: part("pack", row.pack, bySchema(packRecordSchema))!,
  };
  return {
    test: own.test,
    // Of what other tests showed the ledger takes what it knows of them alone.
    bike: { ...own.bike, learned: [] },
    pack: { ...own.pack, learned: [] },
    ...knownFor(own.bike, own.pack, { testId: id, day: own.test.day }),
    secondPack: part("pack", row.secondPack, bySchema(packRecordSchema)),
    rider: part("rider", row.rider, bySchema(riderSchema)),
    setUp: part("set_up", row.setUp, bySchema(setUpSchema)),
    rides: await Promise.all(
      rides.map(async (each) => ({
        name: each.name,
        entries: [...(await listEntries(db, each.id, unreadable))],
        track: each.track && (await readTrack(db, each.track.id, unreadable)),
        telemetry: await readTelemetry(db, each.id, unreadable),
      })),
    ),
    instruments: [...(await listInstruments(db, { archived: true }))],
  };
}
