import { DEFAULTS, normalCdf, STANDARD_GRAVITY } from "#core/base";
import type { Ground } from "#core/fields";
import { airDensity } from "./air.ts";
import { GROUND_FACTOR } from "./ground.ts";

const INVERSE_ROOT_2PI = 1 / Math.sqrt(2 * Math.PI);

/** A bike at a moment of its way. What is left out is the default of the assumptions table. */
export interface RoadState {
  /** Bike, rider and load. */
  readonly massKg: number;
  readonly speedMps: number;
  /** Rise over run. */
  readonly slope?: number;
  /** Positive against. */
  readonly headwindMps?: number;
  readonly accelerationMps2?: number;
  readonly ground?: Ground;
  readonly tempC?: number;
  readonly altitudeM?: number;
  readonly riderW?: number;
  readonly lightsOn?: boolean;
  /** Drag area, m2. */
  readonly cdA?: number;
  /** Rolling resistance on asphalt. */
  readonly crr?: number;
  /** Rolling resistance of grounds that were measured; elsewhere that on asphalt times the ground's factor. */
  readonly crrBy?: Readonly<Partial<Record<Ground, number>>> | undefined;
  readonly etaD?: number;
  readonly etaM?: number;
  /** Above this the motor rests; left out, it never does. */
  readonly assistToMps?: number | undefined;
  /** How the force varies about its mean along such a way, 1 sd, N; 0 where the state is one moment. */
  readonly unevenN?: number | undefined;
}

export interface RoadPower {
  readonly forceN: number;
  readonly wheelW: number;
  readonly motorW: number;
  readonly batteryW: number;
}

/** Mean of the positive part of a normal: what a motor gives that helps now and then, though never on the mean. */
function meanPositive(mean: number, sd: number): number {
  if (!(sd > 0) || Math.abs(mean) > 6 * sd) return Math.max(0, mean);
  const z = mean / sd;
  return mean * normalCdf(z) + sd * Math.exp(-0.5 * z * z) * INVERSE_ROOT_2PI;
}

/**
 * Force at the wheel and the power it takes from the battery: F = m g (s + Crr) + 0.5 rho CdA (v + u)|v + u| + m a; the
 * motor gives what the rider does not, and never less than nothing. Small angles.
 *
 * @example 128 kg, 15 mph, slope 0.02, headwind 2 m/s, 20 C, rider 60 W: 58.99 N, 395.6 W at the wheel, 449.5 W from the battery
 */
export function roadPower(state: RoadState): RoadPower {
  const {
    massKg,
    speedMps,
    slope = 0,
    headwindMps = 0,
    accelerationMps2 = 0,
    ground = "asphalt",
    tempC = DEFAULTS.packTempC,
    altitudeM = 0,
    riderW = 0,
    lightsOn = false,
    cdA = DEFAULTS.dragAreaM2,
    crr = DEFAULTS.rollingAsphalt,
    crrBy,
    etaD = DEFAULTS.drivetrainEfficiency,
    etaM = DEFAULTS.motorEfficiency,
    assistToMps = Infinity,
    unevenN = 0,
  } = state;
  const airMps = speedMps + headwindMps;
  const forceN =
    massKg * STANDARD_GRAVITY * (slope + (crrBy?.[ground] ?? crr * GROUND_FACTOR[ground])) +
    0.5 * airDensity(tempC, altitudeM) * cdA * airMps * Math.abs(airMps) +
    massKg * accelerationMps2;
  const wheelW = forceN * speedMps;
  const wanted = wheelW / etaD - riderW;
  const motorW = speedMps > assistToMps ? 0 : meanPositive(wanted, (unevenN * speedMps) / etaD);
  const batteryW = motorW / etaM + DEFAULTS.idleW + (lightsOn ? DEFAULTS.lightsW : 0);
  return { forceN, wheelW, motorW, batteryW };
}
