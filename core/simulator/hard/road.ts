import type { Ground } from "#core/fields";
import { nth, METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import type { Stretch, TrueCourse } from "../course.ts";
import type { Rng } from "../random.ts";
import type { TrueRig } from "../ride.ts";
import type { HardKind } from "./kinds.ts";

/** Levels of the hard stand-in's bike. */
export const HARD_LEVELS = ["eco", "tour", "throttle"] as const;
const MILES = 170;
/** Half a word for effort means this much to either side. */
const EFFORT_SPREAD = 0.28;
const WAVES = 9;

/** Which levels and grounds are ridden, in stretches of half a mile to seven. */
function stretchesOf(chance: Rng, lengthM: number, mixed: boolean): readonly Stretch[] {
  const stretches: Stretch[] = [];
  const grounds: readonly Ground[] = mixed ? ["asphalt", "fine gravel", "grass"] : ["asphalt"];
  const levels = mixed ? HARD_LEVELS : ([chance.happens(0.5) ? "eco" : "tour"] as const);
  let at = 0;
  while (at < lengthM) {
    at += (mixed ? chance.between(0.5, 7) : 40) * METRES_PER_MILE;
    stretches.push({
      toM: at,
      level: nth(levels, Math.floor(chance.next() * levels.length)),
      ground: nth(grounds, Math.floor(chance.next() ** 2 * grounds.length)),
    });
  }
  return stretches;
}

/**
 * A road whose climb comes in lumps: waves from half a mile to twelve, long flats among them, a wind that stays over miles,
 * a rider whose effort drifts.
 */
export function drawRoad(chance: Rng, kind: HardKind): TrueCourse {
  const lengthM = MILES * METRES_PER_MILE;
  const climbPerMile = chance.between(...(kind.climb ?? [2, 12]));
  const waves = Array.from({ length: WAVES }, (_, i) => ({
    length: 800 * 1.5 ** i * chance.between(0.8, 1.25),
    phase: chance.between(0, 2 * Math.PI),
    weight: 1.28 ** i * chance.between(0.3, 1.7),
  }));
  // Hills come and go over a dozen miles.
  const lumpM = chance.between(9, 16) * METRES_PER_MILE;
  const lumpAt = chance.between(0, 2 * Math.PI);
  const swell = (metres: number) => 0.55 + 0.45 * Math.sin((2 * Math.PI * metres) / lumpM + lumpAt);
  const raw = (metres: number) =>
    swell(metres) *
    waves.reduce(
      (sum, { length, phase, weight }) => sum + weight * Math.sin((2 * Math.PI * metres) / length + phase),
      0,
    );
  let rawGain = 0;
  for (let at = 0; at < lengthM; at += 50) rawGain += Math.max(0, raw(at + 50) - raw(at));
  const scale = (climbPerMile * MILES) / rawGain;
  const heightAt = (metres: number) => 400 + scale * raw(metres);
  const windMps = Math.abs(chance.normal(0, 2.5));
  const turnM = chance.between(3, 14) * METRES_PER_MILE;
  const windFrom = chance.between(0, 2 * Math.PI);
  const habitM = 3 * METRES_PER_MILE;
  const efforts = Array.from({ length: Math.ceil(lengthM / habitM) + 1 }, () =>
    Math.exp(chance.normal(0, EFFORT_SPREAD / 2)),
  );
  return {
    lengthM,
    stretches: stretchesOf(chance, lengthM, kind.mixed ?? false),
    windMps,
    heightAt,
    slopeAt: (metres) => (heightAt(metres + 10) - heightAt(metres - 10)) / 20,
    headwindAt: (metres) => windMps * Math.cos((2 * Math.PI * metres) / turnM + windFrom),
    effortAt: (metres) => nth(efforts, Math.floor(metres / habitM)),
  };
}

/** A bike and rider from beyond the assumptions. */
export function drawHardRig(chance: Rng): TrueRig {
  const calm = chance.between(9.5, 14) * MPS_PER_MPH;
  return {
    massKg: chance.between(85, 165),
    cdA: chance.between(0.42, 0.78),
    crr: chance.between(0.005, 0.015),
    etaM: chance.between(0.7, 0.86),
    lightsOn: chance.happens(0.3),
    levels: {
      eco: { speedMps: calm, motorW: 220 },
      tour: { speedMps: calm * chance.between(1.15, 1.45), motorW: 420 },
      throttle: { speedMps: calm * chance.between(1.1, 1.5), motorW: 520 },
    },
    riderW: chance.between(15, 90),
    holds: chance.happens(0.4) ? "power" : "speed",
    stopsPerMile: chance.between(0.1, 2.5),
    assistToMps: 20 * MPS_PER_MPH,
    lowPowerAt: chance.between(0.86, 0.99),
  };
}
