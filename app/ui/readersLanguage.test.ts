import { describe, expect, test } from "@jest/globals";
import { decimalOf, numbersChosen, numbersCookie, regionsSystem } from "#app/ui/readersLanguage";
import { systemOf } from "#app/ui/systemCookie";

const asks = (language?: string, cookie?: string) =>
  new Request("http://localhost/", {
    headers: {
      ...(language === undefined ? {} : { "Accept-Language": language }),
      ...(cookie === undefined ? {} : { Cookie: cookie }),
    },
  });

describe("what a browser's language says of its reader", () => {
  test.each([
    ["de-DE,de;q=0.9,en;q=0.5", "metric", ","],
    ["de", "metric", ","],
    ["en-US,en;q=0.9", "imperial", "."],
    ["en", "imperial", "."],
    ["en-GB", "imperial", "."],
    ["en-AU", "metric", "."],
    ["fr-CA", "metric", ","],
    ["ja", "metric", "."],
    ["*", "imperial", "."],
    ["nonsense!!", "imperial", "."],
    [undefined, "imperial", "."],
  ])("%s: %s, %s", (language, system, decimal) => {
    expect(regionsSystem(asks(language))).toBe(system);
    expect(decimalOf(asks(language))).toBe(decimal);
  });
  test("a choice stands before the language", () => {
    expect(systemOf(asks("de-DE", "units=imperial"))).toBe("imperial");
    expect(decimalOf(asks("de-DE", numbersCookie("point").split(";")[0]))).toBe(".");
    expect(decimalOf(asks("en-US", "a=b; numbers=comma; c=d"))).toBe(",");
    expect(decimalOf(asks("de-DE", numbersCookie("language").split(";")[0]))).toBe(",");
    expect(numbersChosen(asks("de-DE", "othernumbers=comma"))).toBe("language");
  });
});
