import { ASSUMED } from "#core/assumptions";
import { layWay, type Course } from "#core/course";
import { applyAll, BIKE_UNKNOWNS, piecesUse, UNKNOWNS, type Rig } from "#core/forecast";
import { riddenAs, type RiddenTest } from "#core/plan";
import { bad, good, type Result } from "#core/problems";
import { METRES_PER_MILE, quantityToken, type Uncertain } from "#core/quantities";
import { shapleySplit, type Factor, type Reference } from "#core/roadload";

/** A test's figure brought to a reference. */
export interface UnderReference {
  /** Wh per metre under the reference. */
  readonly whPerM: Uncertain;
  /** Measured over modelled, of the test. */
  readonly lambda: number;
  /** Factors that change the figure so much that the answer lies outside what was ridden: it is drawn hollow. */
  readonly beyond: readonly Factor[];
  /** Share of the variance by source, the largest first. */
  readonly sources: readonly { readonly name: string; readonly share: number }[];
}

/** What one thing that differs adds, Wh per metre. */
export interface BridgeBar {
  readonly factor: Factor;
  readonly whPerM: number;
}

/** The way from a measured figure to the reference: the bars sum to the answer less the measured figure. */
export interface Bridge {
  readonly measured: Uncertain;
  readonly bars: readonly BridgeBar[];
  readonly under: UnderReference;
}

/** One factor may change the figure by this share before the answer is drawn hollow. */
const FAR_SHARE = 0.25;
/** Climb of a ride that nobody measured, and its doubt, m per mile each way. */
const UNMEASURED_CLIMB = { mean: 10, sd: 8 };
/** How far an unknown is moved to see what it does, in sds. */
const NUDGE = 0.5;
/** A bar under this says nothing, as a share of the measured figure. */
const NOTHING_SHARE = 1e-9;

/** A way and who rides it. */
interface Ride {
  readonly course: Course;
  readonly rig: Rig;
}

const perMetre = ({ course, rig }: Ride) => {
  const { lap, lapM } = layWay(course);
  return piecesUse(lap, rig).wh / lapM;
};

/** The same way with a climb, m per mile up and down. */
const climbing = (course: Course, gainMPerMi: number, lossMPerMi = gainMPerMi): Course => ({
  ...course,
  legs: course.legs.map((leg) => ({
    ...leg,
    gainM: (gainMPerMi / METRES_PER_MILE) * leg.distanceM,
    lossM: (lossMPerMi / METRES_PER_MILE) * leg.distanceM,
  })),
});

type Swap = (ride: Ride) => Ride;

/** What takes each factor of a ride to the reference, alone. */
function swapsTo(
  { conditions, carriedKg }: Reference,
  bikeKg: number,
  throttle: boolean,
): Readonly<Record<Factor, Swap>> {
  const rigged =
    (change: (rig: Rig) => Partial<Rig>): Swap =>
    ({ course, rig }) => ({ course, rig: { ...rig, ...change(rig) } });
  const { gainMPerMi = 0, lossMPerMi, ground = "asphalt", speedMps } = conditions;
  return {
    mass: rigged(() => ({ massKg: bikeKg + carriedKg })),
    wind: rigged(() => ({ windMps: Math.abs(conditions.headwindMps ?? 0), windFromDeg: null })),
    air: rigged((rig) => ({
      tempC: conditions.tempC ?? rig.tempC,
      altitudeM: conditions.altitudeM ?? 0,
    })),
    speed: rigged((rig) => ({
      speedMps: Object.fromEntries(Object.keys(rig.speedMps).map((level) => [level, speedMps])),
      // What a level gives says nothing of a speed that is held.
      motorW: {},
    })),
    rider: rigged(() => ({ riderW: throttle ? 0 : (conditions.riderW ?? 0) })),
    stops: rigged(() => ({ stopsPerMi: conditions.stopsPerMi ?? 0 })),
    lights: rigged(() => ({ lightsOn: conditions.lightsOn ?? false })),
    climb: ({ course, rig }) => ({ course: climbing(course, gainMPerMi, lossMPerMi), rig }),
    ground: ({ course, rig }) => ({
      course: { ...course, legs: course.legs.map((leg) => ({ ...leg, ground })) },
      rig,
    }),
  };
}

/** The bike's own unknowns go with it to the reference; the day's stay with the test. */
const bikeOnly = (z: readonly number[]) => z.map((each, i) => (i < BIKE_UNKNOWNS ? each : 0));
const shifted = ({ course, rig }: Ride, z: readonly number[]): Ride => ({ course, rig: applyAll(rig, z) });
const along = (k: number, z: number) => UNKNOWNS.map((_, i) => (i === k ? z : 0));

/** A test as ridden, and as it would be with more or less climb. */
interface Ridden {
  readonly ride: Ride;
  readonly climbed: (moreMPerMi: number) => Ride;
  readonly measuredClimb: boolean;
  readonly whPerM: Uncertain;
}

interface Prepared extends Ridden {
  /** Modelled of the test, Wh per metre. */
  readonly modelled: number;
  readonly lambda: number;
  readonly target: Ride;
  readonly swapped: (changed: Iterable<Factor>) => Ride;
  readonly differing: readonly Factor[];
  readonly beyond: readonly Factor[];
}

