import { describe, expect, test } from "@jest/globals";
import { joinTracks } from "#core/io";
import type { TrackRecord } from "#core/records";

/** A point a second to the north at 5 m/s, from a second of the day on. */
const part = (name: string, from: number, to: number, more: Partial<TrackRecord> = {}): TrackRecord => {
  const seconds = Array.from({ length: to - from }, (_, i) => from + i);
  return {
    name,
    timeS: seconds.map((s) => 1_790_000_000 + s),
    lat: seconds.map((s) => 10 + (5 * s) / 111_195),
    lon: seconds.map(() => 8),
    eleM: seconds.map((s) => s / 100),
    ...more,
  };
};

describe("two files of one device", () => {
  test("the second half goes on from the first, a rest between", () => {
    const later = part("after lunch", 1000, 1600);
    const rested = { ...later, timeS: later.timeS.map((each) => each + 3000) };
    const joined = joinTracks(part("before", 0, 1000), rested)!;
    expect(joined.timeS).toHaveLength(1600);
    expect(joined.timeS.every((each, i) => i === 0 || each > joined.timeS[i - 1]!)).toBe(true);
    expect(joined.name).toBe("after lunch");
  });
  test("the first half may come second", () => {
    const joined = joinTracks(part("b", 600, 1200), part("a", 0, 590))!;
    expect(joined.timeS[0]).toBe(1_790_000_000);
    expect(joined.lat).toHaveLength(1190);
  });
  test("where they overlap, a moment counts once, by the later file", () => {
    const later = part("b", 800, 2000, { eleM: Array(1200).fill(50) as number[] });
    const joined = joinTracks(part("a", 0, 1000), later)!;
    expect(joined.timeS).toHaveLength(2000);
    expect(joined.eleM[900]).toBe(50);
    expect(joined.eleM[700]).toBe(7);
  });
  test("a channel that only one has is null in the other", () => {
    const joined = joinTracks(part("a", 0, 10), part("b", 10, 20, { bpm: Array(10).fill(120) as number[] }))!;
    expect(joined.bpm!.slice(8, 12)).toEqual([null, null, 120, 120]);
    expect(joined.riderW).toBeUndefined();
  });
  test("a corrected file of the same ride stands for itself, as does one of another day or another place", () => {
    expect(joinTracks(part("a", 0, 1000), part("a again", 0, 1000))).toBeNull();
    expect(joinTracks(part("a", 0, 1000), part("whole", 0, 3000))).toBeNull();
    expect(joinTracks(part("a", 0, 1000), part("next day", 90_000, 91_000))).toBeNull();
    const far = part("b", 1000, 1600);
    expect(joinTracks(part("a", 0, 1000), { ...far, lon: far.lon.map(() => 9) })).toBeNull();
  });
});
