import { describe, expect, test } from "@jest/globals";
import { clockText } from "#core/base";
import { deskDay, deskZone } from "./clock.server";

describe("the desk's clock", () => {
  test("its day is the one on its own calendar, late in the evening too", () => {
    const evening = new Date(2026, 7, 9, 23, 40);
    const morning = new Date(2026, 7, 9, 0, 20);
    expect([evening, morning].map((at) => deskDay(at.getTime()))).toEqual(["2026-08-09", "2026-08-09"]);
  });
  test("its zone is one that a clock can be read by, summer and winter", () => {
    const noon = new Date(2026, 0, 15, 12).getTime();
    expect(clockText(noon, deskZone())).toBe("12:00");
    expect(clockText(new Date(2026, 6, 15, 12).getTime(), deskZone())).toBe("12:00");
  });
});
