import { describe, expect, test } from "@jest/globals";
import {
  climbSchema,
  packRecordSchema,
  referenceSchema,
  sweepRowSchema,
  sweepSchema,
  testSchema,
} from "./index.ts";

const test_ = { title: "t", day: "2026-10-18" };
const climb = { hill: "tower", day: "2026-10-18", lengthM: 1000, gainM: 47, timeS: 184, energyWh: 31 };
const reference = { name: "Ours", carriedKg: 90, speedMps: 6 };
const row = { level: "low", ground: "brick", direction: "there", speedMps: 5, ampsLow: 4, ampsHigh: 5 };
const pack = { name: "p", labelWh: 500 };

describe("what is kept of conditions, sweeps, climbs and references", () => {
  test("what is left out has its usual value, or none", () => {
    expect(referenceSchema.parse(reference)).toMatchObject({
      ground: "asphalt",
      headwindMps: 0,
      gainMPerMi: 10,
      stopsPerMi: 1,
      tempC: 20,
      lightsOn: false,
      riderW: 60,
    });
    expect(climbSchema.parse(climb)).toMatchObject({ drive: "pedal", ground: "asphalt", effort: "easy" });
    expect(sweepSchema.parse({ title: "s", day: "2026-10-18" })).toMatchObject({ rows: [], open: [] });
    expect(testSchema.parse(test_)).not.toHaveProperty("effort");
  });
  test("calm has no direction; a wind from somewhere and a calm from nowhere are fine", () => {
    expect(testSchema.safeParse({ ...test_, windMps: 0, windFromDeg: 90 }).error?.issues).toMatchObject([
      { path: ["windMps"], message: expect.stringContaining("No wind comes from nowhere") },
    ]);
    expect(testSchema.safeParse({ ...test_, windMps: 0 }).success).toBe(true);
    expect(testSchema.safeParse({ ...test_, windMps: 3, windFromDeg: 90 }).success).toBe(true);
    expect(testSchema.safeParse({ ...test_, windFromDeg: 90 }).success).toBe(true);
  });
  test.each([
    [testSchema, { ...test_, riderW: 900 }, "A rider gives 0 to 600 W, for example 80 W."],
    [testSchema, { ...test_, bpm: 12 }, "A heart beats 40 to 220 times a minute."],
    [testSchema, { ...test_, effort: "heroic" }, "Effort is none, feather-light, easy, steady, hard."],
    [testSchema, { ...test_, stops: -1 }, "Stops are a whole number, for example 12."],
    [testSchema, { ...test_, altitudeM: 9000 }, "Height above the sea is -430 to 6000 m, for example 320 m."],
    [climbSchema, { ...climb, hill: " " }, "Type the hill's name."],
    [climbSchema, { ...climb, gainM: 0 }, "Type how far the hill rises, for example 47 m or 154 ft."],
    [climbSchema, { ...climb, timeS: 1 }, "Type the time it took, for example 3 min or 184 s."],
    [referenceSchema, { ...reference, speedMps: 40 }, "Type the speed held, for example 15 mph or 24 km/h."],
    [
      referenceSchema,
      { ...reference, carriedKg: 5 },
      "Rider and load weigh 30 to 400 kg together, for example 100 kg.",
    ],
    [referenceSchema, { ...reference, gainMPerMi: 900 }, "Climb is 0 to 200 m a mile, for example 10."],
    [sweepRowSchema, { ...row, level: "" }, "Choose the level, or throttle."],
    [sweepRowSchema, { ...row, packVolts: 2 }, "Volts under load are 5 to 200, for example 48.6."],
    [packRecordSchema, { ...pack, priceMinor: -1 }, "A price is a sum of money, for example 749 EUR."],
  ] as const)("%#: what cannot be says what to type", (schema, value, sentence) => {
    const parsed = schema.safeParse(value);
    expect(parsed.error?.issues.map(({ message }) => message)).toContain(sentence);
  });
});
