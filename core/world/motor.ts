import type { Rng } from "./chance.ts";

/** A motor by its losses: in its windings with the square of the torque, in iron and bearings with the speed, and standing by. */
export interface Motor {
  /** Shaft power it is built for, W, and the bike's speed at which it turns as built, m/s. */
  readonly ratedW: number;
  readonly ratedMps: number;
  /** Best efficiency, at the rated point. */
  readonly peak: number;
  /** How its losses there part: windings, speed, the rest standing by. */
  readonly windings: number;
  readonly speed: number;
  /** Whether gears keep it near its own speed, as in the middle of a bike; a hub turns with the wheel. */
  readonly hasGears: boolean;
  /** The most it gives, W. */
  readonly mostW: number;
}

export function drawMotor(chance: Rng): Motor {
  const ratedW = chance.between(250, 600);
  const windings = chance.between(0.4, 0.65);
  return {
    ratedW,
    ratedMps: chance.between(6.5, 10),
    peak: chance.between(0.76, 0.88),
    windings,
    speed: (1 - windings) * chance.between(0.6, 0.9),
    hasGears: chance.happens(0.45),
    mostW: ratedW * chance.between(1.2, 2),
  };
}

/** The most shaft power at a speed, W: torque is bounded where the motor turns slowly. */
export function mostAt({ mostW, ratedMps, hasGears }: Motor, mps: number): number {
  return hasGears ? mostW : Math.min(mostW, (mostW * mps) / (0.55 * ratedMps));
}

/** Power at the pack for a shaft power at a speed, W. */
export function electricW(motor: Motor, shaftW: number, mps: number): number {
  if (shaftW <= 0) return 0;
  const { ratedW, ratedMps, peak, windings, speed, hasGears } = motor;
  const turns = hasGears ? Math.max(0.6, Math.min(1.1, mps / ratedMps)) : Math.max(0.2, mps / ratedMps);
  const torque = shaftW / ratedW / turns;
  const lossW = ratedW * (1 / peak - 1);
  return shaftW + lossW * (windings * torque ** 2 + speed * turns ** 1.4 + (1 - windings - speed));
}
