import { afterAll, beforeAll, describe, expect, test } from "@jest/globals";
import { v7 as uuidv7 } from "uuid";
import { factsSchema, writeInPencil } from "#app/strip/said/setUp.server";
import { factsOf, readNarration, type Fact } from "#core/narration";
import { bikeSchema, packRecordSchema, riderSchema, setUpSchema, testSchema } from "#core/records";
import {
  findBike,
  listPacks,
  listRiders,
  listSetUps,
  saveBike,
  savePack,
  saveRider,
  saveSetUp,
} from "#db/bikes";
import { connect, type Connection } from "#db/client";
import { findTest, saveTest } from "#db/tests";

let connection: Connection;
const ids = {
  bike: uuidv7(),
  pack: uuidv7(),
  setUp: uuidv7(),
  rider: uuidv7(),
  test: uuidv7(),
  bare: uuidv7(),
};
const links = { bikeId: ids.bike, packId: ids.pack, secondPackId: null };

const factsIn = (text: string): readonly Fact[] => {
  const read = readNarration(text, { format: "plain" });
  if (!read.ok) throw new Error("not read");
  return factsOf(read.value.setUp, read.value.unit);
};
const line = async (id: string) => (await findTest(connection.db, id))!;
const bike = async () => (await findBike(connection.db, ids.bike))!;

beforeAll(async () => {
  connection = connect(process.env["TEST_DATABASE_URL"]!, 4);
  const { db } = connection;
  const pencil = ["chemistry"];
  await saveBike(db, ids.bike, bikeSchema.parse({ name: "Said bike", levels: ["low", "high"], massKg: 31 }));
  await savePack(
    db,
    ids.pack,
    ids.bike,
    packRecordSchema.parse({
      name: "Main",
      labelWh: 672,
      seriesCells: 13,
      pencil: [...pencil, "seriesCells"],
    }),
  );
  await saveSetUp(db, ids.setUp, ids.bike, setUpSchema.parse({ name: "as sold" }));
  await saveRider(db, ids.rider, riderSchema.parse({ name: "Orla" }));
  const value = testSchema.parse({ title: "Said over the towpath", day: "2026-10-20" });
  await saveTest(db, ids.test, { ...links, setUpId: ids.setUp, riderId: ids.rider }, value);
  await saveTest(db, ids.bare, { ...links, setUpId: null, riderId: null }, value);
});
afterAll(() => connection.close());

describe("facts that were said", () => {
  test("go on rider, set-up, pack and bike in pencil, a claim and a price too", async () => {
    const { db } = connection;
    const facts = factsIn(
      "It's a 52 volt battery. I weigh 210 pounds. Tyres are at 40 psi. It costs 1800 dollars. They claim 40 to 60 miles. Right, 3 miles done.",
    );
    const said = await writeInPencil(db, await line(ids.test), facts);
    expect(said.filter((sentence) => sentence.endsWith("in pencil."))).toHaveLength(5);
    const [rider] = (await listRiders(db)).filter(({ id }) => id === ids.rider);
    expect(rider!.massKg).toBeCloseTo(95.25, 1);
    expect(rider!.pencil).toContain("massKg");
    expect((await listSetUps(db, ids.bike))[0]!.pencil).toContain("pressurePa");
    // In pencil already: 13 cells in series gave way to 14.
    expect((await listPacks(db, ids.bike))[0]!.seriesCells).toBe(14);
    const held = await bike();
    expect(held.priceMinor).toBe(180_000);
    expect(held.claims).toHaveLength(1);
    expect(held.claims[0]!.lowM).toBeCloseTo(64_374, -1);
    expect(held.claims[0]!.highM).toBeCloseTo(96_561, -1);
    expect(held.pencil).toEqual(expect.arrayContaining(["priceMinor", "claims"]));
  });
  test("said anew replace what stands in pencil, and nothing that stands in ink", async () => {
    const { db } = connection;
    const said = await writeInPencil(
      db,
      await line(ids.test),
      factsIn("The bike weighs 80 pounds. They claim up to 55 miles. Right, 3 miles done."),
    );
    expect(said.join(" ")).toContain("Said bike has it in ink, which stays.");
    const held = await bike();
    expect(held.massKg).toBe(31);
    expect(held.claims).toHaveLength(1);
    expect(held.claims[0]!.highM).toBeCloseTo(88_514, -1);
  });
  test("without a record to go on are told where to name one", async () => {
    const said = await writeInPencil(
      connection.db,
      await line(ids.bare),
      factsIn("I weigh 190 pounds. Tyres are at 45 psi. Right, 3 miles done."),
    );
    expect([...said].sort()).toEqual([
      expect.stringContaining("the test names no rider"),
      expect.stringContaining("the test names no set-up"),
    ]);
  });
  test("that no such record can have are refused in its own words, and the rest is written", async () => {
    const { db } = connection;
    const odd: Fact = { record: "rider", field: "massKg", value: 4000, high: null, words: "4000 kilos" };
    const good: Fact = { record: "setUp", field: "pressurePa", value: 3e5, high: null, words: "3 bar" };
    const said = await writeInPencil(db, await line(ids.test), [odd, good]);
    expect(said.find((sentence) => sentence.includes("4000 kilos"))).toMatch(/rider weighs|check/i);
    expect((await listSetUps(db, ids.bike))[0]!.pressurePa).toBe(3e5);
  });
});

describe("facts as they are sent", () => {
  const fact = { record: "bike", field: "massKg", value: 20, words: "" };
  test.each([
    ["none at all", []],
    ["a field no fact is of", [{ ...fact, field: "owner" }]],
    ["a record of another sort", [{ ...fact, record: "desk" }]],
    ["a figure that is a text", [{ ...fact, value: "20" }]],
    ["no figure", [{ ...fact, value: Number.NaN }]],
    ["more than anybody says", Array.from({ length: 41 }, () => fact)],
  ])("%s: refused", (_, sent) => expect(factsSchema.safeParse(sent).success).toBe(false));
});
