import { climbAt, trackAt, type TrackProfile } from "#core/ride/distance";
import type { Timeline } from "#core/ride/log";
import { nth, MPS_PER_MPH, meanOf } from "#core/base";
import type { TelemetryRecord, TestRecord } from "#core/records";
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

/** Slope over a window by the track's heights; null where none tells. */
function slopeOver(track: TrackProfile | null, fromS: number, toS: number): number | null {
  if (!track?.hasHeights) return null;
  const [a, b] = [trackAt(track, "distanceM", fromS), trackAt(track, "distanceM", toS)];
  if (a === undefined || b === undefined || !(b - a > 10)) return null;
  const rise = climbAt(track, "gainM", b) - climbAt(track, "gainM", a);
  const fall = climbAt(track, "lossM", b) - climbAt(track, "lossM", a);
  return (rise - fall) / (b - a);
}

/** A recorder's speed is taken over so long on each side, s: a single point strays too far. */
const ASIDE_S = 3;
/** Slower than this the bike stands, m/s; and standing, it draws less than this share of what it draws in motion. */
const [STANDS_MPS, STANDING_SHARE] = [0.5, 0.35];
/** Fewer samples at a stand say nothing of whose clock is right. */
const LEAST_STANDING = 10;

/** Speed at each of a meter's samples by the recorder beside it; NaN off its way. */
function speedBeside(track: TrackProfile, timeS: readonly number[]): readonly number[] {
  return timeS.map((at) => {
    const [a, b] = [trackAt(track, "distanceM", at - ASIDE_S), trackAt(track, "distanceM", at + ASIDE_S)];
    return a === undefined || b === undefined ? NaN : (b - a) / (2 * ASIDE_S);
  });
}

/** Whether a meter draws little where the recorder stands: their clocks agree. */
function standTogether(speeds: readonly number[], watts: readonly number[]): boolean {
  const drawn = (stands: boolean) =>
    watts.filter((_, i) => Number.isFinite(nth(speeds, i)) && nth(speeds, i) < STANDS_MPS === stands);
  const [standing, moving] = [drawn(true), drawn(false)];
  return (
    standing.length >= LEAST_STANDING &&
    moving.length > 0 &&
    meanOf(standing) < STANDING_SHARE * Math.max(0, meanOf(moving))
  );
}

/** A meter's speeds: its own, else those of the recorder beside it, where their clocks agree. */
function speedsOf(
  { timeS, volts, amps, speedMps }: TelemetryRecord,
  track: TrackProfile | null,
): readonly number[] | null {
  if (speedMps) return speedMps;
  if (!track) return null;
  const speeds = speedBeside(track, timeS);
  const watts = timeS.map((_, i) => nth(volts, i) * nth(amps, i));
  return standTogether(speeds, watts) ? speeds : null;
}

/** Windows of one ride in which the speed was held on one level and ground. */
function windowsOf(
  record: TestRecord,
  course: Timeline,
  tracks: readonly (TrackProfile | null)[],
  ride: number,
) {
  const { telemetry } = nth(record.rides, ride);
  const speedMps = telemetry && speedsOf(telemetry, tracks[ride] ?? null);
  if (!telemetry || !speedMps) return [];
  const { timeS, volts, amps } = telemetry;
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
    const held = meanOf(inside);
    const leg = legs.find(({ fromS, toS }) => fromS <= nth(timeS, from) && toS >= nth(timeS, i));
    const slope = slopeOver(tracks[ride] ?? null, nth(timeS, from), nth(timeS, i));
    const steady =
      nth(timeS, i) - nth(timeS, from) < 2 * WINDOW_S &&
      held > SLOWEST_MPS &&
      inside.every((speed) => Math.abs(speed / held - 1) < STRAYS);
    if (steady && leg && (slope === null || Math.abs(slope) < LEVEL)) {
      const watts = meanOf(inside.map((_, k) => nth(volts, from + k) * nth(amps, from + k)));
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
      const whPerM = meanOf(windows.map((window) => window.whPerM));
      const scatter = Math.sqrt(meanOf(windows.map((window) => (window.whPerM - whPerM) ** 2)));
      return {
        level: nth(windows, 0).level,
        ground: nth(windows, 0).ground,
        speedMps: meanOf(windows.map((window) => window.speedMps)),
        whPerM: { mean: whPerM, sd: Math.hypot(scatter / Math.sqrt(windows.length), FLOOR * whPerM) },
        windows: windows.length,
        manyWays: windows.length >= MANY_WINDOWS,
      };
    });
}
