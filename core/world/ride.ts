import type { Rng } from "./chance.ts";
import { electricW, mostAt } from "./motor.ts";
import { draw, type Charge, type Pack } from "./pack.ts";
import type { Rig } from "./rider.ts";
import type { Road } from "./road.ts";
import { at, GRAVITY, kelvin, MILE_M } from "./units.ts";

/** One second of a ride, at its end. */
export interface Moment {
  readonly timeS: number;
  readonly distanceM: number;
  readonly speedMps: number;
  readonly level: string;
  readonly ground: Road["stretches"][number]["ground"];
  readonly volts: number;
  readonly amps: number;
  readonly pack: Charge;
  readonly cutOff: boolean;
}

/** Gas constant of dry air, J/(kg K), and pressure where most people ride, Pa: ISO 2533. */
const AIR = 287.05;
const PRESSURE = 98_000;
/** Spinning wheels as a share of the mass that moves; bearings, W at 1 m/s and at its square: Martin et al. 1998. */
const WHEELS = 0.013;
const BEARINGS = [0.091, 0.0087] as const;
/** How soon a speed that is held is reached again, and how hard is braked. */
const REACHES_S = 4;
const BRAKES_MPS2 = 1.6;
const STANDS_MPS = 0.3;
/** Gusts: how strong against the wind itself, and how long. */
const GUST = { share: 0.3, leastMps: 0.2, lastsS: 30 };
/** Nobody holds a speed exactly. */
const SWAY = { share: 0.06, lastsS: 20 };
/** A display that is left alone goes off. */
const OFF_AFTER_S = 300;
/** The motor gives less and less over this, up to where it gives nothing, m/s. */
const FADES_MPS = 0.6;
const LONGEST_S = 60 * 3600;

/** Something that wanders about nought with an sd of 1 and forgets in so many seconds. */
function wandering(chance: Rng, lastsS: number): () => number {
  let value = chance.normal();
  const keeps = Math.exp(-1 / lastsS);
  return () => (value = keeps * value + Math.sqrt(1 - keeps * keeps) * chance.normal());
}

/** Why and how long somebody stands: short stops by the mile, rests by the clock. */
function standing(chance: Rng, { rider }: Rig) {
  let restAt = rider.restEveryS * chance.between(0.4, 1.6);
  return (metres: number, timeS: number): number => {
    if (timeS > restAt) {
      restAt = timeS + rider.restEveryS * chance.between(0.4, 1.6);
      return rider.restS * chance.between(0.3, 1.7);
    }
    return chance.happens((rider.stopsPerMile * metres) / MILE_M) ? 4 + 40 * chance.next() ** 2 : 0;
  };
}

/** Force against a bike at a speed, N. */
function against(rig: Rig, { slope, rolls, headwind, density }: Ground, mps: number): number {
  const wind = mps + headwind;
  return (
    rig.massKg * GRAVITY * (slope + rig.crr * rolls * (1 + rig.crrPerMps * mps)) +
    0.5 * density * rig.cdA * wind * Math.abs(wind) +
    BEARINGS[0] +
    BEARINGS[1] * mps
  );
}

interface Ground {
  readonly slope: number;
  readonly rolls: number;
  readonly headwind: number;
  readonly density: number;
}

/** What rider and motor give at this moment, W at crank and shaft. */
function given(
  rig: Rig,
  ground: Ground,
  levelName: string,
  mps: number,
  mood: number,
  sway: number,
  isLow: boolean,
) {
  const level = rig.levels[levelName]!;
  const { rider } = rig;
  const pedals = levelName !== "throttle" && mps < rider.pedalsToMps && ground.slope > -0.03;
  const riderW = pedals
    ? rider.watts * mood * (1 + 10 * rider.pushes * Math.min(0.1, Math.max(0, ground.slope)))
    : 0;
  const fades = Math.min(1, Math.max(0, (rig.assistToMps - mps) / FADES_MPS));
  const most = fades * (isLow ? 0.5 : 1) * mostAt(rig.motor, mps);
  if (level.does === "share") return { riderW, motorW: Math.min(most, level.times * riderW) };
  const target = level.mps * (1 + SWAY.share * sway);
  const wanted =
    against(rig, ground, mps) * mps + (0.5 * rig.massKg * (target * target - mps * mps)) / REACHES_S;
  return { riderW, motorW: Math.min(most, Math.max(0, wanted / rig.passes - riderW)) };
}

/**
 * Rides a road second by second, to its end or until the pack is empty: motion by energy, gusts, stops, rests, a speed that sways,
 * a rider who pushes uphill, a motor by its losses and limits.
 */
export function rideRoad(rig: Rig, pack: Pack, road: Road, from: Charge, chance: Rng): readonly Moment[] {
  const moments: Moment[] = [];
  const gust = wandering(chance, GUST.lastsS);
  const swaying = wandering(chance, SWAY.lastsS);
  const stops = standing(chance, rig);
  const density = PRESSURE / (AIR * kelvin(pack.tempC));
  const moving = rig.massKg * (1 + WHEELS);
  let [distanceM, mps, charge, brakes] = [0, 0, from, false];
  let [standsS, stoodS, stoodFor, stretch, cutS] = [0, 0, 0, 0, 0];
  for (let timeS = 1; timeS < LONGEST_S && distanceM < road.lengthM; timeS += 1) {
    while (distanceM >= at(road.stretches, stretch).toM && stretch < road.stretches.length - 1) stretch += 1;
    const { level, ground } = at(road.stretches, stretch);
    const headwind = road.headwindAt(distanceM);
    const here: Ground = {
      slope: road.slopeAt(distanceM),
      rolls: road.rolls[ground] ?? 1,
      headwind: headwind + gust() * Math.max(GUST.leastMps, GUST.share * road.windMps),
      density,
    };
    const sway = swaying();
    let electric = rig.standbyW;
    if (standsS > 0) {
      [standsS, stoodS] = [standsS - 1, stoodS + 1];
      if (stoodS > OFF_AFTER_S) electric = 0;
      mps = 0;
    } else {
      stoodS = 0;
      const isLow = charge.share < rig.lowAt;
      const gives = brakes
        ? { riderW: 0, motorW: 0 }
        : given(rig, here, level, Math.max(mps, 0.5), road.moodAt(distanceM), sway, isLow);
      electric += electricW(rig.motor, gives.motorW, Math.max(mps, 0.5));
      const pushes = rig.passes * (gives.riderW + gives.motorW);
      const energy = 0.5 * moving * mps * mps + pushes - against(rig, here, mps) * Math.max(mps, 0.3);
      // Nobody rolls backwards: they walk it up.
      mps = Math.min(rig.rider.brakesAtMps, Math.sqrt(Math.max(0.8, (2 * energy) / moving)));
      if (brakes) mps = Math.max(0, mps - BRAKES_MPS2);
      distanceM += mps;
      if (brakes && mps < 1) {
        brakes = false;
        standsS = Math.max(1, stoodFor);
      } else if (!brakes) {
        const waits = stops(mps, timeS);
        if (waits > 0) [brakes, stoodFor] = [true, waits];
      }
    }
    const { charge: next, volts, amps, isCut } = draw(pack, charge, electric);
    charge = next;
    // The switch waits out a dip.
    cutS = isCut ? cutS + 1 : 0;
    const cutOff = cutS >= 4 || charge.share <= 0;
    moments.push({
      timeS,
      distanceM,
      speedMps: mps < STANDS_MPS ? 0 : mps,
      level,
      ground,
      volts,
      amps,
      pack: charge,
      cutOff,
    });
    if (cutOff) break;
  }
  return moments;
}
