import type { Motor } from "./motor.ts";
import { drawMotor } from "./motor.ts";
import type { Rng } from "./chance.ts";
import { MPH } from "./units.ts";

/** What a level does: it holds a speed, or gives so many times what the rider gives. */
export type Level =
  | { readonly does: "speed"; readonly mps: number }
  | { readonly does: "share"; readonly times: number; readonly mps: number };

/** A bike with its rider on it, as they truly are. */
export interface Rig {
  /** All that rolls, kg. */
  readonly massKg: number;
  readonly cdA: number;
  /** Rolling resistance on asphalt, walking; and how much more of it there is at each m/s. */
  readonly crr: number;
  readonly crrPerMps: number;
  /** Share of power that chain and gears pass on. */
  readonly passes: number;
  readonly motor: Motor;
  /** What display, controller and lamps take while it is on, W. */
  readonly standbyW: number;
  readonly levels: Readonly<Record<string, Level>>;
  /** Above it the motor gives nothing, m/s. */
  readonly assistToMps: number;
  /** Charge below which it gives half. */
  readonly lowAt: number;
  readonly rider: Rider;
}

export interface Rider {
  /** On level ground, W; nought who does not pedal. */
  readonly watts: number;
  /** How much more on a slope of one in ten. */
  readonly pushes: number;
  /** Faster than this nobody pedals, and nobody lets it run, m/s. */
  readonly pedalsToMps: number;
  readonly brakesAtMps: number;
  /** Stops a mile: lights, gates, photographs. */
  readonly stopsPerMile: number;
  /** Rests that nobody notes: how far apart, s, and how long, s. */
  readonly restEveryS: number;
  readonly restS: number;
}

export const LIGHTS_W = 6;

export function drawRider(chance: Rng, watts: number): Rider {
  return {
    watts,
    pushes: chance.between(0, 2.5),
    pedalsToMps: chance.between(17, 23) * MPH,
    brakesAtMps: chance.between(22, 32) * MPH,
    stopsPerMile: chance.between(0.1, 2.5),
    restEveryS: chance.between(1500, 6000),
    restS: chance.between(120, 2000),
  };
}

/** Levels of a bike at a calm speed: speeds held by the motor, or shares of what the rider gives. */
export function drawLevels(chance: Rng, calmMps: number): Rig["levels"] {
  const isShare = chance.happens(0.4);
  const faster = calmMps * chance.between(1.12, 1.4);
  return {
    eco: isShare
      ? { does: "share", times: chance.between(0.8, 1.6), mps: faster }
      : { does: "speed", mps: calmMps },
    tour: isShare
      ? { does: "share", times: chance.between(1.6, 3.2), mps: 1.2 * faster }
      : { does: "speed", mps: faster },
    throttle: { does: "speed", mps: calmMps * chance.between(1.1, 1.5) },
  };
}

/** A bike and its rider from a wide lot. */
export function drawRig(chance: Rng): Rig {
  return {
    massKg: chance.between(85, 165),
    cdA: chance.between(0.42, 0.78),
    crr: chance.between(0.004, 0.013),
    crrPerMps: chance.between(0.005, 0.03),
    passes: chance.between(0.92, 0.98),
    motor: drawMotor(chance),
    standbyW: chance.between(1.5, 6) + (chance.happens(0.3) ? LIGHTS_W : 0),
    levels: drawLevels(chance, chance.between(9.5, 14) * MPH),
    assistToMps: 20 * MPH,
    lowAt: chance.between(0.01, 0.12),
    rider: drawRider(chance, chance.between(15, 90)),
  };
}
