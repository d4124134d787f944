import type { Reference } from "#core/bike";
import type { TestRecord } from "#core/records";
import { rngFrom, type Rng } from "./chance.ts";
import type { KindName } from "./kinds.ts";
import { makeTest } from "./make.ts";
import { drawMotor, type Motor } from "./motor.ts";
import { drawPack, type KnownAge, type Pack } from "./pack.ts";
import { drawLevels, drawRider, LIGHTS_W, type Rig } from "./rider.ts";
import { rideRoad } from "./ride.ts";
import type { Road } from "./road.ts";
import { at, MILE_M, MPH } from "./units.ts";

/** How much a tester told of each day: nothing but the figures, what is usually written down, and more besides. */
export const DESK_TOLD = ["bare", "typical", "moving time", "track", "watts", "throttle"] as const;
export type DeskTold = (typeof DESK_TOLD)[number];

/** A desk to be drawn. */
export interface DeskOptions {
  readonly bikes: number;
  readonly riders: number;
  readonly testsEach: number;
  readonly told: DeskTold;
  /** How much more bikes and riders differ than usual. */
  readonly scatter?: number;
}

export interface DeskTest {
  readonly bike: number;
  readonly rider: number;
  readonly record: TestRecord;
}

/** A desk of bikes on days that differ, with what each bike truly takes under a reference, Wh per mile. */
export interface Desk {
  readonly tests: readonly DeskTest[];
  readonly truths: readonly number[];
}

interface Bike extends Pick<Rig, "cdA" | "crr" | "crrPerMps" | "passes" | "motor" | "standbyW"> {
  readonly name: string;
  readonly bikeKg: number;
  readonly tyreClass: keyof typeof TYRES;
  readonly posture: keyof typeof POSTURES;
  readonly pack: { readonly pack: Pack; readonly known: KnownAge };
  readonly motor: Motor;
}
interface Person {
  readonly name: string;
  readonly kg: number;
  /** What they mean by a word, against what is usual. */
  readonly habit: number;
}

const KINDS: readonly KindName[] = [
  "part charge",
  "rest volts",
  "bars",
  "run-down",
  "coarse percent",
  "metered",
];
/** What people who say so give at the cranks, W: rides of hours, by those who have a motor. */
const EFFORTS = { "feather-light": 25, easy: 55, steady: 95 } as const;
const EFFORT_NAMES = Object.keys(EFFORTS) as readonly (keyof typeof EFFORTS)[];
/** A word means this much more or less from day to day. */
const DAY_SPREAD = 0.28;
const TYRES = { city: 0.0068, knobbly: 0.0094, fat: 0.0125 } as const;
const POSTURES = { upright: 0.58, leaning: 0.46, "panniers or step-through": 0.66 } as const;
/** Hills of a reference: as steep up as down, so long each. */
const HILL_M = 250;
const HILL_SLOPE = 0.04;
const TRUTH_M = 15 * MILE_M;

const around = (chance: Rng, middle: number, share: number) =>
  middle * Math.max(0.2, 1 + share * chance.between(-1, 1));
const oneOf = <T>(chance: Rng, all: readonly T[]) => at(all, Math.floor(chance.next() * all.length));

function drawBike(chance: Rng, scatter: number, name: string): Bike {
  const tyreClass = oneOf(chance, ["city", "city", "knobbly", "fat"] as const);
  const posture = oneOf(chance, ["upright", "upright", "leaning", "panniers or step-through"] as const);
  return {
    ...{ name, tyreClass, posture },
    bikeKg: Math.round(chance.between(19, 38) * 2) / 2,
    cdA: around(chance, POSTURES[posture], 0.2 * scatter),
    crr: around(chance, TYRES[tyreClass], 0.3 * scatter),
    crrPerMps: chance.between(0.005, 0.03),
    passes: chance.between(0.92, 0.98),
    motor: drawMotor(chance),
    standbyW: chance.between(1.5, 6),
    pack: drawPack(chance, { what: "" }, 2026),
  };
}

/** The road of a reference: hills of one steepness, a steady wind, stops, nothing else. */
function roadUnder({ conditions }: Reference): Road {
  const gain = conditions.gainMPerMi ?? 0;
  const everyM = gain > 0 ? (MILE_M * HILL_M * HILL_SLOPE) / gain : Infinity;
  const wind = conditions.headwindMps ?? 0;
  return {
    lengthM: TRUTH_M,
    stretches: [{ toM: TRUTH_M, level: "on", ground: conditions.ground ?? "asphalt" }],
    heightAt: () => 0,
    slopeAt: (metres) => {
      const along = metres % everyM;
      return everyM === Infinity || along > 2 * HILL_M ? 0 : along < HILL_M ? HILL_SLOPE : -HILL_SLOPE;
    },
    windMps: wind,
    headwindAt: () => wind,
    rolls: {},
    moodAt: () => 1,
  };
}

