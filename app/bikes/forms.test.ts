import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import type { System } from "#core/base";
import { bikeSchema, packRecordSchema, riderSchema, setUpSchema } from "#core/records";
import { BIKES, RIDERS, type DeskBike } from "#db/demo/desk";
import {
  benchForm,
  bikeForm,
  bikeTexts,
  instrumentForm,
  NEW_BIKE,
  NEW_PACK,
  NEW_SET_UP,
  packForm,
  packTexts,
  riderForm,
  riderTexts,
  setUpForm,
  setUpTexts,
} from "./forms";

const system = fc.constantFrom<System>("imperial", "metric");
const desk = Object.values(BIKES as Record<string, DeskBike>);

const given = (value: object) =>
  Object.keys(value)
    .filter((key) => (value as never)[key] !== undefined)
    .sort();

/** Numbers compared to a thousandth, however deep, the rest exactly: form texts keep three decimals. */
function expectAlike(got: unknown, wanted: unknown): void {
  if (typeof wanted === "number")
    expect(Math.abs((got as number) - wanted)).toBeLessThanOrEqual(0.002 * Math.max(1, Math.abs(wanted)));
  else if (typeof wanted === "object" && wanted !== null) {
    expect(given(got as object)).toEqual(given(wanted));
    for (const key of given(wanted)) expectAlike((got as never)[key], (wanted as never)[key]);
  } else expect(got).toEqual(wanted);
}

describe("what a form shows reads back as the record it came from, in either system", () => {
  test("bikes", () => {
    fc.assert(
      fc.property(fc.constantFrom(...desk), system, ({ bike }, units) => {
        expectAlike(
          bikeForm(units).parse({ ...bikeTexts(bike, units), pencil: [...bike.pencil] }),
          bikeSchema.parse(bike),
        );
      }),
    );
  });
  test("packs", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...desk.flatMap(({ packs }) => Object.values(packs))),
        system,
        (pack, units) => {
          expectAlike(
            packForm(units).parse({ ...packTexts(pack, units), pencil: [...pack.pencil] }),
            packRecordSchema.parse(pack),
          );
        },
      ),
    );
  });
  test("set-ups", () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...desk.flatMap(({ setUps }) => Object.values(setUps))),
        system,
        (setUp, units) => {
          expectAlike(
            setUpForm(units).parse({ ...setUpTexts(setUp, units), pencil: [...setUp.pencil] }),
            setUpSchema.parse(setUp),
          );
        },
      ),
    );
  });
  test("riders", () => {
    fc.assert(
      fc.property(fc.constantFrom(...Object.values(RIDERS)), system, (rider, units) => {
        expectAlike(riderForm(units).parse(riderTexts(rider, units)), riderSchema.parse(rider));
      }),
    );
  });
});

