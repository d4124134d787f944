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

/** Tests of the standings' page. */
const MANY = 500;
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

/** Puts many short tests of a bike on the desk. */
export async function addMany(db: Database, first: TestLine): Promise<void> {
  for (let i = 0; i < MANY; i += 1) {
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

/** The standings of many tests: the first time, which reckons them all, and every time after. */
export async function benchStandings(
  report: Report,
  fetched: (path: string) => () => Promise<unknown>,
): Promise<readonly boolean[]> {
  const before = performance.now();
  await fetched("/compare?under=House")();
  const first = performance.now() - before;
  return [
    report(`standings of ${MANY} tests under House, reckoned for the first time`, first),
    report(`standings of ${MANY} tests under House`, await median(7, fetched("/compare?under=House")), 300),
    report(`standings of ${MANY} tests as ridden`, await median(7, fetched("/compare")), 300),
  ];
}
