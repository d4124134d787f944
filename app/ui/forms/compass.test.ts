import { expect, test } from "@jest/globals";
import { compassText, compassWritten } from "./compass.ts";

test.each([
  ["N", 0],
  ["se", 135],
  ["NW", 315],
  ["200", 200],
  ["200°", 200],
])("%s is %p degrees", (text, degrees) => expect(compassText.parse(text)).toBe(degrees));

test("nothing typed is not known; a word that is no direction says what to type", () => {
  expect(compassText.parse("")).toBeUndefined();
  expect(compassText.parse(undefined)).toBeUndefined();
  expect(compassText.safeParse("leeward").error?.issues[0]?.message).toMatch(
    /^“leeward” is no direction: type N, NE/,
  );
});

test("written and read again it is the same", () => {
  for (const degrees of [0, 45, 90, 135, 180, 225, 270, 315, 17, 359])
    expect(compassText.parse(compassWritten(degrees))).toBe(degrees);
  expect(compassWritten(undefined)).toBe("");
  expect(compassWritten(360)).toBe("N");
});
