import type { Ground } from "#core/fields";
import { nth, METRES_PER_MILE } from "#core/base";
import type { Rng } from "#core/world";

/** A stretch of one level and one ground. */
export interface Stretch {
  readonly toM: number;
  readonly level: string;
  readonly ground: Ground;
}

/** A way to ride: stretches, heights, wind along it. */
export interface TrueCourse {
  readonly lengthM: number;
  readonly stretches: readonly Stretch[];
  heightAt(metres: number): number;
  slopeAt(metres: number): number;
  /** How strong the wind is, m/s. */
  readonly windMps: number;
  /** Mean wind against the rider, m/s, by place: a loop turns through it. */
  headwindAt(metres: number): number;
  /** The rider's effort against the usual, by place; 1 unless said. */
  effortAt?(metres: number): number;
}

/** Draws a loop, or a row of them, in low hills; stretches of two to six miles by turns of level and ground. */
export function drawCourse(
  chance: Rng,
  miles: number,
  levels: readonly string[],
  grounds: readonly Ground[],
  climbPerMileM: number,
): TrueCourse {
  const lengthM = miles * METRES_PER_MILE;
  const stretches: Stretch[] = [];
  let at = 0;
  for (let i = 0; at < lengthM; i += 1) {
    at += chance.between(2, 6) * METRES_PER_MILE;
    stretches.push({
      toM: at,
      level: nth(levels, i % levels.length),
      ground: nth(grounds, Math.floor(i / 2) % grounds.length),
    });
  }
  const waves = [1900, 830, 410].map((base) => ({
    length: base * chance.between(0.8, 1.25),
    phase: chance.between(0, 2 * Math.PI),
    weight: base / 1900,
  }));
  // A sine of height h climbs 2 h a wave length; the three together climb about the wanted metres a mile.
  const perMile = waves.reduce((sum, { length, weight }) => sum + (2 * weight * METRES_PER_MILE) / length, 0);
  const height = climbPerMileM / perMile / 0.75;
  const loopM = chance.between(4, 9) * METRES_PER_MILE;
  const windMps = Math.abs(chance.normal(0, 2.2));
  const windFrom = chance.between(0, 2 * Math.PI);
  return {
    lengthM,
    stretches,
    windMps,
    heightAt: (metres) =>
      waves.reduce(
        (sum, { length, phase, weight }) =>
          sum + weight * height * (1 + Math.sin((2 * Math.PI * metres) / length + phase)),
        0,
      ),
    slopeAt: (metres) =>
      waves.reduce(
        (sum, { length, phase, weight }) =>
          sum +
          ((2 * Math.PI) / length) * weight * height * Math.cos((2 * Math.PI * metres) / length + phase),
        0,
      ),
    headwindAt: (metres) => windMps * Math.cos((2 * Math.PI * metres) / loopM + windFrom),
  };
}