describe("a bike's form", () => {
  const texts = { ...bikeTexts(NEW_BIKE, "imperial"), name: "Reed" };
  const read = (more: Record<string, unknown>) => bikeForm("imperial").safeParse({ ...texts, ...more });
  const sentence = (more: Record<string, unknown>) => {
    const parsed = read(more);
    return parsed.success ? null : [parsed.error.issues[0]!.path.join("."), parsed.error.issues[0]!.message];
  };
  test("a name is enough: the rest has defaults", () => expect(read({})).toMatchObject({ success: true }));
  test("what stays in pencil is sent by name, once or often", () => {
    expect(read({ pencil: "motor" })).toMatchObject({ data: { pencil: ["motor"] } });
    expect(read({ pencil: ["motor", "bars"] })).toMatchObject({ data: { pencil: ["motor", "bars"] } });
    expect(read({})).toMatchObject({ data: { pencil: [] } });
  });
  test.each([
    [{ name: " " }, ["name", "Type the bike's name."]],
    [
      { massKg: "3 kg" },
      ["massKg", "A bike weighs 5 to 150 kg: check the unit, for example 26 kg or 57 lb."],
    ],
    [{ levels: " , " }, ["levels", "Name at least one assist level, for example: low, high."]],
    [{ bars: "4.5" }, ["bars", "Bars are whole."]],
    [
      { claims: "eco: 60 to 40 mi" },
      ["claims", "“eco: 60 to 40 mi”: its upper end lies below its lower end. Swap them."],
    ],
    [
      { claims: "far enough" },
      ["claims", "“far enough” is not a claim: type one a line, such as “eco: 40 to 60 mi, level road”."],
    ],
    [
      { massKg: "23" },
      [
        "massKg",
        "23 lb is light for an e-bike. 23 kg? Type the unit with it: “23 kg”, or “23 lb” if it is so.",
      ],
    ],
    [
      { levels: "low 30 %, high" },
      ["levels", "Give a share of power for every level or for none, for example: low 25 %, high 100 %."],
    ],
    [
      { massKg: "50 lb", massWithoutPackKg: "57 lb" },
      [
        "massWithoutPackKg",
        "Without its pack the bike must weigh less than with it: check both, and their units.",
      ],
    ],
    [{ priceMinor: "dear" }, ["priceMinor", "“dear” is not a price: type for example 1899 EUR."]],
    [{ percentStep: "two" }, ["percentStep", "“two” is not a number: type for example 3 or 0.5."]],
    [
      { wheelCircumferenceM: "2180 m" },
      ["wheelCircumferenceM", "A wheel measures 500 to 3000 mm round, for example 2180 mm."],
    ],
  ])("%j is answered beside its field", (more, said) => expect(sentence(more)).toEqual(said));
});

test.each([
  ["40 to 60 mi", { mode: "", lowM: 64_374, highM: 96_561, conditions: "" }],
  ["tour: 55 km, 75 kg rider", { mode: "tour", lowM: 55_000, highM: 55_000, conditions: "75 kg rider" }],
  ["eco: 30-45", { mode: "eco", lowM: 48_280, highM: 72_420, conditions: "" }],
])("the claim %j is read", (text, claim) => {
  const parsed = bikeForm("imperial").parse({
    ...bikeTexts(NEW_BIKE, "imperial"),
    name: "Reed",
    claims: text,
  });
  expectAlike(parsed.claims, [claim]);
});

test.each([
  ["up to 55 mi", 55],
  ["55+ mi", 55],
  ["55 mi+", 55],
  ["upwards of 55 mi, level road", 55],
  ["about 90 km", 55.92],
])("the claim %j is read as %p mi", (text, miles) => {
  const [claim] = bikeForm("imperial").parse({
    ...bikeTexts(NEW_BIKE, "imperial"),
    name: "Reed",
    claims: text,
  }).claims;
  expect(claim!.highM / 1609.344).toBeCloseTo(miles, 1);
});

test("what others found is read a line each, and written back alike", () => {
  const texts = { ...bikeTexts(NEW_BIKE, "imperial"), name: "Reed" };
  const typed =
    "Quay notes: 31 mi on 460 Wh\nthrottle 22 mi on 480 Wh\n50 km on 0.4 kWh\nHill days: 1290 m on 640 Wh\n4230 ft on 640 Wh";
  const parsed = bikeForm("imperial").parse({ ...texts, reported: typed });
  expect(parsed.reported.map(({ by, drive, of, energyWh }) => [by, drive, of, energyWh])).toEqual([
    ["Quay notes", "pedal", "range", 460],
    ["", "throttle", "range", 480],
    ["", "pedal", "range", 400],
    ["Hill days", "pedal", "climb", 640],
    ["", "pedal", "climb", 640],
  ]);
  expect(parsed.reported[3]!.distanceM).toBe(1290);
  expect(parsed.reported[4]!.distanceM).toBeCloseTo(1289.3, 1);
  const again = bikeTexts({ ...NEW_BIKE, reported: parsed.reported }, "imperial").reported;
  expectAlike(bikeForm("imperial").parse({ ...texts, reported: again }).reported, parsed.reported);
  const refused = bikeForm("imperial").safeParse({ ...texts, reported: "far enough" });
  expect(refused.error?.issues[0]).toMatchObject({
    path: ["reported"],
    message: expect.stringContaining("31 mi on 460 Wh"),
  });
});

