import { describe, expect, test } from "@jest/globals";
import { foldLog, type Entry } from "#core/ride/log";
import { METRES_PER_MILE } from "#core/base";
import { isTypedLate, today } from "./typing";

const mi = (miles: number) => miles * METRES_PER_MILE;
const NOON = Date.parse("2026-11-25T12:00:00Z");
const entry = (seq: number, minutes: number | null, body: Entry["body"]): Entry => ({
  id: `019c0000-0000-7000-8000-00000000000${seq}`,
  seq,
  at: minutes === null ? null : new Date(NOON + minutes * 60_000).toISOString(),
  body,
  supersedes: null,
});

describe("entries typed from notes", () => {
  const log = foldLog([entry(1, 0, { kind: "start" }), entry(2, 10, { kind: "checkIn", distanceM: mi(2) })]);
  const typed = (miles: number, afterMinutes: number) =>
    isTypedLate({ kind: "checkIn", distanceM: mi(miles) }, log, 0, NOON + (10 + afterMinutes) * 60_000);
  test("are further on than anybody rides in that time", () => {
    expect(typed(12.4, 0.5)).toBe(true);
    expect(typed(12.4, 40)).toBe(false);
    expect(typed(2.05, 0.05)).toBe(false);
  });
  test("a clock that is an hour slow is put right first", () => {
    const slow = (offsetS: number) =>
      isTypedLate({ kind: "checkIn", distanceM: mi(8) }, log, offsetS, NOON - 20 * 60_000);
    expect(slow(3600)).toBe(false);
    expect(slow(0)).toBe(true);
  });
  test("cannot be told without a distance, nor before any time", () => {
    expect(isTypedLate({ kind: "checkIn", percent: 50 }, log, 0, NOON)).toBe(false);
    expect(isTypedLate({ kind: "checkIn", distanceM: mi(40) }, [], 0, NOON)).toBe(false);
  });
});

describe("the day of a ride", () => {
  test("is the one its own clock shows", () => {
    expect(today("+00:00", 0, NOON)).toBe("2026-11-25");
    expect(today("+13:00", 0, NOON)).toBe("2026-11-26");
    expect(today("-13:00", 0, NOON)).toBe("2026-11-24");
  });
  test("and near midnight that of the desk, where a phone's clock is an hour slow", () =>
    expect(today("+00:00", 3600, Date.parse("2026-11-24T23:32:00Z"))).toBe("2026-11-25"));
});
