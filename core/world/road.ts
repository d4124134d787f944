import type { Ground } from "#core/fields";
import type { Rng } from "./chance.ts";
import type { Kind } from "./kinds.ts";
import { at, MILE_M } from "./units.ts";

/** A stretch of one level and one ground. */
export interface Stretch {
  readonly toM: number;
  readonly level: string;
  readonly ground: Ground;
}

/** A way to ride: stretches, heights, wind along it. */
export interface Road {
  readonly lengthM: number;
  readonly stretches: readonly Stretch[];
  heightAt(metres: number): number;
  slopeAt(metres: number): number;
  /** How strong the wind is, m/s; and what of it is against the rider, by place, without its gusts. */
  readonly windMps: number;
  headwindAt(metres: number): number;
  /** How much more it rolls than asphalt. */
  readonly rolls: Readonly<Record<string, number>>;
  /** The rider's mood by place: effort against the day's own. */
  moodAt(metres: number): number;
}

export const LEVELS = ["eco", "tour", "throttle"] as const;
const LONGEST_M = 170 * MILE_M;
const WAVES = 9;
/** Heights are kept this far apart, with the same slope between. */
const GRID_M = 20;

function drawStretches(chance: Rng, mixed: boolean): readonly Stretch[] {
  const stretches: Stretch[] = [];
  const grounds: readonly Ground[] = mixed ? ["asphalt", "fine gravel", "grass"] : ["asphalt"];
  const levels = mixed ? LEVELS : ([chance.happens(0.5) ? "eco" : "tour"] as const);
  for (let toM = 0; toM < LONGEST_M;) {
    toM += (mixed ? chance.between(0.5, 7) : 40) * MILE_M;
    stretches.push({
      toM,
      level: at(levels, Math.floor(chance.next() * levels.length)),
      ground: at(grounds, Math.floor(chance.next() ** 2 * grounds.length)),
    });
  }
  return stretches;
}

/** A road whose climb comes in lumps: waves from half a mile to twelve, long flats among them, a wind that it turns through. */
export function drawRoad(chance: Rng, kind: Kind): Road {
  const climbPerMile = chance.between(...(kind.climb ?? [2, 12]));
  const waves = Array.from({ length: WAVES }, (_, i) => ({
    length: 800 * 1.5 ** i * chance.between(0.8, 1.25),
    phase: chance.between(0, 2 * Math.PI),
    weight: 1.28 ** i * chance.between(0.3, 1.7),
  }));
  const lumpM = chance.between(9, 16) * MILE_M;
  const lumpFrom = chance.between(0, 2 * Math.PI);
  const shape = (metres: number) =>
    (0.55 + 0.45 * Math.sin((2 * Math.PI * metres) / lumpM + lumpFrom)) *
    waves.reduce(
      (sum, { length, phase, weight }) => sum + weight * Math.sin((2 * Math.PI * metres) / length + phase),
      0,
    );
  const shapes = Float64Array.from({ length: Math.ceil(LONGEST_M / GRID_M) + 2 }, (_, i) =>
    shape(i * GRID_M),
  );
  const gain = shapes.reduce((sum, height, i) => sum + Math.max(0, height - (shapes[i - 1] ?? height)), 0);
  const scale = (climbPerMile * LONGEST_M) / MILE_M / gain;
  const rise = (place: number) => scale * (shapes[place + 1]! - shapes[place]!);
  const windMps = Math.abs(chance.normal(0, 2.5));
  const turnM = chance.between(3, 14) * MILE_M;
  const windFrom = chance.between(0, 2 * Math.PI);
  const moodM = 3 * MILE_M;
  const moods = Array.from({ length: Math.ceil(LONGEST_M / moodM) + 1 }, () =>
    Math.exp(chance.normal(0, 0.14)),
  );
  return {
    lengthM: LONGEST_M,
    stretches: drawStretches(chance, kind.mixed ?? false),
    heightAt: (metres) => {
      const place = Math.floor(metres / GRID_M);
      return 400 + scale * shapes[place]! + rise(place) * (metres / GRID_M - place);
    },
    slopeAt: (metres) => rise(Math.floor(metres / GRID_M)) / GRID_M,
    windMps,
    headwindAt: (metres) => windMps * Math.cos((2 * Math.PI * metres) / turnM + windFrom),
    rolls: { asphalt: 1, "fine gravel": chance.between(1.2, 2), grass: chance.between(1.9, 3.6) },
    moodAt: (metres) => at(moods, Math.floor(metres / moodM)),
  };
}
