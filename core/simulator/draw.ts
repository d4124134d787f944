import { DEFAULTS, MPS_PER_MPH } from "#core/base";
import { NOMINAL_CELL_VOLTS } from "#core/battery";
import { slowError } from "./gauge.ts";
import type { TruePack } from "./pack.ts";
import type { Rng } from "#core/world";
import type { TrueRig } from "./ride.ts";
import type { Scenario } from "./scenarios.ts";
import type { Tester } from "./tester.ts";

/** What a desk of one's own fixes of a stand-in: its pack, its levels' names, when it starts. */
export interface Given {
  readonly pack?: Pick<TruePack, "chemistry" | "seriesCells" | "ampHours" | "labelWh">;
  /** A calm level and a strong one. */
  readonly levels?: readonly [string, string];
  readonly startS?: number;
  readonly tempC?: number;
  /** Of bike and rider, what is not drawn. */
  readonly rig?: Partial<TrueRig>;
  readonly nextId?: () => string;
}

/** What resistance takes of a pack's energy on an ordinary ride, about. */
export const LOSSES = 0.02;

/** Assist levels where none are given. */
export const LEVELS = ["low", "high"] as const;

/** A pack of ordinary size whose usable energy lies about its label as the ledger assumes. */
export function drawPack(chance: Rng, scenario: Scenario, given: Given): TruePack {
  const chemistry = given.pack?.chemistry ?? scenario.chemistry ?? "NMC";
  const drawn = {
    seriesCells: chemistry === "LFP" ? 15 : chance.happens(0.5) ? 13 : 10,
    ampHours: Math.round(chance.between(10, 18) * 2) / 2,
  };
  const { seriesCells, ampHours } = given.pack ?? drawn;
  const labelWh = given.pack?.labelWh ?? Math.round(ampHours * seriesCells * NOMINAL_CELL_VOLTS[chemistry]);
  const usable = labelWh * chance.normal(DEFAULTS.labelDerate, DEFAULTS.labelDerate * DEFAULTS.labelSd);
  return {
    chemistry,
    seriesCells,
    ampHours,
    labelWh,
    chemicalWh: usable * (1 + LOSSES),
    ohm: 0.012 * seriesCells * (3 / ampHours) * chance.between(0.9, 1.5),
    tempC: given.tempC ?? scenario.tempC ?? Math.round(chance.between(8, 26)),
  };
}

/** A rider and bike who hold a calm and a strong level. */
export function drawRig(
  chance: Rng,
  [low, high]: readonly [string, string],
  holds: TrueRig["holds"],
): TrueRig {
  const calm = chance.between(10.5, 13.5) * MPS_PER_MPH;
  return {
    massKg: chance.between(95, 150),
    cdA: chance.between(0.48, 0.65),
    crr: chance.between(0.006, 0.012),
    etaM: chance.between(0.76, 0.84),
    lightsOn: chance.happens(0.2),
    levels: {
      [low]: { speedMps: calm, motorW: 260 },
      [high]: { speedMps: calm * chance.between(1.15, 1.4), motorW: 480 },
    },
    riderW: chance.between(20, 75),
    holds,
    stopsPerMile: chance.between(0.3, 1.5),
    assistToMps: 20 * MPS_PER_MPH,
    lowPowerAt: chance.normal(DEFAULTS.lowPowerAt, DEFAULTS.lowPowerSd),
  };
}

/** Instruments with their gains, and how often they are read. */
export function drawTester(chance: Rng, scenario: Scenario): Tester {
  return {
    everyMi: chance.between(2.5, 5.5),
    restVolts: scenario.restVolts ?? 0,
    recorder: chance.normal(1, DEFAULTS.gpsScaleSd),
    display: scenario.wheelFactor ?? null,
    noRecorder: scenario.noRecorder ?? false,
    meterGain: chance.normal(0, scenario.meter === "logger" ? DEFAULTS.shuntGainSd : DEFAULTS.energyGainSd),
    meterStepV: 0.1,
    curveError: slowError(chance, DEFAULTS.smoothSd),
  };
}
