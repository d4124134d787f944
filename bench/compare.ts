import { v7 as uuidv7 } from "uuid";
import { REFERENCES } from "#core/bike";
import {
  comparedOf,
  deskDayOf,
  jointPair,
  type Compared,
  type PairedTest,
  type Reckoned,
} from "#core/compare";
import { deskPosterior, type DeskDay } from "#core/desk";
import { METRES_PER_MILE } from "#core/base";
import type { TestRecord } from "#core/records";
import { analyseTest } from "#core/analysis";
import { worldDesk } from "#tests/world";
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

/** Tests of many bikes and some riders for one posterior: a few that were ridden, again and again under other names. */
function manyCompared(many: number): readonly Compared[] {
  const { tests } = worldDesk(3, { bikes: 6, riders: 2, testsEach: 3, told: "typical" }, REFERENCES[0]!);
  const ridden = tests.flatMap(({ record }): readonly Reckoned[] => {
    const results = analyseTest(record);
    return results.ok ? [{ record, results: results.value }] : [];
  });
  const bikes = Math.ceil(many / 8);
  return comparedOf(
    Array.from({ length: many }, (_, i): Reckoned => {
      const { record, results } = ridden[i % ridden.length]!;
      const bike = { ...record.bike, name: `bike ${i % bikes}`, massKg: 25 };
      const rider = { ...record.rider!, name: `rider ${i % 11}` };
      return { record: { ...record, bike, rider }, results };
    }),
  );
}

/** One posterior over a desk, and the same again when one test has changed. */
export async function benchPosterior(report: Report): Promise<readonly boolean[]> {
  const daysOf = (many: number) => manyCompared(many).flatMap((each) => deskDayOf(each) ?? []);
  const [some, all] = [daysOf(500), daysOf(5000)];
  const before = deskPosterior(some);
  const [first] = some;
  const changed = (by: number): readonly DeskDay[] => {
    const [{ mean, sd }] = first!.measured as [DeskDay["measured"][number]];
    return [{ ...first!, measured: [{ mean: mean * by, sd }] }, ...some.slice(1)];
  };
  let turn = 0;
  return [
    report("desk: 500 tests solved together", await median(5, () => deskPosterior(some)), 300),
    report("desk: 5,000 tests solved together", await median(3, () => deskPosterior(all)), 3000),
    report(
      "desk: one of 500 tests changed",
      await median(5, () => deskPosterior(changed(1 + 0.02 * (turn += 1)), undefined, before)),
      100,
    ),
  ];
}

/** Puts many short tests of some bikes on the desk. */
export async function addMany(db: Database, models: readonly TestLine[], many = MANY): Promise<void> {
  for (let i = 0; i < many; i += 1) {
    const first = models[i % models.length]!;
    const record = shiftedBy(longRide(MARKS), i % 5);
    const ride = { id: uuidv7(), zone: "+00:00" };
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
