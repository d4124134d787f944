import { climbAt, trackAt, type TrackProfile } from "#core/ride/distance";
import type { Timeline } from "#core/ride/log";
import { nth, MPS_PER_MPH } from "#core/base";
import type { TestRecord } from "#core/records";
import type { SteadyUse } from "./types.ts";

/** A stretch of time over which a speed was held, s. */
const WINDOW_S = 15;
/** How far the speed may stray in it, as a share, and the slowest that counts. */
const STRAYS = 0.04;
const SLOWEST_MPS = 2.5;
/** Steeper windows are no level road, where heights tell. */
const LEVEL = 0.012;
/** Speeds closer than this are one. */
const BIN_MPS = MPS_PER_MPH;
/** Fewer windows than this say too little; so many more cancel wind and slope. */
const LEAST_WINDOWS = 3;
const MANY_WINDOWS = 12;
/** A logger's own error, and what a window's edges leave, as a share. */
const FLOOR = 0.02;

interface Window {
  readonly level: string;
  readonly ground: string;
  readonly speedMps: number;
  readonly whPerM: number;
}

const mean = (values: readonly number[]) => values.reduce((sum, each) => sum + each, 0) / values.length;

/** Slope over a window by the track's heights; null where none tells. */
function slopeOver(track: TrackProfile | null, fromS: number, toS: number): number | null {
  if (!track?.hasHeights) return null;
  const [a, b] = [trackAt(track, "distanceM", fromS), trackAt(track, "distanceM", toS)];
  if (a === undefined || b === undefined || !(b - a > 10)) return null;
  const rise = climbAt(track, "gainM", b) - climbAt(track, "gainM", a);
  const fall = climbAt(track, "lossM", b) - climbAt(track, "lossM", a);
  return (rise - fall) / (b - a);
}

/** Windows of one ride in which the speed was held on one level and ground. */
function windowsOf(
  record: TestRecord,
  course: Timeline,
  tracks: readonly (TrackProfile | null)[],
  ride: number,
) {
  const { telemetry } = nth(record.rides, ride);
  if (!telemetry?.speedMps) return [];
  const { timeS, volts, amps, speedMps } = telemetry;
  const legs = course.legs.flatMap(({ from, to, level, ground, charged }) => {
    const [a, b] = [nth(course.marks, from), nth(course.marks, to)];
    return charged || b.ride !== ride || a.timeS === null || b.timeS === null
      ? []
      : [{ fromS: a.timeS, toS: b.timeS, level, ground }];
  });
  const found: Window[] = [];
  let from = 0;
  for (let i = 1; i < timeS.length; i += 1) {
    if (nth(timeS, i) - nth(timeS, from) < WINDOW_S) continue;
    const inside = speedMps.slice(from, i);
    const held = mean(inside);
    const leg = legs.find(({ fromS, toS }) => fromS <= nth(timeS, from) && toS >= nth(timeS, i));
    const slope = slopeOver(tracks[ride] ?? null, nth(timeS, from), nth(timeS, i));
    const steady =
      nth(timeS, i) - nth(timeS, from) < 2 * WINDOW_S &&
      held > SLOWEST_MPS &&
      inside.every((speed) => Math.abs(speed / held - 1) < STRAYS);
    if (steady && leg && (slope === null || Math.abs(slope) < LEVEL)) {
      const watts = mean(inside.map((_, k) => nth(volts, from + k) * nth(amps, from + k)));
      found.push({ level: leg.level, ground: leg.ground, speedMps: held, whPerM: watts / held / 3600 });
    }
    from = i;
  }
  return found;
}

/**
 * Energy per metre at the speeds that were held, by a logger: each level and ground by about one mile per hour. Rows for
 * the fit of the bike's road load.
 */
export function steadyUse(
  record: TestRecord,
  course: Timeline,
  tracks: readonly (TrackProfile | null)[],
): readonly SteadyUse[] {
  const groups = new Map<string, Window[]>();
  record.rides.forEach((_, ride) => {
    for (const window of windowsOf(record, course, tracks, ride)) {
      const key = `${window.level}/${window.ground}/${Math.round(window.speedMps / BIN_MPS)}`;
      groups.set(key, [...(groups.get(key) ?? []), window]);
    }
  });
  return [...groups.values()]
    .filter((windows) => windows.length >= LEAST_WINDOWS)
    .map((windows) => {
      const whPerM = mean(windows.map((window) => window.whPerM));
      const scatter = Math.sqrt(mean(windows.map((window) => (window.whPerM - whPerM) ** 2)));
      return {
        level: nth(windows, 0).level,
        ground: nth(windows, 0).ground,
        speedMps: mean(windows.map((window) => window.speedMps)),
        whPerM: { mean: whPerM, sd: Math.hypot(scatter / Math.sqrt(windows.length), FLOOR * whPerM) },
        windows: windows.length,
        manyWays: windows.length >= MANY_WINDOWS,
      };
    });
}
