import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { v7 as uuidv7 } from "uuid";
import { courseSchema } from "#core/route";
import { methodSchema, planSchema, templateNamed } from "#core/planning";
import {
  benchSchema,
  bikeSchema,
  instrumentNamed,
  instrumentSchema,
  packRecordSchema,
  setUpSchema,
  testSchema,
} from "#core/records";
import {
  findBike,
  listBenches,
  listBikes,
  listInstruments,
  listPacks,
  listSetUps,
  saveBench,
  saveBike,
  saveInstrument,
  savePack,
  saveSetUp,
} from "#db/bikes";
import { connect, type Connection } from "#db/client";
import { appendEntries } from "#db/log";
import { undo } from "#db/entities";
import { archiveEntity } from "#db/tidying";
import { listTrash } from "#db/trash";
import {
  findCourse,
  findPlan,
  listCourses,
  listMethods,
  listPlans,
  saveCourse,
  saveMethod,
  savePlan,
  tickPlan,
} from "#db/plans";
import { findTest, saveTest } from "#db/tests";
import { loadRecord } from "#db/record";

let connection: Connection;
const ids = { bike: uuidv7(), pack: uuidv7(), setUp: uuidv7(), course: uuidv7(), plan: uuidv7() };
const bike = bikeSchema.parse({
  name: "Kept bike",
  levels: ["low", "high"],
  levelShares: [0.4, 1],
  massKg: 24,
  claims: [{ mode: "low", lowM: 50_000, highM: 80_000, conditions: "level" }],
  priceMinor: 189_900,
});
const pack = packRecordSchema.parse({
  name: "Main",
  labelWh: 500,
  seriesCells: 13,
  firstUsedOn: "2024-01-01",
});
const bench = (on: string, wh: number) =>
  benchSchema.parse({ on, wh, sdWh: 6, fromFull: true, hours: 5, startTempC: 25 });

beforeAll(async () => {
  connection = connect(process.env["TEST_DATABASE_URL"]!, 4);
  await saveBike(connection.db, ids.bike, bike);
  await savePack(connection.db, ids.pack, ids.bike, pack);
});
afterAll(() => connection.close());

describe("what is put away", () => {
  test("is left out of lists, and comes back", async () => {
    const { db } = connection;
    const names = async (archived: boolean) => (await listBikes(db, { archived })).map(({ name }) => name);
    const change = await archiveEntity(db, "bike", ids.bike);
    expect(await names(false)).not.toContain("Kept bike");
    expect(await names(true)).toContain("Kept bike");
    expect((await findBike(db, ids.bike))!.archived).toBe(true);
    expect(await undo(db, change!)).toBe("yes");
    expect(await names(false)).toContain("Kept bike");
  });
  test("which is not there cannot be put away", async () =>
    expect(await archiveEntity(connection.db, "bike", uuidv7())).toBeNull());
});

describe("a change undone", () => {
  test("is as if it had not been, lists and spans too", async () => {
    const { db } = connection;
    const change = await saveBike(db, ids.bike, { ...bike, name: "Other", claims: [], levelShares: [] });
    expect((await findBike(db, ids.bike))!.name).toBe("Other");
    await undo(db, change);
    expect(await findBike(db, ids.bike)).toMatchObject({ ...bike, id: ids.bike, archived: false });
  });
  test("of something new puts it in the trash", async () => {
    const { db } = connection;
    const change = await saveSetUp(
      db,
      ids.setUp,
      ids.bike,
      setUpSchema.parse({ name: "slick", since: "2026-03-01" }),
    );
    expect(await listSetUps(db, ids.bike)).toHaveLength(1);
    await undo(db, change);
    expect(await listSetUps(db, ids.bike)).toHaveLength(0);
    expect(await listSetUps(db, ids.bike, { archived: true })).toHaveLength(0);
    const trashed = (await listTrash(db)).filter(({ id }) => id === ids.setUp);
    expect(trashed).toMatchObject([{ kind: "setUp", name: "slick", with: "" }]);
  });
  test("twice is once", async () => {
    const change = await saveBike(connection.db, ids.bike, { ...bike, name: "Third" });
    expect(await undo(connection.db, change)).toBe("yes");
    expect(await undo(connection.db, change)).toBe("late");
  });
});

