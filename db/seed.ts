import { sql } from "drizzle-orm";
import { saveBench, saveBike, saveInstrument, savePack, saveRider, saveSetUp } from "./bikes.ts";
import type { Database } from "./client.ts";
import { BIKES, RIDERS, type DeskBike } from "./demo/desk.ts";
import { CLIMBS, SWEEPS } from "./demo/field.ts";
import { idMaker } from "./demo/make.ts";
import { BENCHES, COURSES, INSTRUMENTS, PLANS } from "./demo/planned.ts";
import { SHEETS } from "./demo/sheets.ts";
import { demoTests } from "./demo/tests.ts";
import { saveClimb, saveSweep } from "./field.ts";
import { saveSheet } from "./sheets.ts";
import { appendEntries } from "./log.ts";
import { saveCourse, savePlan, tickPlan } from "./plans.ts";
import { bike, ride } from "./schema.ts";
import { saveTelemetry } from "./telemetry.ts";
import { saveTest } from "./tests.ts";
import { saveTrack } from "./tracks.ts";

type Ids = Map<string, string>;

async function seedBikes(db: Database, nextId: () => string): Promise<Ids> {
  const ids: Ids = new Map();
  const idFor = (name: string) => {
    const id = nextId();
    ids.set(name, id);
    return id;
  };
  for (const [key, rider] of Object.entries(RIDERS)) await saveRider(db, idFor(`rider/${key}`), rider);
  for (const [key, { bike: value, packs, setUps }] of Object.entries(BIKES as Record<string, DeskBike>)) {
    const bikeId = idFor(`bike/${key}`);
    await saveBike(db, bikeId, value);
    for (const [name, pack] of Object.entries(packs))
      await savePack(db, idFor(`pack/${key}/${name}`), bikeId, pack);
    for (const [name, setUp] of Object.entries(setUps))
      await saveSetUp(db, idFor(`setUp/${key}/${name}`), bikeId, setUp);
  }
  for (const instrument of INSTRUMENTS) await saveInstrument(db, nextId(), instrument);
  for (const { bike: key, pack, bench } of BENCHES)
    await saveBench(db, idFor("bench"), ids.get(`pack/${key}/${pack}`)!, bench);
  return ids;
}

const DAY_MS = 86_400_000;

/** Courses, and plans for the days after the one the desk is set. */
async function seedPlans(db: Database, nextId: () => string, idOf: (name: string) => string): Promise<void> {
  const courses = new Map<string, string>();
  for (const [key, course] of Object.entries(COURSES)) {
    courses.set(key, nextId());
    await saveCourse(db, courses.get(key)!, course);
  }
  for (const { bike: key, pack, setUp, rider, course, inDays, plan } of PLANS) {
    const links = {
      bikeId: idOf(`bike/${key}`),
      packId: idOf(`pack/${key}/${pack}`),
      setUpId: setUp && idOf(`setUp/${key}/${setUp}`),
      riderId: rider && idOf(`rider/${rider}`),
      courseId: courses.get(course)!,
      testId: null,
    };
    const day = new Date(Date.now() + inDays * DAY_MS).toISOString().slice(0, 10);
    const id = nextId();
    await savePlan(db, id, links, { ...plan, day });
    for (const line of plan.ticked) await tickPlan(db, id, line, true);
  }
}

/** Sweeps and climbs. */
async function seedField(db: Database, nextId: () => string, idOf: (name: string) => string): Promise<void> {
  const linksOf = ({ bike: key, pack, setUp, rider }: (typeof SWEEPS)[number] | (typeof CLIMBS)[number]) => ({
    bikeId: idOf(`bike/${key}`),
    packId: idOf(`pack/${key}/${pack}`),
    setUpId: idOf(`setUp/${key}/${setUp}`),
    riderId: idOf(`rider/${rider}`),
  });
  for (const each of SWEEPS) await saveSweep(db, nextId(), linksOf(each), each.sweep);
  for (const each of CLIMBS) await saveClimb(db, nextId(), linksOf(each), each.climb);
}

/** Pages that leave the desk. */
async function seedSheets(db: Database, nextId: () => string, idOf: (name: string) => string): Promise<void> {
  for (const { test, bench, pair, options } of SHEETS) {
    const of = { testId: test ? idOf(`test/${test}`) : null, benchId: bench ? idOf("bench") : null };
    const [a, b] = (pair ?? []).map((title) => idOf(`test/${title}`));
    await saveSheet(db, nextId(), of, { ...options, pair: a && b ? [a, b] : null });
  }
}

async function holdsBike(db: Database): Promise<boolean> {
  return (await db.select({ id: bike.id }).from(bike).limit(1)).length > 0;
}

/** Ids at the demo desk are others than those of a database that is the demo's alone: one database may hold both. */
const DEMO_VARIANT = "8001";
/** The lock under which bikes are invented: two that ask at once come one after the other. */
const SEEDING = 7_204_512;

/** Sets the demo desk, once, into a database opened at it; says whether it did. */
export const setDemoDesk = (db: Database): Promise<boolean> => seedOnce(db, idMaker(DEMO_VARIANT));

/** Sets the demo's bikes and tests where there is no bike yet, all or nothing; says whether it did. */
export async function seedOnce(database: Database, nextId = idMaker()): Promise<boolean> {
  if (await holdsBike(database)) return false;
  // Ridden before the transaction begins: the database ends one that asks nothing for long.
  const tests = demoTests(nextId);
  return database.transaction(async (tx) => {
    const db = tx as unknown as Database;
    await db.execute(sql`select pg_advisory_xact_lock(${SEEDING})`);
    if (await holdsBike(db)) return false;
    const ids = await seedBikes(db, nextId);
    const idOf = (name: string) => {
      const id = ids.get(name);
      if (!id) throw new Error(`the demo names ${name}, which it does not have`);
      return id;
    };
    for (const each of tests) {
      const testId = nextId();
      ids.set(`test/${each.test.title}`, testId);
      const links = {
        bikeId: idOf(`bike/${each.bike}`),
        packId: idOf(`pack/${each.bike}/${each.pack}`),
        secondPackId: each.secondPack ? idOf(`pack/${each.bike}/${each.secondPack}`) : null,
        setUpId: idOf(`setUp/${each.bike}/${each.setUp}`),
        riderId: each.rider && idOf(`rider/${each.rider}`),
      };
      await saveTest(db, testId, links, each.test);
      for (const [position, { name, made, track, telemetry }] of each.rides.entries()) {
        const rideId = nextId();
        await db.insert(ride).values({ id: rideId, testId, position, name });
        await appendEntries(db, rideId, made.entries);
        if (track) await saveTrack(db, nextId(), rideId, track);
        if (telemetry) await saveTelemetry(db, rideId, telemetry, "demo");
      }
    }
    await seedPlans(db, nextId, idOf);
    await seedField(db, nextId, idOf);
    await seedSheets(db, nextId, idOf);
    return true;
  });
}
