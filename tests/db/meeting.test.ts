import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { v7 as uuidv7 } from "uuid";
import { courseSchema } from "#core/route";
import { planSchema, templateNamed } from "#core/planning";
import { bikeSchema, instrumentSchema, packRecordSchema, testSchema } from "#core/records";
import { findBike, saveBike, saveInstrument, savePack } from "#db/bikes";
import { connect, type Connection, type Database } from "#db/client";
import { StaleSave, undo, versionMade } from "#db/entities";
import { appendEntries, listEntries } from "#db/log";
import { findPlan, saveCourse, savePlan, startPlan, tickPlan } from "#db/plans";
import { addRide, findTest, listRides, listTests, saveTest } from "#db/tests";

let connection: Connection;
const ids = { bike: uuidv7(), pack: uuidv7(), course: uuidv7(), plan: uuidv7() };
const bike = bikeSchema.parse({ name: "Met bike", levels: ["low"], massKg: 24 });
const links = { bikeId: ids.bike, packId: ids.pack, secondPackId: null, setUpId: null, riderId: null };
const value = testSchema.parse({ title: "met", day: "2026-10-18" });
const newTest = async (title = "met") => {
  const [id, ride] = [uuidv7(), uuidv7()];
  await saveTest(connection.db, id, links, { ...value, title }, { firstRide: { id: ride, zone: "+00:00" } });
  return { id, ride };
};
const plan = planSchema.parse({
  title: "met plan",
  question: "claim",
  method: templateNamed("Part charge")!.method,
  day: "2026-12-01",
});
const planLinks = {
  bikeId: ids.bike,
  packId: ids.pack,
  setUpId: null,
  riderId: null,
  courseId: ids.course,
  testId: null,
};

beforeAll(async () => {
  connection = connect(process.env["TEST_DATABASE_URL"]!, 8);
  const { db } = connection;
  await saveBike(db, ids.bike, bike);
  await savePack(db, ids.pack, ids.bike, packRecordSchema.parse({ name: "p", labelWh: 500 }));
  await saveCourse(db, ids.course, courseSchema.parse({ name: "met loop", legs: [{ distanceM: 8000 }] }));
  await savePlan(db, ids.plan, planLinks, plan);
});
afterAll(() => connection.close());

describe("two saves that meet", () => {
  test("the later one names a version that is gone: it writes nothing and says which there is", async () => {
    const { db } = connection;
    await saveBike(db, ids.bike, { ...bike, massKg: 25 }, 1);
    const stale = await saveBike(db, ids.bike, { ...bike, massKg: 26 }, 1).catch((error: unknown) => error);
    expect(stale).toBeInstanceOf(StaleSave);
    expect((stale as StaleSave).version).toBe(2);
    expect(await findBike(db, ids.bike)).toMatchObject({ massKg: 25, version: 2 });
    await saveBike(db, ids.bike, { ...bike, massKg: 26 }, 2);
  });
  test("a form never meets itself: its own saves since are no other's change, in whatever order answers come", async () => {
    const { db } = connection;
    const id = uuidv7();
    await saveBike(db, id, { ...bike, massKg: 20 });
    const [first, second, third, fourth] = [uuidv7(), uuidv7(), uuidv7(), uuidv7()];
    const save = (massKg: number, saveId: string, own: readonly string[]) =>
      saveBike(db, id, { ...bike, massKg }, { version: 1, saveId, own });
    await save(21, first, []);
    // The page has not had that answer yet: it still names version 1.
    await save(22, second, [first]);
    await save(23, third, [first, second]);
    expect(await findBike(db, id)).toMatchObject({ massKg: 23, version: 4 });
    // Sent again, as when its answer was lost, a save is carried out once.
    await save(22, second, [first]);
    expect(await findBike(db, id)).toMatchObject({ massKg: 23, version: 4 });
    // Somebody else's change in between is met.
    await saveBike(db, id, { ...bike, massKg: 30 });
    const stale = await save(24, fourth, [first, second, third]).catch((error: unknown) => error);
    expect(stale).toBeInstanceOf(StaleSave);
    expect(await findBike(db, id)).toMatchObject({ massKg: 30, version: 5 });
  });
  test("a save tells the version it made; none when it was undone", async () => {
    const { db } = connection;
    const { version } = (await findBike(db, ids.bike))!;
    const change = await saveBike(db, ids.bike, { ...bike, massKg: 27 }, version);
    expect(await versionMade(db, change)).toBe(version + 1);
    expect(await undo(db, change)).toBe("yes");
    expect(await versionMade(db, change)).toBeNull();
  });
  test("at the same moment, one of them wins", async () => {
    const { db } = connection;
    const { version } = (await findBike(db, ids.bike))!;
    const came = await Promise.allSettled(
      [27, 28, 29, 30].map((massKg) => saveBike(db, ids.bike, { ...bike, massKg }, version)),
    );
    expect(came.filter(({ status }) => status === "fulfilled")).toHaveLength(1);
  });
});