test("a light weight with its unit is taken as typed", () => {
  const parsed = bikeForm("imperial").parse({
    ...bikeTexts(NEW_BIKE, "imperial"),
    name: "Reed",
    massKg: "23 lb",
  });
  expect(parsed.massKg).toBeCloseTo(10.43, 2);
});

describe("a bench test's form", () => {
  const typed = { on: "2026-02-20", fromFull: "on", hours: "5.5", wh: "583", startTempC: "19" };
  const read = (more: Record<string, string>) => benchForm("metric").safeParse({ ...typed, ...more });
  test("hours are the bare unit", () => expect(read({})).toMatchObject({ data: { hours: 5.5, wh: 583 } }));
  test("it only starts from full", () => {
    const parsed = read({ fromFull: "" });
    expect(!parsed.success && parsed.error.issues[0]!.message).toContain("until the charger is green");
  });
  test("nothing gets cooler than it was", () => expect(read({ highestTempC: "12" }).success).toBe(false));
  test("not in the frost", () => expect(read({ startTempC: "-4" }).success).toBe(false));
});

test("an instrument's shares are percentages", () =>
  expect(
    instrumentForm("metric").parse({
      name: "shed",
      kind: "charger",
      eta: "87 %",
      etaSd: "3.92",
      amps: "3 A",
    }),
  ).toMatchObject({ eta: 0.87, etaSd: expect.closeTo(0.02, 5) as unknown, amps: 3 }));

describe("an effort line", () => {
  const read = (more: Record<string, string>) => riderForm("metric").safeParse({ name: "Maren", ...more });
  test("needs both efforts", () => expect(read({ lowBpm: "104", lowW: "55" }).success).toBe(false));
  test("rises", () =>
    expect(read({ lowBpm: "140", lowW: "55", highBpm: "120", highW: "150" }).success).toBe(false));
  test("is kept", () =>
    expect(read({ lowBpm: "104", lowW: "55", highBpm: "148", highW: "145" })).toMatchObject({
      data: { highW: 145 },
    }));
});

describe("a pack's form", () => {
  const read = (more: Record<string, unknown>) =>
    packForm("metric").safeParse({ ...packTexts(NEW_PACK, "metric"), ...more });
  test("Wh, or Ah with cells", () => {
    expect(read({ labelWh: "0.612 kWh" })).toMatchObject({ success: true, data: { labelWh: 612 } });
    expect(read({ ampHours: "14", seriesCells: "13" }).success).toBe(true);
  });
  test("one that nobody knows the energy of is kept all the same, by its volts or by nothing", () => {
    expect(read({ seriesCells: "48 V" })).toMatchObject({ success: true, data: { seriesCells: 13 } });
    expect(read({ seriesCells: "13s" })).toMatchObject({ success: true, data: { seriesCells: 13 } });
    expect(read({ ampHours: "14" }).success).toBe(true);
    expect(read({}).success).toBe(true);
    expect(read({ seriesCells: "many" }).error?.issues[0]!.message).toContain("or the volts: 48 V");
  });
  test("full cycles with a half, and what it costs more", () => {
    expect(read({ labelWh: "600", cycles: "61.5", priceMoreMinor: "+160 EUR" })).toMatchObject({
      data: { cycles: 61.5, priceMoreMinor: 16_000 },
    });
    expect(read({ labelWh: "600", priceMoreMinor: "-80" })).toMatchObject({
      data: { priceMoreMinor: -8000 },
    });
    expect(read({ labelWh: "600", priceMoreMinor: "a lot" }).success).toBe(false);
  });
  test("cells that no bike has", () =>
    expect(read({ labelWh: "600", seriesCells: "130" }).success).toBe(false));
});

test("a set-up's pressure in the wrong unit is noticed", () => {
  const parsed = setUpForm("metric").safeParse({
    ...setUpTexts(NEW_SET_UP, "metric"),
    name: "slick",
    pressurePa: "35",
  });
  expect(!parsed.success && parsed.error.issues[0]!.message).toContain("check the unit");
});
