import { loadDesk, planRecord } from "#app/services/planning.server";
import { analysisOf } from "#app/services/analysis.server";
import { found, idOf } from "#app/ui/require.server";
import { foldLog, type Entry } from "#core/ride/log";
import { routeOf, type PlanRecord } from "#core/planning";
import type { TestResults } from "#core/analysis";
import { debrief, standsOf, truthOf, type Debrief, type Rehearsal } from "#core/simulator";
import type { Database } from "#db/client";
import { listEntries } from "#db/log";
import { listPlans } from "#db/plans";
import { findTest, listRides } from "#db/tests";

const GONE = "There is no such test.";
/** A rehearsal is over in about this long, s, at the clock it is given. */
const PRACTICE_S = 600;

/** The truth of a rehearsal that has ended; null before, so that nothing is given away. */
function debriefOf(
  rehearsal: Rehearsal,
  entries: readonly Entry[],
  results: TestResults | null,
): Debrief | null {
  const live = foldLog(entries);
  const end = live.find(({ body, struck }) => body.kind === "end" && !struck);
  if (!end || end.timeS === null || !results) return null;
  const endS = end.timeS - rehearsal.startMs / 1000;
  return debrief(results, truthOf(rehearsal, endS, standsOf(live, rehearsal.startMs)), entries);
}

/** The clock at which a plan takes about ten minutes. */
function practiceClock(plan: PlanRecord | null): number {
  const route = plan && routeOf(plan);
  if (!route?.ok) return 10;
  const { forecast, endM } = route.value;
  return Math.min(600, Math.max(1, Math.ceil(forecast.at(endM).timeS.mean / PRACTICE_S)));
}

/**
 * A ride with all its page needs. What a rehearsal hides stays here until it has ended.
 *
 * @param rideId which of the test's rides; the last when null
 */
export async function loadRide(db: Database, testId: string | undefined, rideId: string | null) {
  const { rehearsal, ...line } = found(await findTest(db, idOf(testId, GONE)), GONE);
  const rides = await listRides(db, line.id);
  const asked = rides.findIndex(({ id }) => id === rideId);
  const place = asked < 0 ? rides.length - 1 : asked;
  const ride = found(rides[place], "This test has no ride yet.");
  const [entries, results, desk, plans] = await Promise.all([
    listEntries(db, ride.id),
    analysisOf(db, { ...line, rehearsal }),
    loadDesk(db, line.bikeId),
    listPlans(db),
  ]);
  const { bike } = found(desk, GONE);
  const planLine = plans.find(({ id, testId: became }) =>
    rehearsal ? id === rehearsal.planId : became === line.id,
  );
  const plan = planLine && desk ? await planRecord(db, planLine, desk) : null;
  const reckoned = results.result?.ok ? results.result.value : null;
  return {
    line: { ...line, stamp: results.stamp || line.stamp },
    pending: results.pending ? 1 : 0,
    rides: rides.map(({ id, name }) => ({ id, name })),
    ride: { id: ride.id, name: ride.name, zone: ride.zone, place },
    bike,
    entries,
    results: reckoned,
    planId: planLine?.id ?? null,
    plan,
    rehearsal: rehearsal && {
      startMs: rehearsal.startMs,
      clock: practiceClock(plan),
      debrief: debriefOf(rehearsal, entries, reckoned),
    },
  };
}
export type LoadedRide = Awaited<ReturnType<typeof loadRide>>;
