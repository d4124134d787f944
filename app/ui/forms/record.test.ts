import { describe, expect, test } from "@jest/globals";
import { z } from "zod";
import { DIMENSIONS, toSi, unitOf, type DimensionName } from "#core/base";
import { choicesOf, recordField, shapeOf, type RecordFields } from "#core/fields";
import {
  BENCH_FIELDS,
  BIKE_FIELDS,
  CLIMB_FIELDS,
  INSTRUMENT_FIELDS,
  PACK_FIELDS,
  REFERENCE_FIELDS,
  RIDER_FIELDS,
  SET_UP_FIELDS,
  SWEEP_ROW_FIELDS,
  sweepRowSchema,
  TEST_FIELDS,
  type SweepRow,
} from "#core/records";
import { recordForm, recordTexts } from "./record";

const ALL: Readonly<Record<string, RecordFields>> = {
  bench: BENCH_FIELDS,
  bike: BIKE_FIELDS,
  climb: CLIMB_FIELDS,
  instrument: INSTRUMENT_FIELDS,
  pack: PACK_FIELDS,
  reference: REFERENCE_FIELDS,
  rider: RIDER_FIELDS,
  setUp: SET_UP_FIELDS,
  test: TEST_FIELDS,
};

describe.each(Object.entries(ALL))("the fields of a %s", (_name, fields) => {
  test("each has a name to be asked by, and no two the same", () => {
    const labels = Object.values(fields).map(({ label }) => label);
    expect(new Set(labels).size).toBe(labels.length);
    expect(labels.every((label) => label.length > 1)).toBe(true);
  });
  test("a choice has values to choose among, and says nothing of others", () => {
    for (const field of Object.values(fields))
      if (field.typed.as === "choice") {
        const choices = choicesOf(field);
        expect(choices.length).toBeGreaterThan(1);
        for (const said of Object.keys(field.typed.says ?? {})) expect(choices).toContain(said);
      }
  });
});

/** A record with a field of each way of typing. */
const EVERY = {
  called: recordField({ schema: z.string().min(1), label: "Called", typed: { as: "name" } }),
  said: recordField({ schema: z.string(), label: "Said", typed: { as: "words" } }),
  on: recordField({ schema: z.string().optional(), label: "On", typed: { as: "day" } }),
  lit: recordField({ schema: z.boolean(), label: "Lit", typed: { as: "tick" } }),
  from: recordField({ schema: z.number().optional(), label: "From", typed: { as: "compass" } }),
  took: recordField({ schema: z.number().optional(), label: "Took", typed: { as: "stopwatch" } }),
  share: recordField({ schema: z.number().optional(), label: "Share", typed: { as: "percent" } }),
  teeth: recordField({ schema: z.number(), label: "Teeth", typed: { as: "number", whole: true, empty: 0 } }),
  weighs: recordField({
    schema: z.number().optional(),
    label: "Weighs",
    typed: { as: "weight", of: "an e-bike", leastKg: 12, mostKg: 70 },
  }),
  kind: recordField({ schema: z.enum(["hub", "mid"]).optional(), label: "Kind", typed: { as: "choice" } }),
} satisfies RecordFields;
const kept = z.object(shapeOf(EVERY));

describe("a record's form", () => {
  const record = {
    ...{ called: "Reed", said: "no words", on: "2026-10-18", lit: true, from: 45, took: 204 },
    ...{ share: 0.125, teeth: 12, weighs: 26, kind: "mid" as const },
  };
  test.each(["imperial", "metric"] as const)("reads back what it has written, %s", (system) => {
    const texts = recordTexts<typeof record>(EVERY, record, system);
    const { weighs, ...rest } = recordForm(EVERY, kept, system).parse(texts);
    const { weighs: _, ...others } = record;
    expect(rest).toEqual(others);
    expect(weighs).toBeCloseTo(26, 1);
  });
  test("takes what is empty as nothing, or as what its field says", () => {
    expect(recordForm(EVERY, kept, "metric").parse({ called: "Reed" })).toEqual({
      ...{ called: "Reed", said: "", lit: false, teeth: 0 },
      ...{ on: undefined, from: undefined, took: undefined, share: undefined },
      ...{ weighs: undefined, kind: undefined },
    });
  });
  test("asks about a weight that is odd in the reader's unit", () => {
    const read = recordForm(EVERY, kept, "imperial").safeParse({ called: "Reed", weighs: "26" });
    expect(read.error?.issues[0]?.path).toEqual(["weighs"]);
    expect(read.error?.issues[0]?.message).toContain("26 kg?");
  });
  test.each([
    ["from", "uphill", "no direction"],
    ["teeth", "many", "is not a number"],
    ["share", "a bit", "is not a percentage"],
    ["took", "soon", "soon"],
  ])("answers %s “%s” beside its field", (field, typed, says) => {
    const read = recordForm(EVERY, kept, "metric").safeParse({ called: "Reed", [field]: typed });
    const [issue] = read.error?.issues ?? [];
    expect(issue?.path).toEqual([field]);
    expect(issue?.message).toContain(says);
  });
  test.each(Object.keys(DIMENSIONS) as DimensionName[])(
    "writes and reads a %s in both systems",
    (dimension) => {
      const fields = {
        of: recordField({ schema: z.number(), label: "Of", typed: { as: "quantity", dimension } }),
      };
      for (const system of ["imperial", "metric"] as const) {
        const kept = toSi(31.5, dimension, unitOf(dimension, "metric"))!;
        const read = recordForm(fields, z.object(shapeOf(fields)), system).parse(
          recordTexts<{ of: number }>(fields, { of: kept }, system),
        );
        expect(read.of / kept).toBeCloseTo(1, 1);
      }
    },
  );
  test("what a field of its own spreads becomes several fields of the record", () => {
    const fields = { price: recordField({ schema: z.number(), label: "Price", typed: { as: "own" } }) };
    const own = {
      price: {
        read: () => z.string().transform(() => ({ price: 3, currency: "EUR" })),
        written: () => "3 EUR",
        spreads: true as const,
      },
    };
    const form = recordForm(fields, z.object({ price: z.number(), currency: z.string() }), "metric", own);
    expect(form.parse({ price: "3 EUR" })).toEqual({ price: 3, currency: "EUR" });
    expect(recordTexts(fields, {}, "metric", own)).toEqual({ price: "3 EUR" });
  });
});

describe("a span typed with a stroke", () => {
  const form = recordForm(SWEEP_ROW_FIELDS, sweepRowSchema, "imperial");
  const row = { level: "town", ground: "brick", direction: "there", speedMps: "14.8" };
  const read = (ampsLow: string) => form.safeParse({ ...row, ampsLow });
  test.each([
    ["6-7", 6, 7],
    ["6.5 – 7 A", 6.5, 7],
    ["6 to 7 amps", 6, 7],
    ["6,5", 6.5, 6.5],
    [" 0-1 ", 0, 1],
  ])("“%s”", (text, low, high) =>
    expect(read(text)).toMatchObject({ success: true, data: { ampsLow: low, ampsHigh: high } }),
  );
  test.each(["7-6", "lots", "5-6-7", "-", "5 bananas"])("“%s” is refused", (text) =>
    expect(read(text).success).toBe(false),
  );
  test("is written back as it is typed", () =>
    expect(recordTexts<SweepRow>(SWEEP_ROW_FIELDS, { ampsLow: 5.5, ampsHigh: 6.5 }, "metric")).toMatchObject({
      ampsLow: "5.5-6.5",
    }));
});
