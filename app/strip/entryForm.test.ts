import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { entryBodySchema, foldLog, type EntryBody } from "#core/ride/log";
import { METRES_PER_MILE } from "#core/base";
import { entryForm, entryTexts } from "./entryForm";

const read = (texts: Record<string, string>, system: "imperial" | "metric" = "imperial") =>
  entryForm(system).safeParse(texts);
const sentences = (texts: Record<string, string>) => {
  const parsed = read(texts);
  return parsed.success
    ? {}
    : Object.fromEntries(parsed.error.issues.map(({ path, message }) => [path.join("."), message]));
};

describe("the check-in form", () => {
  test("reads units, decimal commas and rest in minutes", () => {
    expect(
      read({ what: "checkIn", distanceM: "12,4", percent: "61 %", packVolts: "48,6 V", restMin: "12" }),
    ).toMatchObject({
      success: true,
      data: {
        body: {
          kind: "checkIn",
          distanceM: 12.4 * METRES_PER_MILE,
          percent: 61,
          packVolts: 48.6,
          restMin: 12,
        },
      },
    });
  });
  test("reads kilometres where the person reads kilometres", () =>
    expect(read({ distanceM: "20" }, "metric")).toMatchObject({ data: { body: { distanceM: 20_000 } } }));
  test("an end carries its reason, a start its charger", () => {
    expect(read({ what: "end:cutOff", distanceM: "31" })).toMatchObject({
      data: { body: { kind: "end", reason: "cutOff" } },
    });
    expect(read({ what: "start", chargerDone: "on" })).toMatchObject({
      data: { body: { kind: "start", chargerDone: true } },
    });
  });
  test("says what to type, beside the field", () => {
    expect(sentences({ what: "checkIn", distanceM: "-3", percent: "104" })).toMatchObject({
      distanceM: "Distance cannot be negative: type the miles since the start.",
      percent: "Percent runs from 0 to 100.",
    });
    expect(sentences({ what: "checkIn" })).toMatchObject({
      distanceM: expect.stringContaining("Type the distance"),
    });
    expect(sentences({ what: "barLost", distanceM: "4" })).toMatchObject({
      bar: expect.stringContaining("which bar"),
    });
    expect(sentences({ what: "note" })).toMatchObject({ note: expect.anything() });
  });
  test("a correction starts from what was kept: written back and read again it is the same", () => {
    const body = fc.record(
      {
        kind: fc.constant("checkIn" as const),
        distanceM: fc
          .integer({ min: 0, max: 99_000 })
          .map((thousandths) => (thousandths / 1000) * METRES_PER_MILE),
        percent: fc.integer({ min: 0, max: 100 }),
        packVolts: fc.integer({ min: 300, max: 560 }).map((tenths) => tenths / 10),
        restMin: fc.integer({ min: 0, max: 90 }),
        level: fc.constantFrom("low", "high"),
        note: fc.constantFrom("windy", "hill, then flat"),
      },
      { requiredKeys: ["kind", "distanceM"] },
    );
    fc.assert(
      fc.property(body, (value) => {
        const entry = foldLog([
          {
            id: "019a0000-0000-7000-8000-000000000001",
            seq: 0,
            at: null,
            body: entryBodySchema.parse(value),
            supersedes: null,
          },
        ])[0]!;
        const again = read(entryTexts(entry, "", "imperial") as Record<string, string>);
        const got = again.success ? (again.data.body as EntryBody & Record<string, unknown>) : null;
        expect(got).not.toBeNull();
        for (const [key, wanted] of Object.entries(value)) {
          if (typeof wanted === "number") expect(got![key as never]).toBeCloseTo(wanted, 2);
          else expect(got![key as never]).toBe(wanted);
        }
      }),
    );
  });
});
