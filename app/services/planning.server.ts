import { onDeskIfReady } from "#app/services/comparison/answer.server";
import type { KnownAsk } from "#app/services/comparison/known.server";
import { found, idOf } from "#app/ui/require.server";
import { NOTHING_KNOWN, PLAIN_COURSE, reckonPlan, type Known, type PlanRecord } from "#core/planning";
import { findBike, listInstruments, listPacks, listRiders, listSetUps } from "#db/bikes";
import type { Database } from "#db/client";
import { findCourse, findPlan, type PlanLine } from "#db/plans";

/** Everything a bike's plans choose from, and what its earlier tests tell. */
export async function loadDesk(db: Database, bikeId: string) {
  const [bike, packs, setUps, riders, instruments] = await Promise.all([
    findBike(db, bikeId),
    listPacks(db, bikeId, { archived: true }),
    listSetUps(db, bikeId, { archived: true }),
    listRiders(db, { archived: true }),
    listInstruments(db),
  ]);
  if (!bike) return null;
  return {
    bike,
    packs,
    setUps,
    riders,
    chargers: instruments.filter(({ kind }) => kind === "charger"),
  };
}

/** What the desk tells of a ride to come. It may come late: until then the ride is reckoned as if there were no test. */
export async function knownFor(db: Database, { bikeId, setUpId, riderId }: KnownAsk): Promise<Known> {
  const { value, pending } = await onDeskIfReady(db, "known", { bikeId, setUpId, riderId });
  return value ? { ...value, awaited: pending } : { ...NOTHING_KNOWN, awaited: Math.max(1, pending) };
}

export type Desk = NonNullable<Awaited<ReturnType<typeof loadDesk>>>;

/** A plan's line with all it is reckoned from; null when its pack is gone. */
export async function planRecord(db: Database, line: PlanLine, desk: Desk): Promise<PlanRecord | null> {
  const pack = desk.packs.find(({ id }) => id === line.packId);
  if (!pack) return null;
  const course = line.courseId ? await findCourse(db, line.courseId) : null;
  return {
    plan: line.plan,
    bike: desk.bike,
    pack,
    setUp: desk.setUps.find(({ id }) => id === line.setUpId) ?? null,
    rider: desk.riders.find(({ id }) => id === line.riderId) ?? null,
    course: course ?? PLAIN_COURSE,
    known: await knownFor(db, line),
  };
}

const GONE = "There is no such plan.";

/** A plan with its reckoning, for paper, phone and calendar. */
export async function sheetAt(db: Database, planId: string) {
  const line = found(await findPlan(db, idOf(planId, GONE)), GONE);
  const desk = found(await loadDesk(db, line.bikeId), GONE);
  const record = found(await planRecord(db, line, desk), GONE);
  return { line, record, results: reckonPlan(record) };
}
