import { describe, expect, test } from "@jest/globals";
import {
  clockText,
  dayAt,
  leftOut,
  isZone,
  momentAfter,
  momentOf,
  typedClock,
  zoneOffsetMs,
} from "#core/base";

/** Summer time of "CET" begins on 29 March 2026 and ends on 25 October, at 01:00 UTC. */
const utc = (text: string) => Date.parse(`${text}Z`);

describe("a zone's clock", () => {
  test.each([
    ["+01:30", "2026-01-01T00:00", 90],
    ["-05:00", "2026-07-01T00:00", -300],
    ["CET", "2026-01-01T00:00", 60],
    ["CET", "2026-07-01T00:00", 120],
    ["UTC", "2026-07-01T00:00", 0],
  ])("%s at %s runs %d minutes ahead", (zone, at, minutes) =>
    expect(zoneOffsetMs(zone, utc(at))).toBe(minutes * 60_000),
  );

  test.each([
    ["2026-03-28", "23:30", "CET", "2026-03-28T22:30"],
    ["2026-03-29", "03:30", "CET", "2026-03-29T01:30"],
    ["2026-03-29", "02:30", "CET", "2026-03-29T01:30"],
    ["2026-10-25", "02:30", "CET", "2026-10-25T00:30"],
    ["2026-10-25", "03:30", "CET", "2026-10-25T02:30"],
    ["2026-10-18", "9:05", "-05:30", "2026-10-18T14:35"],
    ["2026-10-18", "09:05:12", "+00:00", "2026-10-18T09:05:12"],
  ])("%s %s of %s", (day, clock, zone, at) => expect(momentOf(day, clock, zone)).toBe(utc(at)));

  test("a moment is shown as it was typed, over a change of the clocks too", () => {
    for (const day of ["2026-03-29", "2026-10-25", "2026-06-01"])
      for (const clock of ["00:10", "04:00", "23:59"])
        for (const zone of ["CET", "EST5EDT", "+05:30"]) {
          const at = momentOf(day, clock, zone);
          expect([dayAt(at, zone), clockText(at, zone)]).toEqual([day, clock]);
        }
  });

  test("what is no time or no zone is no moment and shows nothing", () => {
    expect(momentOf("2026-10-18", "26:00", "CET")).toBeNaN();
    expect(momentOf("2026-10-18", "10:00", "Nowhere/Atall")).toBeNaN();
    expect(clockText(0, "Nowhere/Atall")).toBe("");
    expect(dayAt(NaN, "CET")).toBe("");
  });

  test.each(["+00:00", "-05:30", "+14:00", "CET", "Etc/GMT+3", "UTC"])("%s is a zone", (zone) =>
    expect(isZone(zone)).toBe(true),
  );
  test.each(["1", "+1:00", "05:00", "+15:00", "+02:75", "here", "", "10", "+01:00 "])(
    "“%s” is none",
    (zone) => expect(isZone(zone)).toBe(false),
  );
});

describe("a time of day as a person types it", () => {
  test.each([
    ["10:20", "10:20"],
    [" 9:05:07 ", "09:05:07"],
    ["10.20", "10:20"],
    ["10h20", "10:20"],
    ["10.20.15", "10:20:15"],
    ["2:05 pm", "14:05"],
    ["2 p.m.", "14:00"],
    ["12 am", "00:00"],
    ["12:30PM", "12:30"],
    ["0:00", "00:00"],
    ["23:59:59", "23:59:59"],
  ])("%p is %s", (typed, clock) => expect(typedClock(typed)).toBe(clock));
  test.each([
    "",
    "10",
    "24:00",
    "10:60",
    "10:20:60",
    "13 pm",
    "0 am",
    "soon",
    "10:2",
    "10:20:15:07",
    "-1:00",
  ])("%p is none", (typed) => expect(typedClock(typed)).toBeNull());
});

describe("notes past midnight", () => {
  const DAY = "2026-10-18";
  const after = (clock: string, last: string | null, zone = "+01:00") => {
    const ms = momentAfter(DAY, clock, zone, last === null ? null : Date.parse(last));
    return Number.isNaN(ms) ? null : `${dayAt(ms, zone)} ${clockText(ms, zone)}`;
  };
  test("23:00, 23:40, 00:20: the last is the next day's", () => {
    expect(after("23:00", null)).toBe("2026-10-18 23:00");
    expect(after("23:40", "2026-10-18T22:00:00Z")).toBe("2026-10-18 23:40");
    expect(after("00:20", "2026-10-18T22:40:00Z")).toBe("2026-10-19 00:20");
    expect(after("01:10", "2026-10-18T23:20:00Z")).toBe("2026-10-19 01:10");
  });
  test("an entry noted late is of its own day", () => {
    expect(after("09:10", "2026-10-18T09:00:00Z")).toBe("2026-10-18 09:10");
    expect(after("09:10", "2026-10-18T18:00:00Z")).toBe("2026-10-18 09:10");
  });
  test("a log of another year is no reason to roll", () =>
    expect(after("09:10", "2027-10-18T09:00:00Z")).toBe("2026-10-18 09:10"));
  test("over a change of the clock, in a zone by name, and far east", () => {
    expect(after("00:20", "2026-10-18T21:30:00Z", "Europe/Berlin")).toBe("2026-10-19 00:20");
    expect(after("00:20", "2026-10-18T10:30:00Z", "+13:00")).toBe("2026-10-19 00:20");
  });
  test("a time that the clock leaves out is known as such", () => {
    expect(leftOut("2026-03-29", "02:30", "Europe/Berlin")).toMatch(
      /clock goes forward and shows no .*: type 03:30/,
    );
    expect(leftOut("2026-03-29", "2:30", "Europe/Berlin")).toMatch(
      /clock goes forward and shows no .*: type 03:30/,
    );
    for (const clock of ["01:59", "03:00", "9:05"])
      expect(leftOut("2026-03-29", clock, "Europe/Berlin")).toBeNull();
    expect(leftOut("2026-03-29", "02:30", "+01:00")).toBeNull();
  });
});
