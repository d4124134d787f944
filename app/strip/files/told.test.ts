import { describe, expect, test } from "@jest/globals";
import { chosenColumns } from "#core/io";
import type { Look } from "#app/services/recordings/lookAt";
import { choicesOf, offsetTyped } from "./sent";
import { clockSaid, lookSaid, spanSaid } from "./told";

const clock = (
  offsetS: number,
  more: { sdS?: number; sure?: number; rivals?: number[]; proposedS?: number; zoneS?: number } = {},
) => {
  const { sdS = 1, sure = 1, rivals = [], proposedS = offsetS, zoneS = 0 } = more;
  return {
    found: { offsetS, sdS, sure, rivals, against: "log" as const },
    ...{ proposedS, zoneS, inFuture: false },
  };
};

describe("a clock in words", () => {
  test.each([
    [clock(0.4, { proposedS: 0 }), "Its clock agrees with the log (± 2.0 s)."],
    [clock(-37, {}), "By the log its clock is 37 s ahead (± 2.0 s)."],
    [
      clock(-3600.5, { zoneS: -3600 }),
      "By the log its clock is 1 h ahead: another zone, or summer time (± 2.0 s).",
    ],
    [
      clock(3590, { zoneS: 3600 }),
      "By the log its clock is 1 h behind: another zone, or summer time; and 10 s ahead (± 2.0 s).",
    ],
    [
      clock(600, { sure: 0.5, rivals: [0, -600] }),
      "may be 10 min behind, or right, or 10 min ahead: it is not sure which.",
    ],
  ])("%j", (look, sentence) => expect(clockSaid(look).replaceAll("\u00a0", " ")).toContain(sentence));
  test("one that nothing tells says so", () =>
    expect(clockSaid({ found: null, proposedS: 0, zoneS: 0, inFuture: false })).toContain(
      "could not be held against anything",
    ));
  test("one that runs ahead of today says so before all else", () =>
    expect(clockSaid({ ...clock(-37), inFuture: true })).toBe(
      "Its times lie in the future: add what its clock is off, such as -1:00:00, or export it again.",
    ));
  test.each([
    [4.04, "4.0 s"],
    [61, "61 s"],
    [-3604, "1 h 4 s"],
    [7260, "2 h 1 min"],
  ])("%f s", (seconds, said) => expect(spanSaid(seconds)).toBe(said));
});

describe("what is typed of a clock", () => {
  test.each([
    ["", 0],
    ["-12", -12],
    ["−12,5", -12.5],
    ["+90 s", 90],
    ["-1:00:04", -3604],
    ["2 min", 120],
  ])("%j", (text, seconds) => expect(offsetTyped(text)).toEqual({ ok: true, value: seconds }));
  test.each(["soon", "--3", "-+3", "9e99", "1:2:3:4"])("%j is asked about", (text) =>
    expect(offsetTyped(text)).toMatchObject({ ok: false, problems: [{ code: "bad-offset" }] }),
  );
});

test("choices of a form that are none are left to be found out", () => {
  const form = new FormData();
  form.set("format", "tape");
  form.set("columns", '["time","volts","salt"]');
  form.set("drawnIsMinus", "perhaps");
  expect(choicesOf(form)).toEqual({});
  form.set("format", "logger");
  form.set("columns", '["time",null,"volts","watts"]');
  form.set("drawnIsMinus", "yes");
  expect(choicesOf(form)).toEqual({
    format: "logger",
    columns: chosenColumns(["time", null, "volts", "watts"]),
    drawnIsMinus: true,
  });
});

describe("a file in words", () => {
  const nothing: Look = {
    ...{ format: null, problems: [], isThere: false, clock: null },
    ...{ track: null, meter: null, table: null, rows: null },
  };
  const track = {
    ...{
      fromS: 1_789_891_800,
      toS: 1_789_895_400,
      points: 900,
      distanceM: 16_093.44,
      movingS: 3000,
      gainM: 120,
    },
    ...{ stops: 1, meanBpm: 121.4, meanRiderW: null, meanCadence: null, gaps: 2, sport: "cycling" },
    ...{ sums: { distanceM: 17_000 }, there: null, joins: false },
  };
  const said = (more: Partial<typeof track> & { there?: string | null }) =>
    lookSaid({ ...nothing, track: { ...track, ...more } }, "+00:00", "imperial").join(" ");
  test("a recording: when, how far, what is beside it, and where its own sum differs", () => {
    const text = said({});
    for (const part of [
      "10.0 mi",
      "50 min of riding",
      "1 stop,",
      "394 ft of climb",
      "heart 121",
      "2 gaps are bridged",
      "Its own sum is 10.6 mi",
    ])
      expect(text).toContain(part);
    expect(text).not.toContain("is it of this ride");
  });
  test("one of another sport is asked about; one that is there is replaced or gone on from", () => {
    expect(said({ sport: "running" })).toContain("The recorder calls it “running”: is it of this ride?");
    expect(said({ there: "loop" } as never)).toContain("It takes the place of the track");
    expect(said({ there: "loop", joins: true } as never)).toContain("It goes on from the track");
  });
  test("a meter: how much it adds", () =>
    expect(
      lookSaid(
        { ...nothing, meter: { fromS: 0, toS: 60, samples: 61, wh: 251.4, hasSpeed: true } },
        "+00:00",
        "metric",
      ).join(" "),
    ).toContain("Adds 251 Wh out of the pack, by stretch between check-ins that have a time, and speed."));
});
