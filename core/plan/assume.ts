import { ASSUMED } from "#core/assumptions";
import type { Course } from "#core/course";
import type { Rig } from "#core/forecast";
import { MPS_PER_MPH } from "#core/quantities";
import type { Bike, Effort, Rider, SetUp } from "#core/records";
import type { Plan } from "./schema.ts";

/** Who rides what. */
export interface Riding {
  readonly bike: Bike;
  readonly setUp: SetUp | null;
  readonly rider: Rider | null;
}

/** Power of an effort in words, W. */
export const EFFORT_W: Readonly<Record<Effort, number>> = {
  none: 0,
  "feather-light": ASSUMED.featherW,
  easy: ASSUMED.easyW,
  steady: ASSUMED.steadyW,
  hard: ASSUMED.hardW,
};

const CDA = {
  upright: ASSUMED.dragAreaM2,
  "panniers or step-through": ASSUMED.dragAreaWide,
  leaning: ASSUMED.dragAreaLow,
} as const;
const CRR = {
  city: ASSUMED.rollingAsphalt,
  knobbly: ASSUMED.rollingKnobbly,
  fat: ASSUMED.rollingFat,
} as const;
const ETA_M = { hub: ASSUMED.hubEfficiency, mid: ASSUMED.midEfficiency } as const;

/** Power at a heart rate on a rider's own line; null without one. Never below nothing. */
export function wattsAt(rider: Rider | null, bpm: number): number | null {
  if (rider?.lowBpm === undefined || rider.highBpm === undefined) return null;
  const share = (bpm - rider.lowBpm) / (rider.highBpm - rider.lowBpm);
  return Math.max(0, rider.lowW! + share * (rider.highW! - rider.lowW!));
}

/** What the rider puts in: nothing on the throttle, else watts typed, a heart rate on their line, or words. */
export function riderWatts(plan: Plan, rider: Rider | null): number {
  if (plan.method.drive === "throttle") return 0;
  if (plan.riderW !== undefined) return plan.riderW;
  const byHeart = plan.bpm === undefined ? null : wattsAt(rider, plan.bpm);
  return byHeart ?? EFFORT_W[plan.effort];
}

/** Share of the motor's power at each level, as noted, else evenly spread from the first to all of it. */
export function sharesOf(bike: Bike): readonly number[] {
  return bike.levelShares.length ? bike.levelShares : bike.levels.map((_, i) => (i + 1) / bike.levels.length);
}

/** Speed at each level and on the throttle where nobody rode it: between calm and strong, by rank. */
export function usualSpeeds(bike: Bike): Readonly<Record<string, number>> {
  const top = bike.levels.length - 1;
  const level = (i: number) =>
    MPS_PER_MPH * (ASSUMED.calmMph + (ASSUMED.strongMph - ASSUMED.calmMph) * (top > 0 ? i / top : 0.5));
  return {
    ...Object.fromEntries(bike.levels.map((name, i) => [name, level(i)])),
    ...(bike.throttle && { throttle: ASSUMED.throttleMph * MPS_PER_MPH }),
  };
}

/** The level a plan rides where its course names none. */
export function levelOf(plan: Plan, bike: Bike): string {
  if (plan.method.drive === "throttle") return "throttle";
  return plan.level && bike.levels.includes(plan.level)
    ? plan.level
    : (bike.levels[Math.floor((bike.levels.length - 1) / 2)] ?? "level");
}

/** Bike, rider and load, kg; what nobody weighed is assumed. */
export function massOf({ bike, rider, setUp }: Riding): { readonly kg: number; readonly weighed: boolean } {
  const weighed = bike.massKg !== undefined && rider?.massKg !== undefined;
  const carried = setUp?.carriedKg ?? 0;
  return {
    kg: weighed ? bike.massKg! + rider!.massKg! + carried : ASSUMED.massKg + carried,
    weighed,
  };
}

/** A bike's road load as its kind lets expect: drag by posture, rolling by tyre, the motor by its place. */
export function roadOf({ bike, setUp }: Pick<Riding, "bike" | "setUp">) {
  return {
    cdA: CDA[setUp?.posture ?? "upright"],
    crr: CRR[setUp?.tyreClass ?? "city"],
    etaD: ASSUMED.drivetrainEfficiency,
    etaM: ETA_M[bike.motor],
  };
}

/** Everything a forecast takes, from what is on file and typed, and the assumptions for the rest. */
export function rigFor(plan: Plan, riding: Riding, course: Course): Rig {
  const { bike, setUp, rider } = riding;
  const mass = massOf(riding);
  const level = levelOf(plan, bike);
  const speeds = usualSpeeds(bike);
  const throttle = plan.method.drive === "throttle";
  const shares = sharesOf(bike);
  return {
    massKg: mass.kg,
    massSdShare: mass.weighed ? ASSUMED.massSdShare : ASSUMED.massGuessSdShare,
    ...roadOf(riding),
    assistToMps: bike.assistToMps ?? (throttle ? Infinity : ASSUMED.assistToMph * MPS_PER_MPH),
    lightsOn: setUp?.lightsOn ?? false,
    tempC: plan.airTempC ?? ASSUMED.packTempC,
    altitudeM: course.altitudeM ?? 0,
    windMps: plan.windMps ?? ASSUMED.windMps,
    windFromDeg: plan.windFromDeg ?? null,
    stopsPerMi: plan.stopsPerMi ?? ASSUMED.stopsPerMi,
    riderW: riderWatts(plan, rider),
    riderSdShare:
      plan.riderW !== undefined || (plan.bpm !== undefined && wattsAt(rider, plan.bpm) !== null)
        ? ASSUMED.riderHeldSdShare
        : ASSUMED.riderSdShare,
    speedSdShare: plan.speedMps === undefined ? ASSUMED.speedSdShare : ASSUMED.speedHeldSdShare,
    level,
    speedMps: { ...speeds, [level]: plan.speedMps ?? speeds[level]! },
    motorW:
      bike.motorW === undefined
        ? {}
        : {
            ...Object.fromEntries(bike.levels.map((name, i) => [name, shares[i]! * bike.motorW!])),
            throttle: bike.motorW,
          },
  };
}
