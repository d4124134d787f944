import { describe, expect, test } from "@jest/globals";
import {
  filmByTrack,
  offsetByPlaces,
  offsetBySeries,
  offsetOfSamples,
  speedAlong,
  zonePart,
} from "#core/ride/clocks";
import { profileOf, type TrackProfile } from "#core/ride/distance";
import { foldLog, type LiveEntry } from "#core/ride/log";
import { worldTest } from "#tests/world";

/** A ride with a recorder and a logger, by the simulator that knows nothing of clocks. */
function ridden(seed: number, kind: "metered" | "hills, track" = "metered") {
  const key = `${seed} ${kind}`;
  const made = rides.get(key) ?? ride(seed, kind);
  rides.set(key, made);
  return made;
}
const rides = new Map<string, ReturnType<typeof ride>>();
function ride(seed: number, kind: "metered" | "hills, track") {
  const { record } = worldTest(seed, kind, { kind: { told: "track", meter: "logger" } });
  const { track, telemetry } = record.rides[0]!;
  return { profile: profileOf(track!), telemetry: telemetry! };
}
const later = (timeS: readonly number[], byS: number) => timeS.map((each) => each + byS);
const noise = (i: number) => Math.sin(i * 12.9898) * 0.35 + Math.sin(i * 78.233) * 0.25;

describe("a meter's clock against a recorder's", () => {
  test.each([
    [1, 3600.4],
    [2, -7213.6],
    [3, 42.2],
    [4, -5 * 3600 + 9],
    [5, 0],
  ])("by their speeds, ride %i, %f s ahead", (seed, ahead) => {
    const { profile, telemetry } = ridden(seed);
    const found = offsetOfSamples(profile, {
      ...telemetry,
      timeS: later(telemetry.timeS, ahead),
      // A wheel too small, and a sensor that flickers.
      speedMps: telemetry.speedMps!.map((speed, i) => Math.max(0, speed * 1.06 + noise(i))),
    })!;
    expect(Math.abs(found.offsetS + ahead)).toBeLessThan(3 * found.sdS);
    expect(found.sdS).toBeLessThan(2);
    expect(found.sure).toBeGreaterThan(0.99);
  });

  test.each([1, 2, 3])("by when power was drawn, over hills, ride %i", (seed) => {
    const { profile, telemetry } = ridden(seed, "hills, track");
    const { timeS, volts, amps } = telemetry;
    const found = offsetOfSamples(profile, { timeS: later(timeS, 3661), volts, amps })!;
    expect(Math.abs(found.offsetS + 3661)).toBeLessThan(4 * found.sdS);
    expect(found.sdS).toBeLessThan(6);
  });

  test("another ride's has none, or says that it is not sure", () => {
    for (const seed of [1, 2, 3]) {
      const { profile } = ridden(seed);
      const other = ridden(seed + 10).telemetry;
      const found = offsetOfSamples(profile, { ...other, timeS: later(other.timeS, 86_400 * 3) });
      expect(found === null || found.sure < 0.9).toBe(true);
    }
  });

  test("a bike that never changed its speed tells nothing", () => {
    const even = {
      timeS: Array.from({ length: 3000 }, (_, i) => i),
      values: Array(3000).fill(6) as number[],
    };
    expect(offsetBySeries(even, even)).toBeNull();
  });

  test("laps that are alike are rivals, not a finding", () => {
    const lap = (i: number) => 6 + 3 * Math.sin((2 * Math.PI * i) / 600) + Math.sin((2 * Math.PI * i) / 150);
    const laps = (from: number, seconds: number) => ({
      timeS: Array.from({ length: seconds }, (_, i) => 1e9 + from + i),
      values: Array.from({ length: seconds }, (_, i) => lap(from + i) + 2 * noise(i * seconds)),
    });
    const found = offsetBySeries(laps(0, 3600), laps(0, 3600))!;
    expect(Math.abs(found.offsetS)).toBeLessThan(3);
    // Ten minutes further is a lap: a part of it fits as well there.
    const part = laps(1200, 900);
    const shifted = offsetBySeries(laps(0, 3600), { ...part, timeS: later(part.timeS, 320) })!;
    expect(shifted.rivals.length).toBeGreaterThan(0);
    expect(shifted.sure).toBeLessThan(0.9);
  });
});