/** A test as ridden, its climb and speed as surely as they are known. */
function rideOf(test: RiddenTest): Ridden | null {
  const ridden = riddenAs(test);
  if (!ridden) return null;
  const { climbM, meanSpeedMps } = test.results;
  const speedSdShare = meanSpeedMps === null ? ridden.rig.speedSdShare : ASSUMED.speedHeldSdShare;
  const withClimb = (more: number) =>
    climbM === null ? climbing(ridden.course, Math.max(0, UNMEASURED_CLIMB.mean + more)) : ridden.course;
  const rig = { ...ridden.rig, speedSdShare };
  return {
    ride: { course: withClimb(0), rig },
    climbed: (more: number): Ride => ({ course: withClimb(more), rig }),
    measuredClimb: climbM !== null,
    whPerM: ridden.whPerM,
  };
}

/** A test and the reference it is brought to, with what swaps each factor; a problem where that cannot be. */
function prepare(test: RiddenTest, bikeKg: number, reference: Reference): Result<Prepared> {
  const found = rideOf(test);
  if (!found) return bad("no-parts", "test", "The test has no parts with a distance.");
  const { ride, whPerM } = found;
  const { speedMps } = reference.conditions;
  const { assistToMps } = ride.rig;
  if (speedMps > assistToMps)
    return bad(
      "too-fast",
      "reference",
      `The motor rests above ${quantityToken(assistToMps, "speed", 1)}: it does not hold the reference's ${quantityToken(speedMps, "speed", 1)}.`,
    );
  const modelled = perMetre(ride);
  if (!(modelled > 0))
    return bad("no-motor", "test", "By the road load the motor gave nothing on this test.");
  const swaps = swapsTo(reference, bikeKg, test.test.drive === "throttle");
  const names = Object.keys(swaps) as readonly Factor[];
  const swapped = (changed: Iterable<Factor>) => [...changed].reduce((now, name) => swaps[name](now), ride);
  const alone = new Map(names.map((name) => [name, perMetre(swaps[name](ride)) / modelled - 1]));
  const differing = names.filter((name) => Math.abs(alone.get(name)!) > NOTHING_SHARE);
  return good({
    ...found,
    modelled,
    lambda: whPerM.mean / modelled,
    target: swapped(names),
    swapped,
    differing,
    beyond: differing.filter((name) => Math.abs(alone.get(name)!) > FAR_SHARE),
  });
}

/**
 * Brings a test to a reference by the road load: lambda = measured / M(test), answer = lambda M(reference). What is not
 * known of the bike moves both, what is not known of the day the test alone, by finite differences. Source: SCIENCE,
 * section 7.
 *
 * @param bikeKg the bare bike; @returns a problem where the motor rests at the reference's speed, or gave nothing on the test
 */
export function underReference(
  test: RiddenTest,
  bikeKg: number,
  reference: Reference,
): Result<UnderReference> {
  const prepared = prepare(test, bikeKg, reference);
  if (!prepared.ok) return prepared;
  const { ride, climbed, measuredClimb, whPerM, modelled, lambda, target, beyond } = prepared.value;
  const ratio = (z: readonly number[]) => perMetre(shifted(target, bikeOnly(z))) / perMetre(shifted(ride, z));
  const mean = lambda * perMetre(target);
  const parts = [
    { name: "measured", variance: (whPerM.sd * (mean / whPerM.mean)) ** 2 },
    ...UNKNOWNS.map(({ name }, k) => ({
      name,
      variance: ((whPerM.mean * (ratio(along(k, NUDGE)) - ratio(along(k, -NUDGE)))) / (2 * NUDGE)) ** 2,
    })),
  ];
  if (!measuredClimb) {
    const by = (sign: number) => modelled / perMetre(climbed(sign * UNMEASURED_CLIMB.sd));
    parts.push({ name: "climb", variance: ((mean * (by(1) - by(-1))) / 2) ** 2 });
  }
  const variance = parts.reduce((sum, part) => sum + part.variance, 0);
  return good({
    whPerM: { mean, sd: Math.sqrt(variance) },
    lambda,
    beyond,
    sources: parts
      .map(({ name, variance: own }) => ({ name, share: own / variance }))
      .sort((a, b) => b.share - a.share),
  });
}

/** The way from the measured figure to the reference, split over what differs after Shapley; the largest bar first. */
export function bridgeTo(test: RiddenTest, bikeKg: number, reference: Reference): Result<Bridge> {
  const prepared = prepare(test, bikeKg, reference);
  if (!prepared.ok) return prepared;
  const under = underReference(test, bikeKg, reference);
  if (!under.ok) return under;
  const { differing, swapped, lambda, whPerM } = prepared.value;
  const bars = shapleySplit(differing, (changed) => lambda * perMetre(swapped(changed)));
  return good({
    measured: whPerM,
    bars: bars
      .map(([factor, bar]) => ({ factor, whPerM: bar }))
      .sort((a, b) => Math.abs(b.whPerM) - Math.abs(a.whPerM)),
    under: under.value,
  });
}
