import { describe, expect, test } from "@jest/globals";
import type { z } from "zod";
import {
  bikeSchema,
  packRecordSchema,
  riderSchema,
  setUpSchema,
  testRecordSchema,
  testSchema,
  trackSchema,
  zoneSchema,
} from "#core/records";

const bike = { name: "Reed", levels: ["low"] };
const pack = { name: "p", labelWh: 500 };
const test_ = { title: "t", day: "2026-10-18" };
const said = (schema: z.ZodType, value: unknown) => {
  const parsed = schema.safeParse(value);
  return parsed.success
    ? null
    : parsed.error.issues.map(({ path, message }) => `${path.join(".")}: ${message}`);
};

describe("defaults", () => {
  test("a bike needs a name and its levels", () => {
    expect(bikeSchema.parse(bike)).toEqual({
      ...bike,
      what: "",
      motor: "hub",
      throttle: false,
      percentStep: 1,
      counts: "charge",
      bars: 0,
      meterStepV: 0.1,
      sensor: "not noted",
      levelShares: [],
      barsAre: "bars",
      powerShown: "none",
      brakes: "",
      comfort: "",
      currency: "EUR",
      claims: [],
      reported: [],
      learned: [],
      pencil: [],
    });
  });
  test("a test is a part charge, pedalled on asphalt, until told otherwise", () => {
    expect(testSchema.parse(test_)).toMatchObject({
      school: "part charge",
      drive: "pedal",
      firstGround: "asphalt",
    });
  });
  test("a record needs no rider and no set-up", () => {
    expect(testRecordSchema.parse({ test: test_, bike, pack, rides: [{ entries: [] }] })).toMatchObject({
      rider: null,
      setUp: null,
      knownFactor: null,
      rides: [{ track: null }],
    });
  });
});

describe("what cannot be says what to type", () => {
  test.each([
    [
      bikeSchema,
      { ...bike, massKg: 23_000 },
      "massKg: A bike weighs 5 to 150 kg: check the unit, for example 26 kg or 57 lb.",
    ],
    [bikeSchema, { ...bike, levels: [] }, "levels: Name at least one assist level, for example: low, high."],
    [bikeSchema, { ...bike, motor: "steam" }, "motor: The motor is a hub or a mid motor."],
    [bikeSchema, { ...bike, bars: 60 }, "bars: A display has at most 40 bars."],
    [packRecordSchema, { name: "p", cycles: -1 }, "cycles: Cycles cannot be negative."],
    [packRecordSchema, { ...pack, labelWh: 2 }, "labelWh: A pack's label says 20 to 10,000 Wh."],
    [packRecordSchema, { ...pack, chemistry: "tin" }, "chemistry: Chemistry is NMC or LFP."],
    [riderSchema, { name: "M", massKg: 700 }, "massKg: A dressed rider weighs 20 to 250 kg: check the unit."],
    [
      setUpSchema,
      { name: "s", pressurePa: 35 },
      "pressurePa: Tyre pressure is 0.3 to 10 bar (4 to 145 psi): check the unit.",
    ],
    [setUpSchema, { name: "s", carriedKg: -1 }, "carriedKg: The load is 0 to 300 kg."],
    [testSchema, { ...test_, day: "18 October" }, "day: Type the day as 2026-10-18."],
    [testSchema, { ...test_, day: "2026-02-30" }, "day: Type the day as 2026-10-18."],
    [testSchema, { ...test_, airTempC: 71 }, "airTempC: Air temperature is -40 to 55 C (-40 to 131 F)."],
    [
      testSchema,
      { ...test_, firstGround: "lava" },
      "firstGround: Ground is one of asphalt, brick, fine gravel, loose gravel, grass, mud, snow.",
    ],
    [testSchema, { ...test_, title: " " }, "title: Type the test's name."],
    [
      trackSchema,
      { name: "", timeS: [1e9, 1e9 + 1], lat: [0], lon: [0, 0], eleM: [null, null] },
      ": The track's columns differ in length.",
    ],
    [testRecordSchema, { test: test_, bike, pack, rides: [] }, "rides: A test has at least one ride."],
  ] as const)("%#", (schema, value, sentence) => expect(said(schema, value)).toEqual([sentence]));
});

describe("a clock's zone", () => {
  test.each(["+00:00", "-05:30", "+14:00", "CET", "UTC"])("%s", (offset) =>
    expect(zoneSchema.safeParse(offset).success).toBe(true),
  );
  test.each(["1", "+1:00", "05:00", "+15:00", "+02:75", "Neverland"])("%s is refused", (offset) => {
    expect(said(zoneSchema, offset)).toEqual([
      ": Type the clock's time zone by its name, or how far it is from UTC, such as +01:00 or -05:00.",
    ]);
  });
});
