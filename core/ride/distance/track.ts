import { nth, interpolate, lastOf } from "#core/base";
/** A recorded track as parallel columns. Times in seconds since the epoch, degrees, metres. */
export interface Track {
  readonly timeS: readonly number[];
  readonly lat: readonly number[];
  readonly lon: readonly number[];
  /** Height, or null where the recorder gave none. */
  readonly eleM: readonly (number | null)[];
}

/** What a track says along the way: distance and climb since its start at each point. */
export interface TrackProfile {
  readonly timeS: readonly number[];
  readonly distanceM: readonly number[];
  readonly gainM: readonly number[];
  readonly lossM: readonly number[];
  /** Height at each point, the median of five; empty where a height is missing. */
  readonly heightM: readonly number[];
  readonly movingS: number;
  readonly totalM: number;
  readonly meanSpeedMps: number;
  readonly topSpeedMps: number;
  /** Bridged straight: over 10 s without a point, while moving. */
  readonly gaps: number;
  /** Left out: they need over 30 m/s. */
  readonly jumps: number;
  readonly hasHeights: boolean;
}

const EARTH_M = 6371008.8;
const STOPPED_MPS = 0.5;
const IMPOSSIBLE_MPS = 30;
const GAP_S = 10;
const CLIMB_STEP_M = 3;

/**
 * Great-circle distance in metres between two points in degrees (haversine, mean earth radius).
 *
 * @example haversine(0, 0, 0, 1).toFixed(0) === "111195"
 */
export function haversine(latA: number, lonA: number, latB: number, lonB: number): number {
  const rad = Math.PI / 180;
  const a =
    Math.sin(((latB - latA) * rad) / 2) ** 2 +
    Math.cos(latA * rad) * Math.cos(latB * rad) * Math.sin(((lonB - lonA) * rad) / 2) ** 2;
  return 2 * EARTH_M * Math.asin(Math.min(1, Math.sqrt(a)));
}

function median5(values: readonly number[], i: number): number {
  const window = values.slice(Math.max(0, i - 2), i + 3).sort((a, b) => a - b);
  return nth(window, Math.floor(window.length / 2));
}

/**
 * Climb and descent along a row of heights: 3 m of hysteresis on a 5-point median. Same length as the input, cumulative.
 *
 * @example climbAlong([0, 0, 0, 10, 10, 10, 10, 10]).gainM.at(-1) === 10
 */
export function climbAlong(heights: readonly number[]): {
  readonly gainM: readonly number[];
  readonly lossM: readonly number[];
} {
  const gainM: number[] = [];
  const lossM: number[] = [];
  let anchor = heights.length ? median5(heights, 0) : 0;
  let gain = 0;
  let loss = 0;
  heights.forEach((_, i) => {
    const change = median5(heights, i) - anchor;
    if (Math.abs(change) >= CLIMB_STEP_M) {
      if (change > 0) gain += change;
      else loss -= change;
      anchor += change;
    }
    gainM.push(gain);
    lossM.push(loss);
  });
  return { gainM, lossM };
}

/**
 * Length, moving time, speed and climb of a track. Steps slower than 0.5 m/s are stops and add nothing; points that
 * need over 30 m/s are left out; gaps over 10 s are bridged straight and counted.
 */
export function profileOf(track: Track): TrackProfile {
  const kept: number[] = [];
  const distanceM: number[] = [];
  let total = 0;
  let movingS = 0;
  let top = 0;
  let gaps = 0;
  let jumps = 0;
  for (let i = 0; i < track.timeS.length; i += 1) {
    const last = kept.at(-1);
    if (last !== undefined) {
      const seconds = nth(track.timeS, i) - nth(track.timeS, last);
      if (seconds <= 0) continue;
      const metres = haversine(
        nth(track.lat, last),
        nth(track.lon, last),
        nth(track.lat, i),
        nth(track.lon, i),
      );
      const speed = metres / seconds;
      if (speed > IMPOSSIBLE_MPS) {
        jumps += 1;
        continue;
      }
      if (speed >= STOPPED_MPS) {
        total += metres;
        movingS += seconds;
        if (seconds > GAP_S) gaps += 1;
        else top = Math.max(top, speed);
      }
    }
    kept.push(i);
    distanceM.push(total);
  }
  const heights = kept.map((i) => track.eleM[i] ?? null);
  const hasHeights = heights.length > 0 && heights.every((height) => height !== null);
  const climb = hasHeights
    ? climbAlong(heights.map((height) => height ?? 0))
    : { gainM: kept.map(() => 0), lossM: kept.map(() => 0) };
  return {
    timeS: kept.map((i) => nth(track.timeS, i)),
    distanceM,
    ...climb,
    heightM: hasHeights ? heights.map((_, i) => median5(heights as number[], i)) : [],
    movingS,
    totalM: total,
    meanSpeedMps: movingS > 0 ? total / movingS : 0,
    topSpeedMps: top,
    gaps,
    jumps,
    hasHeights,
  };
}

/** Linear reading of a cumulative column at a time; undefined outside the track. */
export function trackAt<Column extends "distanceM" | "gainM" | "lossM">(
  profile: Pick<TrackProfile, "timeS" | Column>,
  column: Column,
  timeS: number,
): number | undefined {
  const { timeS: times } = profile;
  if (times.length === 0 || timeS < nth(times, 0) || timeS > lastOf(times)) return undefined;
  return interpolate(times, profile[column], timeS);
}

/** Linear reading of climb at a distance along the track, for marks that have no time. */
export function climbAt(profile: TrackProfile, column: "gainM" | "lossM", distanceM: number): number {
  const { distanceM: along } = profile;
  return along.length === 0 ? 0 : interpolate(along, profile[column], distanceM);
}
