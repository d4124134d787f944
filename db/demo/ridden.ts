import { EFFORT_W } from "#core/bike";
import type { Ground } from "#core/fields";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import { FULL, rideCourse, type TrueCourse, type TrueRig } from "#core/simulator";
import { rngFrom } from "#core/world";
import { type RIDERS, BIKES } from "./desk.ts";

/** What a bike of the desk truly is; nobody there knows it. */
interface TrueBike {
  readonly cdA: number;
  /** On asphalt, by set-up. */
  readonly crr: Readonly<Record<string, number>>;
  readonly etaM: number;
  /** Most the motor gives, by level. */
  readonly motorW: Readonly<Record<string, number>>;
}

const TRUE_BIKES: Readonly<Record<keyof typeof BIKES, TrueBike>> = {
  hauler: {
    cdA: 0.61,
    crr: { bare: 0.0082, child: 0.008 },
    etaM: 0.76,
    motorW: { low: 220, mid: 360, high: 500, throttle: 500 },
  },
  brindlow: {
    cdA: 0.52,
    crr: { slick: 0.0061, knobbly: 0.0104 },
    etaM: 0.84,
    motorW: { calm: 110, town: 180, brisk: 250 },
  },
  pellam: {
    cdA: 0.66,
    crr: { light: 0.0075, laden: 0.0075 },
    etaM: 0.77,
    motorW: { 1: 80, 2: 130, 3: 180, 4: 220, 5: 250 },
  },
  tarrick: { cdA: 0.54, crr: { only: 0.0089 }, etaM: 0.73, motorW: { on: 250 } },
  vessock: {
    cdA: 0.6,
    crr: { fat: 0.0134, firm: 0.0112 },
    etaM: 0.79,
    motorW: { eco: 260, tour: 480, boost: 750, throttle: 750 },
  },
};

/** What each rider truly weighs, and means by a word for effort, against what is usual. */
const TRUE_RIDERS = {
  maren: { kg: 71.5, habit: 0.95 },
  idris: { kg: 87.6, habit: 1.15 },
  tove: { kg: 63, habit: 0.8 },
} as const;

/** A day's ride as it truly was. */
export interface RodeOn {
  readonly bike: keyof typeof BIKES;
  readonly setUp: string;
  readonly rider: keyof typeof RIDERS;
  readonly effort: "none" | "feather-light" | "easy" | "steady";
  /** Speed held, mph. */
  readonly mph: number;
  readonly windMps: number;
  readonly climbPerMi: number;
  readonly stopsPerMi: number;
  readonly tempC: number;
  readonly seed: number;
}

/** A stage of it. */
export interface RodeStage {
  readonly miles: number;
  readonly level: string;
  readonly ground: Ground;
  /** Steadily up all the way, m. */
  readonly upM?: number | undefined;
  /** Carried on this stage besides. */
  readonly loadKg?: number | undefined;
}

const WAVE_M = 900;
const TURN_M = 3 * METRES_PER_MILE;

/** Low waves that climb so much a mile, or one steady rise; a wind that the way turns through. */
function courseOf({ windMps, climbPerMi }: RodeOn, stage: RodeStage, fromM: number): TrueCourse {
  const lengthM = stage.miles * METRES_PER_MILE;
  const steepest = (climbPerMi / METRES_PER_MILE) * Math.PI;
  const rise = stage.upM === undefined ? null : stage.upM / lengthM;
  return {
    lengthM,
    stretches: [{ toM: lengthM, level: stage.level, ground: stage.ground }],
    windMps,
    heightAt: () => 0,
    slopeAt: (metres) => rise ?? steepest * Math.cos((2 * Math.PI * (fromM + metres)) / WAVE_M),
    headwindAt: (metres) => windMps * Math.cos((2 * Math.PI * (fromM + metres)) / TURN_M),
  };
}

/** A pack that never ends: what a ride takes is asked of the road, where it ends of the pack. */
const ENDLESS = {
  chemistry: "NMC",
  seriesCells: 13,
  ampHours: 1000,
  labelWh: 48_000,
  chemicalWh: 50_000,
  ohm: 0.02,
} as const;

/** Who rides what, as it truly is. */
export function trulyOf({ bike, setUp, rider, effort }: Pick<RodeOn, "bike" | "setUp" | "rider" | "effort">) {
  const { cdA, crr, etaM } = TRUE_BIKES[bike];
  const { kg, habit } = TRUE_RIDERS[rider];
  const carried = (BIKES[bike].setUps as Record<string, { carriedKg: number; lightsOn: boolean }>)[setUp]!;
  return {
    ...{ cdA, etaM, crr: crr[setUp]! },
    massKg: BIKES[bike].bike.massKg! + kg + carried.carriedKg,
    lightsOn: carried.lightsOn,
    riderW: EFFORT_W[effort] * habit,
  };
}

function trueRig(rode: RodeOn, stage: RodeStage): TrueRig {
  const { bike } = BIKES[rode.bike];
  const truly = trulyOf(rode);
  return {
    ...truly,
    massKg: truly.massKg + (stage.loadKg ?? 0),
    levels: {
      [stage.level]: {
        speedMps: rode.mph * MPS_PER_MPH,
        motorW: TRUE_BIKES[rode.bike].motorW[stage.level]!,
      },
    },
    riderW: stage.level === "throttle" ? 0 : truly.riderW,
    holds: "speed",
    stopsPerMile: rode.stopsPerMi,
    assistToMps: (bike as { assistToMps?: number }).assistToMps ?? Infinity,
    lowPowerAt: 2,
  };
}

/** Energy and time that a stage takes, ridden second by second: Wh at the terminals, s. */
export function rideStage(rode: RodeOn, stage: RodeStage, fromM: number, part: number) {
  const rig = trueRig(rode, stage);
  const course = courseOf(rode, stage, fromM);
  const pack = { ...ENDLESS, tempC: rode.tempC };
  let [wh, timeS] = [0, 0];
  const chance = rngFrom(1000 * rode.seed + part);
  for (const sample of rideCourse(rig, pack, course, FULL, 0, course.lengthM, chance))
    [wh, timeS] = [sample.pack.usedWh, sample.timeS];
  return { wh, timeS };
}
