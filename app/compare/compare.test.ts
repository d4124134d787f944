import { describe, expect, test } from "@jest/globals";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import { sweepSchema } from "#core/records";
import { REFERENCES } from "#core/bike";
import { readAsk } from "../services/comparison/ask.ts";
import { climbForm, climbTexts } from "./climbForm.ts";
import { referenceForm, referenceTexts } from "./referenceForm.ts";
import { emptyGrid, gridOf, readSweepForm, speedsTyped } from "./sweepForm.ts";

describe("the standings' address", () => {
  const read = (text: string) => readAsk(new URLSearchParams(text), "whPerMi");
  test("what it does not name is as shown first", () =>
    expect(read("")).toEqual({
      measure: "whPerMi",
      level: "whole ride",
      ground: null,
      by: "test",
      commonWh: 500,
      drive: null,
      bikeId: null,
      chosen: [],
      all: false,
    }));
  test("holds measure, part, rows, pack and two chosen", () =>
    expect(
      read(
        "show=rangeCommon&level=throttle&ground=brick&by=set-up&pack=750+Wh&test=a&test=b&test=c&rows=all",
      ),
    ).toMatchObject({
      measure: "rangeCommon",
      level: "throttle",
      ground: "brick",
      by: "set-up",
      commonWh: 750,
      chosen: ["a", "b"],
      all: true,
    }));
  test.each(["show=nonsense", "ground=lava", "pack=none", "pack=-4", "pack=9999999", "by=moon"])(
    "%s counts as not given",
    (text) => expect(read(text)).toEqual(read("")),
  );
});

describe("a sweep's form", () => {
  const before = sweepSchema.parse({ title: "s", day: "2026-10-18" });
  const form = (
    rows: readonly Readonly<Record<string, string>>[],
    rest: Readonly<Record<string, string>> = {},
  ) => {
    const data = new FormData();
    rows.forEach((row, i) => {
      const usual = {
        level: "throttle",
        ground: "brick",
        direction: "there",
        speed: "",
        amps: "",
        volts: "",
      };
      for (const [name, text] of Object.entries({ ...usual, ...row })) data.set(`rows.${i}.${name}`, text);
    });
    for (const [name, text] of Object.entries(rest)) data.set(name, text);
    return data;
  };
  const read = (...args: Parameters<typeof form>) => readSweepForm(form(...args), before, "imperial");
  test("reads speed in the reader's unit, amps as they flicker, volts where they are", () => {
    const { sweep, problems } = read([
      { speed: "14.8", amps: "5.5-6.5", volts: "49.2" },
      { speed: "24 km/h", amps: "6 A" },
    ]);
    expect(problems).toEqual({});
    expect(sweep.rows).toMatchObject([
      { speedMps: 14.8 * MPS_PER_MPH, ampsLow: 5.5, ampsHigh: 6.5, packVolts: 49.2 },
      { speedMps: 24 * (1 / 3.6), ampsLow: 6, ampsHigh: 6 },
    ]);
  });
  test("what cannot be read stays as typed at its place, with a sentence", () => {
    const { sweep, problems } = read([
      { speed: "fast", amps: "6" },
      { speed: "15", amps: "7-6" },
      { speed: "15", amps: "5-6", volts: "lots" },
      { speed: "15", amps: "5-6" },
      { speed: "", amps: "" },
      { level: "", speed: "", amps: "" },
    ]);
    expect(Object.keys(problems)).toEqual(["rows.0.speed", "rows.1.amps", "rows.2.volts"]);
    expect(problems["rows.1.amps"]).toBe("Amps run from the low to the high: type 5.5-6.5.");
    expect(sweep.rows).toHaveLength(1);
    expect(sweep.open.map(({ at, speed }) => [at, speed])).toEqual([
      [0, "fast"],
      [1, "15"],
      [2, "15"],
      [4, ""],
    ]);
    expect(gridOf(sweep, "imperial").map(({ amps }) => amps)).toEqual(["6", "7-6", "5-6", "5-6", ""]);
  });
  test("a grid written and read again is the same", () => {
    const { sweep } = read([{ speed: "14.8", amps: "5.5-6.5", volts: "49.2" }, { speed: "slow" }]);
    for (const system of ["imperial", "metric"] as const) {
      const again = readSweepForm(form(gridOf(sweep, system) as never), before, system);
      expect(again.sweep.open).toEqual(sweep.open);
      expect(again.sweep.rows[0]!.speedMps).toBeCloseTo(sweep.rows[0]!.speedMps, 2);
    }
  });
  test("a temperature or a name that cannot be keeps the sweep as it was", () => {
    expect(read([], { airTempC: "warm" }).problems).toHaveProperty("airTempC");
    const nameless = read([{ speed: "15", amps: "5" }], { title: " " });
    expect(nameless.problems).toHaveProperty("title");
    expect(nameless.sweep).toBe(before);
  });
  test("a grid is laid out by level, ground and speed, there and back, with the speeds filled in", () => {
    const grid = emptyGrid(["low"], ["asphalt", "brick"], speedsTyped("10, 15 and 20 mph"));
    expect(grid).toHaveLength(12);
    expect(grid.slice(0, 4).map(({ speed, direction }) => [speed, direction])).toEqual([
      ["10 mph", "there"],
      ["10 mph", "back"],
      ["15 mph", "there"],
      ["15 mph", "back"],
    ]);
    expect(speedsTyped("")).toEqual([""]);
    expect(speedsTyped("12")).toEqual(["12"]);
    expect(speedsTyped("16 km/h; 24 km/h")).toEqual(["16 km/h", "24 km/h"]);
  });
  test("an empty grid has each level on each ground, there and back", () => {
    const grid = emptyGrid(["low", "throttle"], ["asphalt", "mud"]);
    expect(grid).toHaveLength(8);
    expect(grid.map(({ at }) => at)).toEqual([0, 1, 2, 3, 4, 5, 6, 7]);
    expect(grid[0]).toMatchObject({ level: "low", ground: "asphalt", direction: "there" });
  });
});

