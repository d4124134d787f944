import type { Ground } from "#core/fields";
import { curveOf } from "#core/battery";
import { KG_PER_LB, METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import { climbSchema, sweepSchema, type ClimbRecord, type Sweep } from "#core/records";
import { roadPower } from "#core/bike";
import type { BIKES, RIDERS } from "./desk.ts";

/** Sweeps and climbs of the desk, made from a road load that the fit does not know. */

interface FieldLinks {
  readonly bike: keyof typeof BIKES;
  readonly pack: string;
  readonly setUp: string;
  readonly rider: keyof typeof RIDERS;
}

export interface DemoSweep extends FieldLinks {
  readonly sweep: Sweep;
}

export interface DemoClimb extends FieldLinks {
  readonly climb: ClimbRecord;
}

/** The cargo bike as it truly is: rolling by ground, drag, motor. */
const TRUE_CRR: Readonly<Partial<Record<Ground, number>>> = {
  asphalt: 0.0081,
  brick: 0.0109,
  "fine gravel": 0.0148,
};
const TRUE_CDA = 0.61;
const TRUE_ETA = 0.8;
const WIND_MPS = 1.4;
const OHM = 0.11;
/** How far amps flicker to each side. */
const FLICKER_A = 0.4;

const halves = (value: number) => Math.round(value * 2) / 2;

/** What the display shows at a steady speed, one way along a quiet stretch. */
function steady(ground: Ground, mph: number, direction: "there" | "back" | "one way", charge: number) {
  const speedMps = mph * MPS_PER_MPH;
  const { batteryW } = roadPower({
    massKg: 37.5 + 88,
    speedMps,
    headwindMps: direction === "back" ? -WIND_MPS : direction === "there" ? WIND_MPS : 0,
    slope: direction === "back" ? -0.001 : direction === "there" ? 0.001 : 0,
    ground,
    crrBy: TRUE_CRR,
    cdA: TRUE_CDA,
    etaM: TRUE_ETA,
    tempC: 17,
  });
  const rest = 13 * curveOf({ chemistry: "NMC" }).voltsAt(charge);
  const amps = batteryW / rest;
  const packVolts = Number((rest - amps * OHM).toFixed(1));
  return {
    level: "throttle",
    ground,
    direction,
    speedMps,
    ampsLow: Math.max(0, halves(batteryW / packVolts - FLICKER_A)),
    ampsHigh: halves(batteryW / packVolts + FLICKER_A),
    packVolts,
  };
}

const both = (ground: Ground, mph: number, charge: number) => [
  steady(ground, mph - 0.3, "there", charge),
  steady(ground, mph + 0.2, "back", charge - 0.01),
];

const haulerSweep: DemoSweep = {
  bike: "hauler",
  pack: "main",
  setUp: "bare",
  rider: "idris",
  sweep: sweepSchema.parse({
    title: "throttle by ground, still evening",
    day: "2026-09-17",
    airTempC: 17,
    rows: [
      ...both("asphalt", 10, 0.93),
      ...both("asphalt", 14, 0.89),
      ...both("asphalt", 18, 0.84),
      ...both("brick", 10, 0.8),
      ...both("brick", 14, 0.75),
      ...both("fine gravel", 10, 0.7),
      ...both("fine gravel", 14, 0.64),
      steady("fine gravel", 17, "one way", 0.6),
    ],
    open: [
      { at: 15, level: "throttle", ground: "brick", direction: "there" },
      { at: 16, level: "throttle", ground: "brick", direction: "back" },
    ],
  }),
};

const TOWER = {
  hill: "Water-tower hill",
  lengthM: 0.62 * METRES_PER_MILE,
  gainM: 47,
  ground: "asphalt",
} as const;

const climb = (rest: Partial<ClimbRecord> & Pick<ClimbRecord, "timeS" | "day">): ClimbRecord =>
  climbSchema.parse({ ...TOWER, airTempC: 16, ...rest });

/** Weight of what Tove carried up, noted in pounds as she does. */
const BASKET_KG = Math.round(15 * KG_PER_LB);

export const SWEEPS: readonly DemoSweep[] = [haulerSweep];

export const CLIMBS: readonly DemoClimb[] = [
  {
    bike: "hauler",
    pack: "main",
    setUp: "bare",
    rider: "idris",
    climb: climb({ day: "2026-09-17", timeS: 196, drive: "throttle", entrySpeedMps: 4.5, energyWh: 27.6 }),
  },
  {
    bike: "hauler",
    pack: "main",
    setUp: "bare",
    rider: "idris",
    climb: climb({
      day: "2026-09-17",
      timeS: 212,
      level: "high",
      effort: "steady",
      entrySpeedMps: 4.4,
      energyWh: 20.9,
    }),
  },
  {
    bike: "brindlow",
    pack: "main",
    setUp: "slick",
    rider: "maren",
    climb: climb({
      day: "2026-09-20",
      timeS: 231,
      level: "brisk",
      effort: "steady",
      entrySpeedMps: 4.1,
      energyWh: 13.2,
    }),
  },
  {
    bike: "vessock",
    pack: "main",
    setUp: "fat",
    rider: "idris",
    climb: climb({
      day: "2026-09-18",
      timeS: 171,
      drive: "throttle",
      entrySpeedMps: 5,
      startPercent: 80,
      endPercent: 75,
    }),
  },
  {
    bike: "pellam",
    pack: "rack",
    setUp: "light",
    rider: "tove",
    climb: climb({
      day: "2026-09-21",
      timeS: 258,
      level: "5",
      entrySpeedMps: 3.8,
      energyWh: 15.8,
      note: `basket of ${BASKET_KG} kg on the rack`,
    }),
  },
];
