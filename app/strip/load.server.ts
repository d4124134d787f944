import { v7 as uuidv7 } from "uuid";
import { analysisOf, freshnessOf } from "#app/services/analysis.server";
import { LONG_ENTRIES } from "#app/services/strip/long";
import { lighter, stripResults } from "#app/services/strip/view";
import { found } from "#app/ui/require.server";
import { foldLog } from "#core/ride/log";
import { findBike } from "#db/bikes";
import type { Database } from "#db/client";
import { countEntries, listEntries } from "#db/log";
import { listEntryPhotographs } from "#db/photographs";
import { listImports } from "#db/telemetry";
import { findTest, listRides } from "#db/tests";
import type { Unreadable } from "#db/unreadable";

const GONE = "There is no such test.";

/** All that the page of a test shows; of a long log only what is light, the rest is fetched by the page. */
export async function loadTestPage(db: Database, testId: string) {
  const line = found(await findTest(db, testId), GONE);
  const [bike, rides, entries] = await Promise.all([
    findBike(db, line.bikeId),
    listRides(db, line.id),
    countEntries(db, line.id),
  ]);
  const isLong = entries > LONG_ENTRIES;
  const { result, stamp, pending, notes } = isLong ? await freshnessOf(db, line) : await analysisOf(db, line);
  const logs = await Promise.all(
    rides.map(async (ride) => {
      const unreadable: Unreadable[] = [];
      const log = isLong ? [] : foldLog(await listEntries(db, ride.id, unreadable));
      const [loggers, photographs] = await Promise.all([
        listImports(db, ride.id),
        listEntryPhotographs(db, ride.id),
      ]);
      return { ...ride, log, unreadable, loggers, photographs };
    }),
  );
  return {
    // The page's own reckoning stands until results of a newer stamp come.
    line: { ...line, stamp: stamp || line.stamp },
    bike: found(bike, GONE),
    rides: logs,
    pending: pending ? 1 : 0,
    isLong,
    /** Of the next ride: however often it is pressed, one ride is made. */
    nextRideId: uuidv7(),
    sent: result?.ok ? lighter(stripResults(result.value)) : null,
    notes,
    problems: result && !result.ok ? result.problems.map(({ sentence }) => sentence) : [],
  };
}
