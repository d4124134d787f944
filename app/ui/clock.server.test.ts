import { describe, expect, test } from "@jest/globals";
import { clockOffset, clockOn, deskDay } from "./clock.server";

describe("the desk's clock", () => {
  test("its day is the one on its own calendar, late in the evening too", () => {
    const evening = new Date(2026, 7, 9, 23, 40);
    const morning = new Date(2026, 7, 9, 0, 20);
    expect([evening, morning].map((at) => deskDay(at.getTime()))).toEqual(["2026-08-09", "2026-08-09"]);
  });
  test("on another day it stands as it does then; a day that is none has today's", () => {
    const noon = Date.UTC(2026, 0, 15, 12);
    expect(clockOn("2026-01-15")).toBe(clockOffset(noon));
    expect(clockOn("soon")).toBe(clockOffset(Date.now()));
    expect(clockOn("2026-01-15")).toMatch(/^[+-]\d{2}:\d{2}$/);
  });
});
