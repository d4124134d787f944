import { there, DEFAULTS, MPS_PER_MPH } from "#core/base";
import type { Bike, Effort, Rider, SetUp } from "#core/records";

/** Who rides what. */
export interface Riding {
  readonly bike: Bike;
  readonly setUp: SetUp | null;
  readonly rider: Rider | null;
}

/** Power of an effort in words, W. */
export const EFFORT_W: Readonly<Record<Effort, number>> = {
  none: 0,
  get "feather-light"() {
    return DEFAULTS.featherW;
  },
  get easy() {
    return DEFAULTS.easyW;
  },
  get steady() {
    return DEFAULTS.steadyW;
  },
  get hard() {
    return DEFAULTS.hardW;
  },
};

/** The default of a bike's kind. */
const CDA = {
  upright: "dragAreaM2",
  "panniers or step-through": "dragAreaWide",
  leaning: "dragAreaLow",
} as const;
const CRR = { city: "rollingAsphalt", knobbly: "rollingKnobbly", fat: "rollingFat" } as const;
const ETA_M = { hub: "hubEfficiency", mid: "midEfficiency" } as const;

/**
 * Power at a heart rate on a rider's own line; null without one. Never below nothing.
 *
 * @example wattsAt({ lowBpm: 100, lowW: 60, highBpm: 140, highW: 140 }, 120) === 100
 * @example wattsAt(null, 120) === null
 */
export function wattsAt(rider: Rider | null, bpm: number): number | null {
  if (rider?.lowBpm === undefined || rider.highBpm === undefined) return null;
  const share = (bpm - rider.lowBpm) / (rider.highBpm - rider.lowBpm);
  return Math.max(0, there(rider.lowW) + share * (there(rider.highW) - there(rider.lowW)));
}

/**
 * Share of the motor's power at each level, as noted, else evenly spread from the first to all of it.
 *
 * @example sharesOf({ levels: ["low", "high"], levelShares: [] }).join() === "0.5,1"
 */
export function sharesOf(bike: Bike): readonly number[] {
  return bike.levelShares.length ? bike.levelShares : bike.levels.map((_, i) => (i + 1) / bike.levels.length);
}

/** Speed at each level and on the throttle where nobody rode it: between calm and strong, by rank. */
export function usualSpeeds(bike: Bike): Readonly<Record<string, number>> {
  const top = bike.levels.length - 1;
  const level = (i: number) =>
    MPS_PER_MPH * (DEFAULTS.calmMph + (DEFAULTS.strongMph - DEFAULTS.calmMph) * (top > 0 ? i / top : 0.5));
  return {
    ...Object.fromEntries(bike.levels.map((name, i) => [name, level(i)])),
    ...(bike.throttle && { throttle: DEFAULTS.throttleMph * MPS_PER_MPH }),
  };
}

/**
 * What a bike weighs, kg; assumed where nobody weighed it.
 *
 * @example bikeMass({ massKg: 23 }) === 23
 * @example bikeMass({}) === 25
 */
export const bikeMass = (bike: Pick<Bike, "massKg">): number => bike.massKg ?? DEFAULTS.bikeKg;

/** Bike, rider and load. What was weighed counts, the rest is assumed: by that, and by how sure it is, 1 sd as a share. */
export function massOf({ bike, rider, setUp }: Riding): {
  readonly kg: number;
  readonly weighed: boolean;
  readonly sdShare: number;
} {
  const bikeKg = bikeMass(bike);
  const riderKg = rider?.massKg ?? DEFAULTS.massKg - DEFAULTS.bikeKg;
  const kg = bikeKg + riderKg + (setUp?.carriedKg ?? 0);
  const guessed = [bike.massKg === undefined ? bikeKg : 0, rider?.massKg === undefined ? riderKg : 0];
  const weighed = guessed.every((each) => each === 0);
  const guessSd = DEFAULTS.massGuessSdShare * Math.hypot(...guessed);
  return { kg, weighed, sdShare: Math.hypot(DEFAULTS.massSdShare, guessSd / kg) };
}

/** A bike's road load as its kind lets expect: drag by posture, rolling by tyre, the motor by its place. */
export function roadOf({ bike, setUp }: Pick<Riding, "bike" | "setUp">) {
  return {
    cdA: DEFAULTS[CDA[setUp?.posture ?? "upright"]],
    crr: DEFAULTS[CRR[setUp?.tyreClass ?? "city"]],
    etaD: DEFAULTS.drivetrainEfficiency,
    etaM: DEFAULTS[ETA_M[bike.motor]],
  };
}
