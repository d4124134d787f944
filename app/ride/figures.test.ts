import { describe, expect, test } from "@jest/globals";
import { SIGHTING, SIGHTING_FIELDS, type Field } from "#core/fields";
import { FIGURES, readFigures, WORDS } from "./figures";

const form = (texts: Readonly<Record<string, string>>) => {
  const data = new FormData();
  for (const [name, text] of Object.entries(texts)) data.set(name, text);
  return data;
};

describe("the figures of a check-in in the field", () => {
  test("hold every quantity that is declared, and the words that go with them", () => {
    const named = new Set<string>([...FIGURES.map(({ name }) => name), ...WORDS, "side"]);
    // Load is a tick, level and ground have panels of their own, a remark too.
    const elsewhere = ["underLoad", "level", "ground", "note"];
    const asked = SIGHTING_FIELDS.filter((name) => (SIGHTING[name] as Field).line !== null);
    expect(asked.filter((name) => !named.has(name))).toEqual(elsewhere);
  });
  test("are read in the person's units, minutes as minutes", () =>
    expect(
      readFigures(
        form({ distanceM: "12.4", restMin: "10", movingS: "2:47", section: "upper", side: "B" }),
        "metric",
      ),
    ).toEqual({
      body: { distanceM: 12_400, restMin: 10, movingS: 10_020, section: "upper", side: "B" },
      problems: {},
    }));
  test("what cannot be is said by the field's own schema", () =>
    expect(readFigures(form({ percent: "140", bpm: "12", climbM: "up" }), "imperial").problems).toMatchObject(
      {
        percent: "Percent runs from 0 to 100.",
        bpm: "A heart beats 30 to 230 times a minute.",
        climbM: expect.stringContaining("up"),
      },
    ));
});
