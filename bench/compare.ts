import { v7 as uuidv7 } from "uuid";
import { jointPair, type PairedTest } from "#core/compare";
import { METRES_PER_MILE } from "#core/quantities";
import type { TestRecord } from "#core/records";
import type { Database } from "#db/client";
import { appendEntries } from "#db/log";
import { saveTest, type TestLine } from "#db/tests";
import { longRide } from "./inputs.ts";
import { median } from "./measure.ts";
import type { Report } from "./report.ts";

/** Tests that are added to the desk. */
export const MANY = 500;
const MARKS = 8;
const RIDES = 12;

/** The same ride from another charge: no two say quite the same. */
const shiftedBy = (record: TestRecord, points: number): TestRecord => ({
  ...record,
  rides: record.rides.map((ride) => ({
    ...ride,
    entries: ride.entries.map((entry) => {
      const { body } = entry;
      return "percent" in body && body.percent !== undefined
        ? { ...entry, body: { ...body, percent: Math.max(0, body.percent - points) } }
        : entry;
    }),
  })),
});

/** One ledger over twelve rides, six of each side, 20 marks each. */
export async function benchJoint(report: Report): Promise<readonly boolean[]> {
  const tests = Array.from({ length: RIDES }, (_, i): PairedTest => ({
    id: `test ${i}`,
    bikeId: "bike",
    packId: "pack",
    secondPackId: null,
    record: shiftedBy(longRide(20), i % 4),
    side: i % 4 === 0 || i % 4 === 3 ? "A" : "B",
  }));
  return [
    report(
      `joint ledger of ${RIDES} rides, with what would settle it`,
      await median(5, () => jointPair(tests)),
      500,
    ),
  ];
}

/** Puts many short tests of some bikes on the desk. */
export async function addMany(db: Database, models: readonly TestLine[], many = MANY): Promise<void> {
  for (let i = 0; i < many; i += 1) {
    const first = models[i % models.length]!;
    const record = shiftedBy(longRide(MARKS), i % 5);
    const ride = { id: uuidv7(), utcOffset: "+00:00" };
    await saveTest(
      db,
      uuidv7(),
      { ...first, secondPackId: null },
      { ...record.test, title: `many ${i}` },
      { firstRide: ride },
    );
    await appendEntries(
      db,
      ride.id,
      record.rides[0]!.entries.map(({ body, ...entry }) => ({
        ...entry,
        id: uuidv7(),
        body:
          "distanceM" in body && body.distanceM
            ? { ...body, distanceM: body.distanceM % (40 * METRES_PER_MILE) }
            : body,
      })),
    );
  }
}