describe("a climb's form", () => {
  test("written and read again is the same climb, in either system", () => {
    const climb = {
      hill: "tower",
      day: "2026-10-18",
      lengthM: METRES_PER_MILE,
      gainM: 47,
      timeS: 184,
      drive: "throttle" as const,
      level: "",
      ground: "brick" as const,
      entrySpeedMps: 5,
      energyWh: 31,
      effort: "easy" as const,
      airTempC: 12,
      note: "",
      pencil: [],
    };
    for (const system of ["imperial", "metric"] as const) {
      const parsed = climbForm(system).safeParse(climbTexts(climb, system));
      expect(parsed.success).toBe(true);
      const { lengthM, gainM, timeS, hill } = parsed.data!;
      expect([hill, timeS]).toEqual(["tower", 184]);
      expect(lengthM).toBeCloseTo(METRES_PER_MILE, -1);
      expect(gainM).toBeCloseTo(47, 1);
    }
  });
});

describe("a reference's form", () => {
  test("each that ships can be written out and read back", () => {
    for (const reference of REFERENCES) {
      const parsed = referenceForm("imperial").safeParse(referenceTexts(reference, "imperial"));
      expect(parsed.data).toMatchObject({ name: reference.name, lightsOn: reference.conditions.lightsOn });
      expect(parsed.data!.speedMps).toBeCloseTo(reference.conditions.speedMps, 2);
      expect(parsed.data!.carriedKg).toBeCloseTo(100, 0);
    }
  });
  test("without a rider or a speed it says what to type", () => {
    const parsed = referenceForm("imperial").safeParse({ name: "Ours" });
    expect(parsed.error!.issues.map(({ message }) => message)).toEqual(
      expect.arrayContaining([
        "Rider and load weigh 30 to 400 kg together, for example 100 kg.",
        "Type the speed held, for example 15 mph or 24 km/h.",
      ]),
    );
  });
});