describe("a recorder's clock against the log's", () => {
  /** Check-ins every three miles and a bit, to the minute and the tenth of a mile. */
  function noted(profile: TrackProfile, scale = 1) {
    const found: { timeS: number; distanceM: number; byDisplay: boolean; stood: boolean }[] = [];
    let next = 0;
    profile.distanceM.forEach((metres, i) => {
      if (metres < next) return;
      next = metres + 5200;
      found.push({
        timeS: Math.round(profile.timeS[i]! / 60) * 60,
        distanceM: Math.round((metres * scale) / 160.9) * 160.9,
        byDisplay: scale !== 1,
        stood: false,
      });
    });
    return found;
  }

  test.each([
    [1, 3600, 1],
    [2, -3600, 1.08],
    [3, 95, 0.93],
    [4, -7 * 3600, 1],
  ])("by the places noted, ride %i, %i s ahead, display at %f", (seed, ahead, scale) => {
    const { profile } = ridden(seed);
    const found = offsetByPlaces({ ...profile, timeS: later(profile.timeS, ahead) }, noted(profile, scale))!;
    expect(Math.abs(found.offsetS + ahead)).toBeLessThan(Math.max(30, 3 * found.sdS));
    expect(found.sdS).toBeLessThan(60);
    expect(found.sure).toBeGreaterThan(0.8);
  });

  test("one place mistyped changes little; two moments tell nothing", () => {
    const { profile } = ridden(2);
    const list = noted(profile);
    list[2] = { ...list[2]!, distanceM: list[2]!.distanceM * 3 };
    const found = offsetByPlaces({ ...profile, timeS: later(profile.timeS, 3600) }, list)!;
    expect(Math.abs(found.offsetS + 3600)).toBeLessThan(30);
    expect(offsetByPlaces(profile, list.slice(0, 2))).toBeNull();
    expect(offsetByPlaces({ timeS: [], distanceM: [] }, list)).toBeNull();
  });
});

describe("a film's clock by a recorder", () => {
  /** A line every few miles of what was said in a film that began so many seconds into the recording; `cutS` are left out before each. */
  function said(profile: TrackProfile, aheadS: number, cutS = 0, scale = 1): readonly LiveEntry[] {
    const beganS = profile.timeS[0]! + aheadS;
    let next = 3000;
    let cuts = 0;
    return profile.distanceM.flatMap((metres, i): readonly LiveEntry[] => {
      if (metres < next || profile.timeS[i]! < beganS + 30) return [];
      next = metres + 4300;
      cuts += cutS;
      const filmS = profile.timeS[i]! - beganS - cuts;
      const distanceM = Math.round((metres * scale) / 160.9) * 160.9;
      return foldLog([
        {
          id: `019a0000-0000-7000-8000-${i.toString(16).padStart(12, "0")}`,
          ...{ seq: i, at: null, supersedes: null },
          body: { kind: "checkIn", distanceM },
          source: { kind: "narration", filmS: Math.max(0, filmS), words: "there we are" },
        },
      ]);
    });
  }
  test.each([
    [1, -120, 1],
    [2, 40, 1.02],
    [3, -3000, 0.99],
    [4, 300, 1],
  ])("that runs on: ride %i, begun %i s into it, odometer at %f", (seed, aheadS, scale) => {
    const { profile } = ridden(seed);
    const tie = filmByTrack(profile, said(profile, aheadS, 0, scale))!;
    expect(Math.abs(tie.beganS - profile.timeS[0]! - aheadS)).toBeLessThan(Math.max(30, 3 * tie.sdS));
    expect(tie.sure).toBeGreaterThan(0.8);
  });
  test.each([
    [7, 60],
    [5, 60],
    [6, 60],
    [2, 200],
    [3, 400],
  ])("that was cut is none, or not sure: ride %i, %i s out before each place", (seed, cutS) => {
    const { profile } = ridden(seed);
    expect(filmByTrack(profile, said(profile, -60, cutS))?.sure ?? 0).toBeLessThan(0.9);
  });
  test("of two places only, of nothing said, of no recorder: not told", () => {
    const { profile } = ridden(2);
    const lines = said(profile, 0);
    expect(filmByTrack(profile, lines.slice(0, 2))).toBeNull();
    expect(filmByTrack(profile, [])).toBeNull();
    expect(filmByTrack({ timeS: [], distanceM: [] }, lines)).toBeNull();
    expect(
      filmByTrack(
        profile,
        lines.map(({ source: _, ...line }) => line),
      ),
    ).toBeNull();
  });
  test("one line that was struck, and one that is wrong, change little", () => {
    const { profile } = ridden(3);
    const lines = said(profile, -60).map((line, i) =>
      i === 1
        ? { ...line, struck: true }
        : i === 2
          ? { ...line, body: { kind: "checkIn" as const, distanceM: 90_000 } }
          : line,
    );
    const tie = filmByTrack(profile, lines)!;
    expect(Math.abs(tie.beganS - profile.timeS[0]! + 60)).toBeLessThan(60);
  });
});

test("an hour off is told from a clock that runs late", () => {
  expect(zonePart(3604)).toBe(3600);
  expect(zonePart(-7190)).toBe(-7200);
  expect(zonePart(19_800)).toBe(19_800);
  expect(zonePart(40)).toBe(0);
  expect(zonePart(1000)).toBe(0);
});

test("a pause of the recorder is time at a stand", () => {
  const { timeS, values } = speedAlong({ timeS: [0, 1, 61, 62], distanceM: [0, 6, 6, 12] });
  expect(values[0]).toBe(6);
  expect(values.filter((speed) => speed === 0)).toHaveLength(60);
  expect(timeS.at(-1)).toBe(61);
});
