import { EFFORT_W, type Reference } from "#core/bike";
import { there, nth, lastOf, METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import type { Effort, SetUp, TestRecord } from "#core/records";
import { FULL, packModel } from "../pack.ts";
import { rngFrom, type Rng } from "../random.ts";
import { rideCourse, type TrueRig } from "../ride.ts";
import type { TrueCourse } from "../course.ts";
import type { HardKindName } from "./kinds.ts";
import { makeHardTest } from "./make.ts";
import { drawHardPack, type HardPack } from "./packs.ts";

/** How much a tester told of each day: from nothing but the figures to watts, a track, or no rider at all. */
export const DESK_TOLD = ["bare", "typical", "track", "watts", "throttle"] as const;
export type DeskTold = (typeof DESK_TOLD)[number];

/** A desk to be drawn. */
export interface HardDeskOptions {
  readonly bikes: number;
  readonly riders: number;
  readonly testsEach: number;
  readonly told: DeskTold;
  /** How much more bikes and riders differ than usual. */
  readonly scatter?: number;
}

export interface HardDeskTest {
  readonly bike: number;
  readonly rider: number;
  readonly record: TestRecord;
}

/** A desk of bikes on days that differ, with what each bike truly takes under a reference, Wh per mile. */
export interface HardDesk {
  readonly tests: readonly HardDeskTest[];
  readonly truths: readonly number[];
}

interface TrueBike {
  readonly name: string;
  readonly bikeKg: number;
  readonly cdA: number;
  readonly crr: number;
  readonly etaM: number;
  readonly tyreClass: SetUp["tyreClass"];
  readonly posture: SetUp["posture"];
  readonly pack: HardPack;
}
interface TrueRider {
  readonly name: string;
  readonly kg: number;
  /** What this person means by a word, against what is usual. */
  readonly habit: number;
}

const KINDS: readonly HardKindName[] = ["part charge", "rest volts", "bars", "run-down", "coarse percent", "metered"]; // prettier-ignore
const EFFORTS: readonly Effort[] = ["feather-light", "easy", "steady"];
/** Half a word for effort means this much to either side from day to day. */
const EFFORT_SPREAD = 0.28;
/** Shape of the reference's hills: steep for this long, then as long down. */
const HILL_M = 200;
const HILL_SLOPE = 0.04;
const TRUTH_MILES = 12;

const around = (chance: Rng, middle: number, share: number) =>
  middle * Math.max(0.2, 1 + share * chance.between(-1, 1));

/** What bikes of a kind are about: rolling resistance by tyre, drag area by posture. */
const TYRES = { city: 0.0073, knobbly: 0.0098, fat: 0.0128 } as const;
const POSTURES = { upright: 0.56, leaning: 0.45, "panniers or step-through": 0.64 } as const;
const oneOf = <T>(chance: Rng, all: readonly T[]) => nth(all, Math.floor(chance.next() * all.length));

/** Bikes from a wider and flatter lot than any normal. */
function drawBike(chance: Rng, scatter: number, name: string): TrueBike {
  const tyreClass = oneOf(chance, ["city", "city", "knobbly", "fat"] as const);
  const posture = oneOf(chance, ["upright", "upright", "leaning", "panniers or step-through"] as const);
  return {
    name,
    tyreClass,
    posture,
    bikeKg: Math.round(chance.between(19, 38) * 2) / 2,
    cdA: around(chance, POSTURES[posture], 0.2 * scatter),
    crr: around(chance, TYRES[tyreClass], 0.3 * scatter),
    etaM: Math.min(0.95, around(chance, 0.79, 0.1 * scatter)),
    pack: drawHardPack(chance, { what: "" }, 2026),
  };
}

/** Hills of the reference, of one steepness, spread so that each mile climbs what it says. */
function courseUnder({ conditions }: Reference): TrueCourse {
  const gain = conditions.gainMPerMi ?? 0;
  const everyM = gain > 0 ? (METRES_PER_MILE * HILL_M * HILL_SLOPE) / gain : Infinity;
  const slopeAt = (metres: number) => {
    const at = metres % everyM;
    return everyM === Infinity || at > 2 * HILL_M ? 0 : at < HILL_M ? HILL_SLOPE : -HILL_SLOPE;
  };
  const wind = conditions.headwindMps ?? 0;
  return {
    lengthM: TRUTH_MILES * METRES_PER_MILE,
    stretches: [{ toM: TRUTH_MILES * METRES_PER_MILE, level: "on", ground: conditions.ground ?? "asphalt" }],
    windMps: wind,
    heightAt: () => 0,
    slopeAt,
    headwindAt: () => wind,
  };
}

/** What a bike truly takes under a reference, Wh per mile: ridden there, second by second. */
function truthUnder(bike: TrueBike, reference: Reference, riderW: number, seed: number): number {
  const { conditions, carriedKg } = reference;
  const rig: TrueRig = {
    ...{ massKg: bike.bikeKg + carriedKg, cdA: bike.cdA, crr: bike.crr, etaM: bike.etaM },
    lightsOn: conditions.lightsOn ?? false,
    levels: { on: { speedMps: conditions.speedMps, motorW: 2000 } },
    riderW,
    holds: "speed",
    stopsPerMile: conditions.stopsPerMi ?? 0,
    assistToMps: Infinity,
    lowPowerAt: 2,
  };
  const course = courseUnder(reference);
  const pack = { ...bike.pack.pack, chemicalWh: 5000, ampHours: 100, tempC: conditions.tempC ?? 20 };
  const from = { ...FULL, q: packModel(pack).curve.chargeAtFraction(0) };
  let last = { wh: 0, metres: 1 };
  for (const sample of rideCourse(rig, pack, course, from, 0, course.lengthM, rngFrom(seed)))
    last = { wh: sample.pack.usedWh, metres: sample.distanceM };
  return (last.wh / last.metres) * METRES_PER_MILE;
}

/** One test of a bike by a rider, told as much as the desk tells. */
function testOf(chance: Rng, bike: TrueBike, rider: TrueRider, told: DeskTold): TestRecord {
  const effort = oneOf(chance, EFFORTS);
  const throttle = told === "throttle";
  const dayW = EFFORT_W[effort] * rider.habit * Math.exp(EFFORT_SPREAD * chance.between(-1, 1));
  const carriedKg = chance.happens(0.5) ? Math.round(chance.between(0, 15)) : 0;
  const calm = chance.between(10, 14.5) * MPS_PER_MPH;
  const rig: TrueRig = {
    ...{ massKg: bike.bikeKg + rider.kg + carriedKg, cdA: bike.cdA, crr: bike.crr, etaM: bike.etaM },
    lightsOn: false,
    levels: {
      eco: { speedMps: calm, motorW: 260 },
      tour: { speedMps: calm * chance.between(1.1, 1.4), motorW: 480 },
      throttle: { speedMps: calm * chance.between(1.1, 1.4), motorW: 600 },
    },
    riderW: throttle ? 0 : dayW,
    holds: throttle || chance.happens(0.7) ? "speed" : "power",
    stopsPerMile: chance.between(0.1, 2.2),
    assistToMps: 20 * MPS_PER_MPH,
    lowPowerAt: chance.between(0.88, 0.99),
  };
  const { record, truth } = makeHardTest(Math.floor(chance.next() * 1e9), oneOf(chance, KINDS), {
    rig,
    pack: { ...bike.pack, pack: { ...bike.pack.pack, tempC: Math.round(chance.between(3, 28)) } },
    bikeKg: bike.bikeKg,
    level: throttle ? "throttle" : chance.happens(0.5) ? "eco" : "tour",
    kind: {
      climb: [2, 24],
      ...(told === "track" ? { told: "track" } : {}),
      ...(told === "bare" ? { loose: true } : {}),
    },
  });
  const seen = told !== "bare";
  const typed = {
    drive: throttle ? ("throttle" as const) : ("pedal" as const),
    ...(seen && !throttle && { effort }),
    ...(seen && { windMps: Math.max(0, truth.windMps + chance.normal(0, 1)) }),
    ...(seen && chance.happens(0.5) && { stops: truth.stops }),
    ...(told === "watts" && { riderW: Math.round(dayW * chance.between(0.93, 1.07)) }),
  };
  // What the display said of the whole ride, where the tester wrote it down.
  const totals = {
    kind: "totals" as const,
    ...(chance.happens(0.6) && { movingS: Math.round(truth.movingS) }),
    ...(chance.happens(0.6) && { climbM: Math.round(truth.climbM * chance.between(0.9, 1.1)) }),
  };
  const [ride] = record.rides;
  const isTotalled = seen && told !== "track" && Object.keys(totals).length > 1;
  const entry = { ...lastOf(there(ride).entries), id: nth(there(ride).entries, 0).id.replace(/^..../, "ffff"), seq: there(ride).entries.length, body: totals }; // prettier-ignore
  return {
    ...record,
    test: { ...record.test, ...typed, airTempC: record.test.airTempC },
    setUp: { name: "set-up", tyre: "", tyreClass: bike.tyreClass, posture: bike.posture, lightsOn: false, carriedKg, changed: "", pencil: [] }, // prettier-ignore
    bike: { ...record.bike, name: bike.name },
    rider: { ...there(record.rider), name: rider.name, massKg: rider.kg },
    rides: isTotalled
      ? [{ ...there(ride), entries: [...there(ride).entries, entry] }, ...record.rides.slice(1)]
      : record.rides,
  };
}

/**
 * A desk of bikes ridden by a few people on days that differ, noted as much as is told; bikes, riders, packs, days and gauges
 * are drawn from outside the computation's assumptions. The same seed and options give the same desk.
 */
export function makeHardDesk(seed: number, options: HardDeskOptions, reference: Reference): HardDesk {
  const chance = rngFrom(seed * 7919 + 13);
  const { scatter = 1 } = options;
  const bikes = Array.from({ length: options.bikes }, (_, b) => drawBike(chance, scatter, `Bike ${b + 1}`));
  const riders = Array.from({ length: options.riders }, (_, r): TrueRider => ({
    name: `Rider ${r + 1}`,
    kg: Math.round(chance.between(58, 104)),
    habit: around(chance, 1, 0.36 * scatter),
  }));
  const tests = bikes.flatMap((bike, b) =>
    Array.from({ length: options.testsEach }, (): HardDeskTest => {
      const rider = Math.floor(chance.next() * riders.length);
      return { bike: b, rider, record: testOf(chance, bike, nth(riders, rider), options.told) };
    }),
  );
  // On the throttle nobody pedals, under a reference neither.
  const riderW = options.told === "throttle" ? 0 : (reference.conditions.riderW ?? 0);
  return { tests, truths: bikes.map((bike, b) => truthUnder(bike, reference, riderW, seed * 31 + b)) };
}
