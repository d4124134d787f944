import { describe, expect, test } from "@jest/globals";
import fc from "fast-check";
import type { System } from "#core/quantities";
import { bikeSchema, packRecordSchema, riderSchema, setUpSchema } from "#core/records";
import { BIKES, RIDERS, type DeskBike } from "#db/demo/desk";
import {
  bikeForm,
  bikeTexts,
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

/** Numbers compared to a thousandth, the rest exactly: form texts keep three decimals. */
function expectAlike(got: object, wanted: object): void {
  expect(
    Object.keys(got)
      .filter((key) => (got as never)[key] !== undefined)
      .sort(),
  ).toEqual(
    Object.keys(wanted)
      .filter((key) => (wanted as never)[key] !== undefined)
      .sort(),
  );
  for (const [key, value] of Object.entries(wanted)) {
    const mine = (got as Record<string, unknown>)[key];
    if (typeof value === "number")
      expect(Math.abs((mine as number) - value)).toBeLessThanOrEqual(0.002 * Math.max(1, Math.abs(value)));
    else expect(mine).toEqual(value);
  }
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
      { claimLowM: "60", claimHighM: "40" },
      ["claimHighM", "The claim's upper end lies below its lower end: swap them."],
    ],
    [{ percentStep: "two" }, ["percentStep", "“two” is not a number: type for example 3 or 0.5."]],
    [
      { wheelCircumferenceM: "2180 m" },
      ["wheelCircumferenceM", "A wheel measures 500 to 3000 mm round, for example 2180 mm."],
    ],
  ])("%j is answered beside its field", (more, said) => expect(sentence(more)).toEqual(said));
});

describe("a pack's form", () => {
  const read = (more: Record<string, unknown>) =>
    packForm("metric").safeParse({ ...packTexts(NEW_PACK, "metric"), ...more });
  test("Wh, or Ah with cells", () => {
    expect(read({ labelWh: "0.612 kWh" })).toMatchObject({ success: true, data: { labelWh: 612 } });
    expect(read({ ampHours: "14", seriesCells: "13" }).success).toBe(true);
    expect(read({ ampHours: "14" }).success).toBe(false);
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
