import { nth } from "#core/base";
import type { TrackProfile } from "#core/ride/distance";

/** How something went along a clock, in even steps; NaN where nothing was recorded. */
export interface Series {
  /** Of the first step, s by its own clock. */
  readonly startS: number;
  readonly stepS: number;
  readonly values: Float64Array;
}

/** Something as a device recorded it: its moments, s, rising, and its values. */
export interface Recorded {
  readonly timeS: readonly number[];
  readonly values: readonly number[];
}

/** Longer without a sample is a hole, s. */
const HOLE_S = 15;
/** No ride lasts longer, s: what lies behind is not looked at. */
const LONGEST_S = 3 * 86_400;

/**
 * Samples as means over even steps; a step without one is bridged where the hole is short.
 *
 * @returns null for less than two samples
 */
export function onGrid({ timeS, values }: Recorded, stepS: number): Series | null {
  const [first, last] = [timeS[0], timeS.at(-1)];
  if (first === undefined || last === undefined || last <= first) return null;
  const startS = Math.floor(first / stepS) * stepS;
  const count = 1 + Math.floor((Math.min(last, first + LONGEST_S) - startS) / stepS);
  const [sums, times] = [new Float64Array(count), new Float64Array(count)];
  for (let i = 0; i < timeS.length; i += 1) {
    const at = Math.floor((nth(timeS, i) - startS) / stepS);
    const value = nth(values, i);
    if (at >= count || !Number.isFinite(value)) continue;
    sums[at] = (sums[at] ?? 0) + value;
    times[at] = (times[at] ?? 0) + 1;
  }
  const grid = sums.map((sum, at) => (times[at] ? sum / (times[at] ?? 1) : NaN));
  return { startS, stepS, values: bridged(grid, Math.ceil(HOLE_S / stepS)) };
}

/** Short holes bridged straight. */
function bridged(grid: Float64Array, most: number): Float64Array {
  let last = -1;
  for (let at = 0; at < grid.length; at += 1) {
    const value = grid[at] ?? NaN;
    if (Number.isNaN(value)) continue;
    if (last >= 0 && at - last > 1 && at - last <= most) {
      const before = grid[last] ?? NaN;
      for (let k = last + 1; k < at; k += 1) grid[k] = before + ((value - before) * (k - last)) / (at - last);
    }
    last = at;
  }
  return grid;
}

/** Mean of neighbours over so many steps: what two devices smooth differently is smoothed alike. */
export function smoothed({ values, ...series }: Series, steps: number): Series {
  const half = Math.floor(steps / 2);
  const even = values.map((_, at) => {
    let [sum, count] = [0, 0];
    for (let k = Math.max(0, at - half); k <= Math.min(values.length - 1, at + half); k += 1) {
      const value = values[k] ?? NaN;
      if (!Number.isNaN(value)) [sum, count] = [sum + value, count + 1];
    }
    return Number.isNaN(values[at] ?? NaN) ? NaN : sum / count;
  });
  return { ...series, values: even };
}

/** Speed along a track, m/s, each at the middle of its step; standing where the recorder paused. */
export function speedAlong({ timeS, distanceM }: Pick<TrackProfile, "timeS" | "distanceM">): Recorded {
  const moments: number[] = [];
  const values: number[] = [];
  for (let i = 1; i < timeS.length; i += 1) {
    const [from, to] = [nth(timeS, i - 1), nth(timeS, i)];
    if (to <= from) continue;
    const speed = (nth(distanceM, i) - nth(distanceM, i - 1)) / (to - from);
    // A pause is one long step: it stood through all of it.
    for (let at = from; at < to; at += 1) {
      moments.push(at);
      values.push(speed);
    }
  }
  return { timeS: moments, values };
}

/** A bike and its rider of no particular weight: what is compared is when it takes power, not how much. */
const [MASS_KG, CRR, HALF_RHO_CDA, GRAVITY] = [115, 0.008, 0.32, 9.81];
/** A slope is taken over this way, m: heights jitter. */
const SLOPE_M = 40;

/** Power at the wheel that a track's speeds and slopes ask for, W, never less than none: the shape of what a meter reads. */
export function powerAlong(track: TrackProfile): Recorded {
  const speed = smoothed(
    onGrid(speedAlong(track), 1) ?? { startS: 0, stepS: 1, values: new Float64Array() },
    5,
  );
  const { values } = speed;
  let place = 0;
  const slope = (timeS: number): number => {
    if (!track.hasHeights) return 0;
    while (place < track.timeS.length - 1 && nth(track.timeS, place) < timeS) place += 1;
    let back = place;
    while (back > 0 && nth(track.distanceM, place) - nth(track.distanceM, back) < SLOPE_M) back -= 1;
    const run = nth(track.distanceM, place) - nth(track.distanceM, back);
    return run > SLOPE_M / 2 ? (nth(track.heightM, place) - nth(track.heightM, back)) / run : 0;
  };
  const moments = Array.from(values, (_, at) => speed.startS + at + 0.5);
  return {
    timeS: moments,
    values: moments.map((timeS, at) => {
      const v = values[at] ?? NaN;
      const gains = ((values[at + 2] ?? NaN) - (values[at - 2] ?? NaN)) / 4;
      const force = MASS_KG * (GRAVITY * (CRR + slope(timeS)) + (Number.isFinite(gains) ? gains : 0));
      return Number.isNaN(v) ? NaN : Math.max(0, v * (force + HALF_RHO_CDA * v * v));
    }),
  };
}
