import { describe, expect, test } from "@jest/globals";
import fc from "#tests/property";
import { dayOf, instant, isInReach, isPlainText, NO_SUCH_YEAR, NOT_TEXT, plainText, text } from "./index.ts";

describe("text that may enter", () => {
  test.each(["", "12.4 mi, 3 °C", "two\nlines\tand a tab\r\n", "𝟙 é ½"])("%j is plain", (value) =>
    expect(isPlainText(value)).toBe(true),
  );
  test.each(["a\u0000b", "\u0007", "\u001b[31m", "\ud800", "\udc00x", "\u0085"])("%j is not", (value) => {
    expect(isPlainText(value)).toBe(false);
    expect(text().safeParse(value).error?.issues[0]?.message).toBe(NOT_TEXT);
  });
  test("what is made plain is plain, and plain text stays as it is", () => {
    fc.assert(
      fc.property(fc.string({ unit: "binary" }), (value) => {
        expect(isPlainText(plainText(value))).toBe(true);
        if (isPlainText(value)) expect(plainText(value)).toBe(value);
      }),
    );
  });
});

describe("moments that are kept", () => {
  test("lie in the years 2000 to 2100", () => {
    expect(isInReach(Date.UTC(2000, 0, 1) / 1000)).toBe(true);
    expect(isInReach(Date.UTC(1999, 11, 31, 23, 59, 59) / 1000)).toBe(false);
    expect(isInReach(Date.UTC(2100, 0, 1) / 1000)).toBe(false);
    expect(isInReach(NaN)).toBe(false);
  });
  test.each(["2200-06-01", "1999-12-31"])("the day %s says so", (value) =>
    expect(dayOf("2026-10-18").safeParse(value).error?.issues[0]?.message).toBe(NO_SUCH_YEAR),
  );
  test.each(["2026-02-30", "18.10.2026", ""])("%j is no day, and the example says how", (value) =>
    expect(dayOf("2026-10-18").safeParse(value).error?.issues[0]?.message).toContain("2026-10-18"),
  );
  test("instants have an offset", () => {
    expect(instant.safeParse("2026-10-18T09:30:00+02:00").success).toBe(true);
    expect(instant.safeParse("2026-10-18T09:30:00").success).toBe(false);
    expect(instant.safeParse("2200-10-18T09:30:00Z").success).toBe(false);
  });
});
