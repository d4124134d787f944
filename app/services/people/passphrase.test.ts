import { describe, expect, test } from "@jest/globals";
import { passphraseProblem } from "./passphrase.server";

describe("a passphrase", () => {
  test.each([
    "four quiet levee words",
    "Regen am Deich, dann Kaffee",
    "x9#Lq2!vTr8@mZ",
    "ein sehr langer Satz",
  ])("of unrelated words or signs is taken: %s", (passphrase) =>
    expect(passphraseProblem(passphrase, "Maren")).toBeNull(),
  );
  test.each([
    "password1234",
    "passwordpassword",
    "qwertyuiop12",
    "aaaaaaaaaaaaaaaa",
    "123456789012345",
    "iloveyou2026",
    "P@ssw0rd!2345",
  ])("that is on lists is refused, however it is dressed: %s", (passphrase) =>
    expect(passphraseProblem(passphrase, "Maren")).toContain("lists"),
  );
  test("that is short, or holds one's name, is told so", () => {
    expect(passphraseProblem("short", "Maren")).toContain("12 characters");
    expect(passphraseProblem("the levee of maren is long", "Maren")).toContain("your name");
    expect(passphraseProblem("the blue of an old saddle", "Al")).toBeNull();
  });
});
