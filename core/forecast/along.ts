import { reversed, type RouteSegment, type Route } from "#core/route";
import { num, nth, DEFAULTS, pieceAt } from "#core/base";
import type { Knowledge } from "./knowledge.ts";
import { applyAll, LASTING_UNKNOWNS, type RideConditions, segmentCost, UNKNOWNS } from "#core/bike";

/** Running sums over a lap's pieces, from 0. */
interface Sums {
  readonly wh: Float64Array;
  readonly s: Float64Array;
}

function sumsOf(pieces: readonly RouteSegment[], rig: RideConditions): Sums {
  const wh = new Float64Array(pieces.length + 1);
  const s = new Float64Array(pieces.length + 1);
  pieces.forEach((piece, i) => {
    const use = segmentCost(piece, rig);
    wh[i + 1] = num(wh, i) + use.wh;
    s[i + 1] = num(s, i) + use.s;
  });
  return { wh, s };
}

/** A value with its slopes along the unknowns, one for each of UNKNOWNS and a last for the road model itself. */
export interface Sloped {
  readonly mean: number;
  readonly slopes: readonly number[];
}

export const plus = (a: Sloped, b: Sloped, by = 1): Sloped => ({
  mean: a.mean + by * b.mean,
  slopes: a.slopes.map((slope, i) => slope + by * nth(b.slopes, i)),
});

/** Variance of a sloped value: the bike's own unknowns as far as they are known, the day's with sd 1. */
export function slopedVariance({ slopes }: Sloped, { covariance }: Knowledge): number {
  let sum = 0;
  for (let i = 0; i < LASTING_UNKNOWNS; i += 1)
    for (let j = 0; j < LASTING_UNKNOWNS; j += 1)
      sum += nth(slopes, i) * nth(slopes, j) * nth(nth(covariance, i), j);
  for (const slope of slopes.slice(LASTING_UNKNOWNS)) sum += slope * slope;
  return sum;
}

/** One named unknown's part of a variance; the parts of all sum to 1. */
export interface UnknownShare {
  readonly name: string;
  readonly share: number;
}

/**
 * What a sloped value's variance is made of, the largest first. What lasts and is known together is shared out by what each
 * would take along, so that a part can be under 0 where two offset one another. `[]` for a value without doubt.
 */
export function sharesOfUnknowns(value: Sloped, { covariance }: Knowledge): readonly UnknownShare[] {
  const { slopes } = value;
  const parts = UNKNOWNS.map(({ name }, i) => ({
    name,
    variance:
      i < LASTING_UNKNOWNS
        ? nth(covariance, i).reduce((sum, each, j) => sum + nth(slopes, i) * nth(slopes, j) * each, 0)
        : nth(slopes, i) ** 2,
  }));
  const whole = parts.reduce((sum, { variance }) => sum + variance, 0);
  if (!(whole > 0)) return [];
  return parts
    .map(({ name, variance }) => ({ name, share: variance / whole }))
    .sort((a, b) => b.share - a.share);
}

/** Energy and time along a way, laps repeated, at any place; and the energy of riding back from there to the lap's start. */
export interface Along {
  readonly way: Route;
  readonly knowledge: Knowledge;
  readonly whTo: (atM: number) => Sloped;
  readonly secondsTo: (atM: number) => Sloped;
  /** From a place within the lap back to its start, the way one came. */
  readonly whBack: (inLapM: number) => Sloped;
}

/** How far an unknown is moved to see what it does, in sds. */
const NUDGE = 0.25;

/** Rides a way in all its unknowns once: means at what is known, slopes by small differences. */
export function rideAlong(way: Route, rig: RideConditions, knowledge: Knowledge): Along {
  const back = reversed(way.lap);
  const at = (k: number, by: number) =>
    applyAll(
      rig,
      UNKNOWNS.map((_, i) => (knowledge.mean[i] ?? 0) + (i === k ? by : 0)),
    );
  const base = at(-1, 0);
  const rides = (pieces: readonly RouteSegment[]) => ({
    base: sumsOf(pieces, base),
    nudged: UNKNOWNS.map((_, k) => sumsOf(pieces, at(k, NUDGE))),
  });
  const [out, home] = [rides(way.lap), rides(back)];
  const bounds = new Float64Array(way.lap.length + 1);
  way.lap.forEach(({ lengthM }, i) => (bounds[i + 1] = num(bounds, i) + lengthM));
  const placeIn = (inLapM: number) => {
    const low = pieceAt(bounds, inLapM);
    const share = (inLapM - num(bounds, low)) / (num(bounds, low + 1) - num(bounds, low));
    return { low, share: Math.min(1, Math.max(0, share)) };
  };
  const read = (sums: Float64Array, { low, share }: { low: number; share: number }) =>
    num(sums, low) + share * (num(sums, low + 1) - num(sums, low));
  const sloped = (of: (sums: Sums) => number, ride: typeof out, model: number): Sloped => {
    const mean = of(ride.base);
    return { mean, slopes: [...ride.nudged.map((sums) => (of(sums) - mean) / NUDGE), mean * model] };
  };
  const last = way.lap.length;
  const along = (column: "wh" | "s", model: number) => (atM: number) => {
    const laps = Math.floor(atM / way.lapM + 1e-9);
    const place = placeIn(Math.max(0, atM - laps * way.lapM));
    return sloped((sums) => laps * num(sums[column], last) + read(sums[column], place), out, model);
  };
  return {
    way,
    knowledge,
    whTo: along("wh", DEFAULTS.dayModelSdShare),
    secondsTo: along("s", 0),
    whBack: (inLapM) => {
      const place = placeIn(Math.min(way.lapM, Math.max(0, inLapM)));
      const mirrored = { low: last - 1 - place.low, share: 1 - place.share };
      return sloped((sums) => num(sums.wh, last) - read(sums.wh, mirrored), home, DEFAULTS.dayModelSdShare);
    },
  };
}