/** What a bike truly takes under a reference, Wh per mile: ridden there. */
function truthUnder(bike: Bike, reference: Reference, watts: number, seed: number): number {
  const { conditions, carriedKg } = reference;
  const rig: Rig = {
    ...bike,
    massKg: bike.bikeKg + carriedKg,
    standbyW: bike.standbyW + (conditions.lightsOn ? LIGHTS_W : 0),
    levels: { on: { does: "speed", mps: conditions.speedMps } },
    assistToMps: Infinity,
    lowAt: 0,
    rider: {
      ...{ watts, pushes: 0, pedalsToMps: Infinity, brakesAtMps: 30 * MPH },
      ...{ stopsPerMile: conditions.stopsPerMi ?? 0, restEveryS: Infinity, restS: 0 },
    },
  };
  const pack: Pack = {
    ...bike.pack.pack,
    trueAh: 400,
    ohm: bike.pack.pack.ohm / 10,
    tempC: conditions.tempC ?? 20,
  };
  const moments = rideRoad(
    rig,
    pack,
    roadUnder(reference),
    { share: 1, slowV: 0, usedWh: 0, usedAh: 0 },
    rngFrom(seed),
  );
  const end = at(moments, -1);
  return (end.pack.usedWh / end.distanceM) * MILE_M;
}

/** One test of a bike by a person, told as much as the desk tells. */
function testOf(chance: Rng, bike: Bike, person: Person, told: DeskTold): TestRecord {
  const effort = oneOf(chance, EFFORT_NAMES);
  const throttle = told === "throttle";
  const watts = EFFORTS[effort] * person.habit * Math.exp(DAY_SPREAD * chance.between(-1, 1));
  const carriedKg = chance.happens(0.5) ? Math.round(chance.between(0, 15)) : 0;
  const rig: Rig = {
    ...bike,
    massKg: bike.bikeKg + person.kg + carriedKg,
    levels: drawLevels(chance, chance.between(10, 14.5) * MPH),
    assistToMps: 20 * MPH,
    lowAt: chance.between(0.01, 0.1),
    rider: drawRider(chance, throttle ? 0 : watts),
  };
  const { record, truth } = makeTest(Math.floor(chance.next() * 1e9), oneOf(chance, KINDS), {
    rig,
    pack: { ...bike.pack, pack: { ...bike.pack.pack, tempC: Math.round(chance.between(3, 28)) } },
    bikeKg: bike.bikeKg,
    level: throttle ? "throttle" : chance.happens(0.5) ? "eco" : "tour",
    kind: {
      climb: [2, 24],
      ...(told === "track" && { told: "track" as const }),
      ...(told === "bare" && { loose: true }),
    },
  });
  const isSeen = told !== "bare";
  // What the display said of the whole ride, where somebody wrote it down.
  const totals = {
    ...((told === "moving time" || told === "watts") && { movingS: Math.round(truth.movingS) }),
    ...(isSeen &&
      told !== "track" &&
      chance.happens(0.6) && { climbM: Math.round(truth.climbM * chance.between(0.9, 1.1)) }),
  };
  const [first, ...others] = record.rides;
  const entries = first?.entries ?? [];
  const entry = { ...at(entries, -1), id: at(entries, 0).id.replace(/^..../, "ffff"), seq: entries.length, body: { kind: "totals", ...totals } }; // prettier-ignore
  return {
    ...record,
    test: {
      ...record.test,
      drive: throttle ? "throttle" : "pedal",
      ...(isSeen && !throttle && { effort }),
      ...(isSeen && { windMps: Math.max(0, truth.windMps + chance.normal(0, 1)) }),
      ...(told === "watts" && { riderW: Math.round(watts * chance.between(0.93, 1.07)) }),
    },
    setUp: { name: "set-up", tyre: "", tyreClass: bike.tyreClass, posture: bike.posture, lightsOn: false, carriedKg, changed: "", pencil: [] }, // prettier-ignore
    bike: { ...record.bike, name: bike.name },
    rider: { ...record.rider, name: person.name, massKg: person.kg },
    rides: Object.keys(totals).length
      ? [{ ...first, entries: [...entries, entry] }, ...others]
      : record.rides,
  } as TestRecord;
}

/**
 * A desk of bikes ridden by a few people on days that differ, noted as much as is told. The same seed and options give the same desk.
 */
export function makeDesk(seed: number, options: DeskOptions, reference: Reference): Desk {
  const chance = rngFrom(seed * 7919 + 13);
  const { scatter = 1 } = options;
  const bikes = Array.from({ length: options.bikes }, (_, b) => drawBike(chance, scatter, `Bike ${b + 1}`));
  const people = Array.from({ length: options.riders }, (_, r): Person => ({
    name: `Rider ${r + 1}`,
    kg: Math.round(chance.between(58, 104)),
    habit: around(chance, 1, 0.36 * scatter),
  }));
  const tests = bikes.flatMap((bike, b) =>
    Array.from({ length: options.testsEach }, (): DeskTest => {
      const rider = Math.floor(chance.next() * people.length);
      return { bike: b, rider, record: testOf(chance, bike, at(people, rider), options.told) };
    }),
  );
  // On the throttle nobody pedals, under a reference neither.
  const watts = options.told === "throttle" ? 0 : (reference.conditions.riderW ?? 0);
  return { tests, truths: bikes.map((bike, b) => truthUnder(bike, reference, watts, seed * 31 + b)) };
}