describe("undoing", () => {
  test("is refused after a later change, which stays", async () => {
    const { db } = connection;
    const first = await saveBike(db, ids.bike, { ...bike, name: "First" });
    const second = await saveBike(db, ids.bike, { ...bike, name: "Second" });
    expect(await undo(db, first)).toBe("changed");
    expect((await findBike(db, ids.bike))!.name).toBe("Second");
    expect(await undo(db, second)).toBe("yes");
    expect((await findBike(db, ids.bike))!.name).toBe("First");
  });
  test("takes back a test's conditions like anything else", async () => {
    const { db } = connection;
    const { id } = await newTest();
    const changed = await saveTest(db, id, links, { ...value, airTempC: -3, wind: "stiff" });
    expect((await findTest(db, id))!.test).toMatchObject({ airTempC: -3 });
    expect(await undo(db, changed)).toBe("yes");
    expect((await findTest(db, id))!.test).toMatchObject({ wind: "" });
    expect((await findTest(db, id))!.test.airTempC).toBeUndefined();
  });
});

describe("a plan", () => {
  test("starts one test, however often it is pressed at once", async () => {
    const { db } = connection;
    const press = () =>
      startPlan(db, ids.plan, async (tx: Database) => {
        const id = uuidv7();
        await saveTest(tx, id, links, { ...value, title: "started once" });
        return id;
      });
    const started = await Promise.all(Array.from({ length: 10 }, press));
    expect(new Set(started).size).toBe(1);
    expect((await listTests(db)).filter(({ test: { title } }) => title === "started once")).toHaveLength(1);
    expect((await findPlan(db, ids.plan))!.testId).toBe(started[0]);
  });
  test("two phones ticking at once lose no tick, and no tick is a change of the plan", async () => {
    const { db } = connection;
    const { version } = (await findPlan(db, ids.plan))!;
    const lines = [...plan.method.ready, ...plan.method.hold].slice(0, 6);
    await Promise.all(lines.map((line) => tickPlan(db, ids.plan, line, true)));
    await tickPlan(db, ids.plan, lines[0]!, true);
    await tickPlan(db, ids.plan, lines[1]!, false);
    const found = (await findPlan(db, ids.plan))!;
    expect(new Set(found.plan.ticked)).toEqual(new Set(lines.filter((_, i) => i !== 1)));
    expect(found.version).toBe(version);
  });
});

describe("stamps of tests", () => {
  test("move only for what the test rests on", async () => {
    const { db } = connection;
    const [metered, plain] = [await newTest("metered"), await newTest("plain")];
    const instrument = instrumentSchema.parse({ name: "met meter", gainSd: 0.01 });
    await appendEntries(db, metered.ride, [
      {
        id: uuidv7(),
        seq: 0,
        at: null,
        supersedes: null,
        body: { kind: "checkIn", counterWh: 9, meter: "met meter" },
      },
    ]);
    const stamps = async () =>
      Promise.all([metered, plain].map(async ({ id }) => (await findTest(db, id))!.stamp));
    const before = await stamps();
    const id = uuidv7();
    await saveInstrument(db, id, instrument);
    const after = await stamps();
    expect(after[0]).not.toBe(before[0]);
    expect(after[1]).toBe(before[1]);
    await saveInstrument(db, id, instrument);
    expect(await stamps()).toEqual(after);
    await saveBike(db, ids.bike, { ...bike, massKg: 31 });
    const moved = await stamps();
    expect(moved[0]).not.toBe(after[0]);
    expect(moved[1]).not.toBe(after[1]);
  });
  test("changes that meet on the same tests all go through", async () => {
    const { db } = connection;
    for (let i = 0; i < 6; i += 1) await newTest(`met ${i}`);
    const pack = packRecordSchema.parse({ name: "p", labelWh: 500 });
    const saves = Array.from({ length: 24 }, (_, i) =>
      i % 2
        ? saveBike(db, ids.bike, { ...bike, massKg: 20 + i / 10 })
        : savePack(db, ids.pack, ids.bike, { ...pack, labelWh: 500 + i }),
    );
    expect((await Promise.allSettled(saves)).filter(({ status }) => status === "rejected")).toEqual([]);
  });
});

describe("conditions and check-ins that meet", () => {
  test("wait for one another: none is asked to come back", async () => {
    const { db } = connection;
    const { id, ride } = await newTest("meets check-ins");
    const note = (text: string) => ({
      id: uuidv7(),
      seq: 0,
      at: null,
      supersedes: null,
      body: { kind: "note" as const, note: text },
    });
    // All eight connections are at work in each round, and none waits long for its turn, however slow the machine.
    for (let round = 0; round < 10; round += 1)
      await Promise.all(
        [0, 1, 2, 3].flatMap((each) => {
          const i = round * 4 + each;
          return [
            saveTest(db, id, links, { ...value, title: `meets check-ins ${i}` }),
            appendEntries(db, ride, [note(`first ${i}`), note(`second ${i}`)]),
            addRide(db, uuidv7(), id, `another ${i}`),
            saveBike(db, ids.bike, { ...bike, massKg: 20 + i / 10 }),
          ];
        }),
      );
    expect(await listRides(db, id)).toHaveLength(41);
    expect(await listEntries(db, ride)).toHaveLength(80);
  });
});
