import { describe, expect, test } from "@jest/globals";
import { z } from "zod";
import { systemCookie, systemOf } from "#app/ui/systemCookie";
import { testSentence } from "#app/ui/testLine";
import { dayText } from "#core/base";
import {
  choice,
  listText,
  numberText,
  pencilText,
  quantityText,
  readInto,
  tick,
  words,
} from "#app/ui/forms/formText";
import { testSchema } from "#core/records";

describe("the units cookie", () => {
  const asked = (cookie?: string) =>
    systemOf(new Request("http://localhost/", cookie === undefined ? {} : { headers: { Cookie: cookie } }));
  test("miles until told otherwise", () => {
    expect(asked()).toBe("imperial");
    expect(asked("units=leagues")).toBe("imperial");
    expect(asked("otherunits=metric")).toBe("imperial");
  });
  test("is read among others, and reads what it writes", () => {
    expect(asked("a=b; units=metric; c=d")).toBe("metric");
    expect(asked(systemCookie("metric").split(";")[0])).toBe("metric");
    expect(asked(systemCookie("imperial").split(";")[0])).toBe("imperial");
  });
});

describe("texts of forms", () => {
  test.each([
    [numberText, "2,5", 2.5],
    [numberText, "", undefined],
    [tick, "on", true],
    [tick, undefined, false],
    [words, undefined, ""],
    [choice, "  a ", "a"],
    [choice, "  ", undefined],
    [listText, "low, , high ", ["low", "high"]],
    [pencilText, undefined, []],
    [pencilText, "a", ["a"]],
    [quantityText("distance", "metric"), "3", 3000],
    [quantityText("distance", "metric"), "", undefined],
  ] as const)("%#: %p is read", (schema, text, value) => {
    expect((schema as z.ZodType).parse(text)).toEqual(value);
  });
  test("what cannot be read says so at its field", () => {
    const parsed = z.object({ far: quantityText("distance", "metric") }).safeParse({ far: "3 pounds" });
    expect(!parsed.success && parsed.error.issues[0]).toMatchObject({
      path: ["far"],
      message: expect.stringContaining("“pounds”"),
    });
  });
  test("a form leads into its record, whose sentences keep their field", () => {
    const form = readInto(
      z.object({ share: numberText }),
      z.object({ share: z.number().max(1, "at most 1") }),
    );
    expect(form.parse({ share: "0,5" })).toEqual({ share: 0.5 });
    const parsed = form.safeParse({ share: "3" });
    expect(!parsed.success && parsed.error.issues).toMatchObject([{ path: ["share"], message: "at most 1" }]);
  });
});

describe("the sentence under a title", () => {
  const value = testSchema.parse({
    title: "t",
    day: "2026-10-18",
    airTempC: 21.7,
    wind: "light",
    course: "levee loop",
    drive: "throttle",
  });
  test("holds what was noted, in the reader's units", () => {
    expect(testSentence(value, { setUp: "slick tyres", rider: "Maren" }, "imperial")).toBe(
      "slick tyres, part charge, throttle, levee loop, 71 F, wind light, 18 Oct 2026, Maren riding",
    );
    expect(testSentence(value, {}, "metric")).toContain("22 C");
  });
  test("leaves out what was not", () => {
    expect(testSentence(testSchema.parse({ title: "t", day: "2026-10-08" }), {}, "metric")).toBe(
      "part charge, pedalled, 8 Oct 2026",
    );
  });
  test("days read as people write them", () => expect(dayText("2026-01-05")).toBe("5 Jan 2026"));
});