describe("bench discharges", () => {
  const measured = async () => (await listPacks(connection.db, ids.bike))[0]!;
  test("the newest is the pack's measured capacity", async () => {
    const { db } = connection;
    await saveBench(db, uuidv7(), ids.pack, bench("2026-02-01", 470));
    await saveBench(db, uuidv7(), ids.pack, bench("2025-02-01", 488));
    expect(await measured()).toMatchObject({ measuredWh: 470, measuredOn: "2026-02-01" });
    expect((await listBenches(db, ids.pack)).map(({ on }) => on)).toEqual(["2026-02-01", "2025-02-01"]);
  });
  test("one done in the cool is brought to 25 C", async () => {
    const cool = { ...bench("2026-03-01", 450), startTempC: 10 };
    await saveBench(connection.db, uuidv7(), ids.pack, cool);
    const { measuredWh, measuredBefore } = await measured();
    expect(measuredWh!).toBeGreaterThan(465);
    // A test counts with what was known before it: what came later rewrites nothing.
    expect(measuredBefore.map(({ on, wh }) => [on, wh])).toEqual([
      ["2025-02-01", 488],
      ["2026-02-01", 470],
    ]);
  });
  test("and a form that knows only the latest keeps the others", async () => {
    const { id: _, bikeId: __, archived: ___, version: ____, ...now } = await measured();
    await savePack(connection.db, ids.pack, ids.bike, { ...now, measuredBefore: [], cycles: 12 });
    expect((await measured()).measuredBefore).toHaveLength(2);
  });
});

test("a meter's own error is part of a test's record and of its stamp", async () => {
  const { db } = connection;
  const [testId, rideId] = [uuidv7(), uuidv7()];
  const links = { bikeId: ids.bike, packId: ids.pack, secondPackId: null, setUpId: null, riderId: null };
  await saveTest(db, testId, links, testSchema.parse({ title: "metered", day: "2026-10-18" }), {
    firstRide: { id: rideId, zone: "+00:00" },
  });
  await appendEntries(db, rideId, [
    {
      id: uuidv7(),
      seq: 0,
      at: null,
      supersedes: null,
      body: { kind: "checkIn", counterWh: 12, meter: "kept meter" },
    },
  ]);
  const before = (await findTest(db, testId))!.stamp;
  const id = uuidv7();
  await saveInstrument(db, id, instrumentSchema.parse({ name: "kept meter", gainSd: 0.004 }));
  expect((await findTest(db, testId))!.stamp).not.toBe(before);
  const record = (await loadRecord(db, testId))!;
  expect(record.instruments.find(({ name }) => name === "kept meter")).toMatchObject({ gainSd: 0.004 });
  await saveInstrument(db, id, instrumentSchema.parse({ name: "blue meter", gainSd: 0.004 }));
  const renamed = (await loadRecord(db, testId))!;
  expect(instrumentNamed(renamed.instruments, "kept meter")).toMatchObject({ name: "blue meter" });
  const stamp = (await findTest(db, testId))!.stamp;
  await saveInstrument(db, id, instrumentSchema.parse({ name: "blue meter", gainSd: 0.02 }));
  expect((await findTest(db, testId))!.stamp).not.toBe(stamp);
  await saveInstrument(db, id, instrumentSchema.parse({ name: "kept meter", gainSd: 0.02 }));
  expect((await listInstruments(db)).find((each) => each.id === id)?.formerNames).toEqual(["blue meter"]);
  await archiveEntity(db, "instrument", id);
  expect((await listInstruments(db)).map(({ name }) => name)).not.toContain("kept meter");
});

describe("courses, methods and plans", () => {
  const course = courseSchema.parse({
    name: "Kept loop",
    legs: [{ distanceM: 8000, ground: "brick" }],
    places: [{ name: "tap", atM: 3000, kind: "water" }],
  });
  const plan = planSchema.parse({
    title: "kept plan",
    question: "claim",
    method: templateNamed("Part charge")!.method,
    day: "2026-12-01",
    ticked: ["Brakes checked"],
  });
  const links = {
    bikeId: ids.bike,
    packId: ids.pack,
    setUpId: null,
    riderId: null,
    courseId: ids.course,
    testId: null,
  };
  test("come back as they went in", async () => {
    const { db } = connection;
    await saveCourse(db, ids.course, course);
    expect(await findCourse(db, ids.course)).toMatchObject({ ...course, id: ids.course, archived: false });
    await savePlan(db, ids.plan, links, plan);
    await tickPlan(db, ids.plan, "Brakes checked", true);
    expect(await findPlan(db, ids.plan)).toMatchObject({
      plan,
      courseName: "Kept loop",
      bikeName: "Kept bike",
      archived: false,
    });
  });
  test("a plan that is put away is found by its address only", async () => {
    const { db } = connection;
    const change = await archiveEntity(db, "plan", ids.plan);
    expect((await listPlans(db)).map(({ id }) => id)).not.toContain(ids.plan);
    expect(await findPlan(db, ids.plan)).toMatchObject({ archived: true });
    await undo(db, change!);
    expect((await listPlans(db)).map(({ id }) => id)).toContain(ids.plan);
  });
  test("own methods are listed, and courses by name", async () => {
    const { db } = connection;
    const id = uuidv7();
    await saveMethod(db, id, methodSchema.parse({ name: "Own", school: "part charge" }));
    expect((await listMethods(db)).map(({ name }) => name)).toContain("Own");
    await saveCourse(db, uuidv7(), { ...course, name: "Another" });
    const names = (await listCourses(db)).map(({ name }) => name);
    expect([...names].sort((a, b) => a.localeCompare(b))).toEqual(names);
  });
});
