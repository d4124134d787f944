import { describe, expect, test } from "@jest/globals";
import { z } from "zod";
import { err, errs, fromIssues, ok, hasKey, schemaBy } from "#core/base";

describe("results", () => {
  test("good and bad", () => {
    expect(ok(3)).toEqual({ ok: true, value: 3 });
    expect(err("c", "p", "s")).toEqual({ ok: false, problems: [{ code: "c", path: "p", sentence: "s" }] });
    expect(errs([])).toEqual({ ok: false, problems: [] });
  });
  test("issues become problems with dotted paths", () => {
    const parsed = z
      .object({ a: z.array(z.object({ b: z.number("no number") })) })
      .safeParse({ a: [{ b: 1 }, { b: "x" }] });
    expect(parsed.success ? [] : fromIssues(parsed.error.issues)).toEqual([
      { code: "input-invalid_type", path: "a.1.b", sentence: "no number" },
    ]);
  });
});

describe("a schema chosen by the value", () => {
  const round = z.object({ radius: z.number().positive("too small") });
  const square = z.object({
    side: z
      .number()
      .positive("too small")
      .transform((side) => side),
  });
  const shape = schemaBy<z.infer<typeof round> | z.infer<typeof square>>((value) =>
    hasKey(value, "side") ? square : round,
  );
  test("passes what fits", () => {
    expect(shape.parse({ side: 2 })).toEqual({ side: 2 });
    expect(shape.parse({ radius: 2 })).toEqual({ radius: 2 });
  });
  test("says what is wrong at its own place", () => {
    const parsed = shape.safeParse({ side: -2 });
    expect(!parsed.success && parsed.error.issues).toMatchObject([{ path: ["side"], message: "too small" }]);
  });
  test.each([null, 3, "side", undefined, []])("%j has no key", (value) => {
    expect(hasKey(value, "side")).toBe(false);
    expect(shape.safeParse(value).success).toBe(false);
  });
});
