import { describe, expect, test } from "@jest/globals";
import {
  filmClock,
  timedByFilm,
  notedMoments,
  paintGround,
  proposedOffset,
  tieSamples,
  tieTrack,
  timeAt,
} from "#core/ride/clocks";
import { foldLog, type Entry, type EntryBody } from "#core/ride/log";

const BEGUN = Date.UTC(2026, 8, 20, 8, 10) / 1000;
const entry = (n: number, atS: number | null, body: object, more: Partial<Entry> = {}): Entry => ({
  id: `019a0000-0000-7000-8000-${n.toString(16).padStart(12, "0")}`,
  seq: n,
  at: atS === null ? null : new Date((BEGUN + atS) * 1000).toISOString(),
  body: body as EntryBody,
  supersedes: null,
  ...more,
});
/** 5 m/s for a thousand seconds, a minute at a stand in the middle. */
const TRACK = { timeS: [0, 500, 560, 1060].map((s) => BEGUN + s), distanceM: [0, 2500, 2500, 5000] };

describe("ground by hand", () => {
  const paint = (entries: readonly Entry[], fromM: number, toM: number) =>
    paintGround(TRACK, foldLog(entries), { fromM, toM, ground: "grass", first: "asphalt" }).map(
      ({ timeS, ground }) => [timeS - BEGUN, ground],
    );
  test("begins where it begins, and what was before goes on", () => {
    expect(paint([], 1000, 2000)).toEqual([
      [200, "grass"],
      [400, "asphalt"],
    ]);
    expect(paint([entry(1, 100, { kind: "checkIn", ground: "brick" })], 1000, 2000)).toEqual([
      [200, "grass"],
      [400, "brick"],
    ]);
  });
  test("goes over what was noted inside it; what that was holds behind it", () =>
    expect(paint([entry(1, 300, { kind: "checkIn", ground: "mud" })], 1000, 2000)).toEqual([
      [200, "grass"],
      [301, "grass"],
      [400, "mud"],
    ]));
  test("to the end of the way nothing goes on", () =>
    expect(paint([], 4000, 9000)).toEqual([[860, "grass"]]));
  test("a place at which it stood is reached before the stand", () => {
    expect(timeAt(TRACK, 2500) - BEGUN).toBe(500);
    expect(timeAt(TRACK, 2600) - BEGUN).toBe(580);
    expect(timeAt(TRACK, 0)).toBe(BEGUN);
  });
});

describe("what a log tells a clock", () => {
  test("places and stops with a time, by the display where no recorder was read; nothing struck", () => {
    const log = foldLog([
      entry(1, 0, { kind: "start", percent: 100 }),
      entry(2, 60, { kind: "checkIn", displayM: 300 }),
      entry(3, 90, { kind: "stop" }),
      entry(4, null, { kind: "checkIn", distanceM: 900 }),
      entry(5, 300, { kind: "checkIn", distanceM: 1500, displayM: 1600 }),
      entry(6, 400, { kind: "checkIn", distanceM: 2000 }),
      entry(7, null, { kind: "strike", target: entry(6, 0, {}).id, field: "distanceM" }),
      entry(8, 500, { kind: "note", note: "gulls" }),
    ]);
    expect(notedMoments(log).map(({ timeS, ...rest }) => ({ at: timeS - BEGUN, ...rest }))).toEqual([
      { at: 0, distanceM: 0, byDisplay: false, stood: true },
      { at: 60, distanceM: 300, byDisplay: true, stood: false },
      { at: 90, distanceM: null, byDisplay: false, stood: true },
      { at: 300, distanceM: 1500, byDisplay: false, stood: false },
    ]);
  });
  test("a film's clock is the middle of what was said in it", () => {
    const said = (n: number, atS: number, filmS: number) =>
      entry(
        n,
        atS,
        { kind: "checkIn", percent: 80 },
        { source: { kind: "narration", filmS, words: "eighty" } },
      );
    const clock = filmClock(foldLog([said(1, 100, 40), said(2, 200, 141), said(3, 900, 300)]))!;
    expect(clock.beganS! - BEGUN).toBe(60);
    expect(clock.saidS).toEqual([40, 141, 300]);
    expect(clock.moments).toBe(3);
    expect(clock.spreadS).toBeGreaterThan(100);
    expect(filmClock(foldLog([entry(1, 0, { kind: "start" })]))).toBeNull();
  });
  describe("a film that began at a moment", () => {
    const said = (n: number, atS: number | null, filmS: number) =>
      entry(
        n,
        atS,
        { kind: "checkIn", percent: 90 - n },
        { source: { kind: "narration", filmS, words: "so" } },
      );
    test("gives each of its lines its time: those that had none, and those that were elsewhere", () => {
      const log = foldLog([
        said(1, null, 40),
        said(2, 160.2, 100),
        said(3, 700, 200),
        entry(4, 900, { kind: "checkIn", percent: 40 }),
        said(5, null, 300),
        entry(6, null, { kind: "strike", target: said(5, null, 300).id }),
      ]);
      expect(filmClock(log)).toMatchObject({ moments: 2, untimed: 1 });
      const timed = timedByFilm(log, BEGUN + 60);
      expect(timed.map(({ entry: { body }, timeS }) => [body, timeS - BEGUN])).toEqual([
        [{ kind: "checkIn", percent: 89 }, 100],
        [{ kind: "checkIn", percent: 87 }, 260],
      ]);
    });
    test("has a clock without any line that has a time, and no beginning yet", () => {
      const log = foldLog([said(1, null, 40), said(2, null, 100)]);
      expect(filmClock(log)).toEqual({ beganS: null, spreadS: 0, moments: 0, untimed: 2, saidS: [40, 100] });
      expect(timedByFilm(log, BEGUN)).toHaveLength(2);
    });
    test("changes nothing where every line is there already", () => {
      const log = foldLog([said(1, 100, 40), said(2, 160.3, 100)]);
      expect(timedByFilm(log, BEGUN + 60)).toEqual([]);
    });
  });
});

describe("what is proposed", () => {
  const found = (offsetS: number, sdS: number, sure = 1) => ({ offsetS, sdS, sure, rivals: [] });
  test("nothing within the doubt, nothing that is not sure, else the offset", () => {
    expect(proposedOffset(found(-3604.04, 1))).toBe(-3604);
    expect(proposedOffset(found(3, 0.7))).toBe(0);
    expect(proposedOffset(found(20, 15))).toBe(0);
    expect(proposedOffset(found(-3600, 1, 0.6))).toBe(0);
    expect(proposedOffset(null)).toBe(0);
  });
  test("a log without times and a meter without speed leave a recorder's clock as it is", () => {
    const track = {
      timeS: TRACK.timeS,
      lat: TRACK.distanceM.map((metres) => metres / 111_195),
      lon: [0, 0, 0, 0],
      eleM: [null, null, null, null],
    };
    expect(tieTrack(track, { log: [], samples: null })).toBeNull();
    const samples = { timeS: TRACK.timeS, volts: [50, 50, 50, 50], amps: [1, 1, 1, 1] };
    expect(tieSamples(samples, { log: [], track: null })).toBeNull();
    expect(tieSamples(samples, { log: [], track })).toBeNull();
  });
});
