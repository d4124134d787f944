import { ASSUMED } from "#core/assumptions";
import { layWay, type Course, type Piece } from "#core/course";
import { applyAll, BIKE_UNKNOWNS, piecesUse, UNKNOWNS, type Knowledge, type Rig } from "#core/forecast";
import type { Ground } from "#core/log";
import type { CoursePart } from "#core/roadload";
import { riddenAs, type RiddenTest } from "#core/plan";
import { bad, good, type Result } from "#core/problems";
import { METRES_PER_MILE, type Uncertain } from "#core/quantities";

/** What a fit of a bike's own sweeps and climbs says of its road load. */
export interface FittedBike {
  /** Mean and covariance of rolling, drag and motor, in sds of their assumptions. */
  readonly knowledge: Knowledge;
  /** Rolling resistance by ground, where it was ridden; the same the assumptions' way elsewhere. */
  readonly crrBy: Readonly<Partial<Record<Ground, number>>>;
}

/** A test as comparisons take it. */
export interface Compared {
  readonly id: string;
  readonly bikeId: string;
  readonly packId: string;
  readonly ridden: RiddenTest;
  /** The bare bike, kg; assumed where nobody weighed it. */
  readonly bikeKg: number;
  readonly fitted: FittedBike | null;
}

/** One part of a test: a level, a ground, or both. */
export type PartOf = (level: string, ground: string) => boolean;

/** A way and who rides it. */
export interface Ride {
  readonly course: Course;
  readonly rig: Rig;
  /** How much of each leg lies at which slope, as a track's heights say; null: by its climb alone. */
  readonly slopes: readonly CoursePart[] | null;
  /** Share of the way on which the motor rested, being outrun. */
  readonly restShare: number;
}

/** A test as ridden, and as it would be with more or less climb. */
export interface Ridden {
  readonly ride: Ride;
  readonly climbed: (moreMPerMi: number) => Ride;
  readonly measuredClimb: boolean;
  readonly whPerM: Uncertain;
  /** What one sd of the pack's capacity does to it, Wh per metre. */
  readonly capacityEffect: number;
}

/**
 * Climb of a ride that nobody measured, and its doubt, m per mile each way, as if all of it lay at the course slope: gentle
 * rises give back going down what they took going up.
 */
export const UNMEASURED_CLIMB = { mean: 2, sd: 3 };
const WH_PER_WS = 1 / 3600;
/** Doubt of stops that were counted, as a share: some were only a slowing down. */
const COUNTED_STOPS_SD = 0.1;

/** A way whose every leg has the slopes of the whole. */
function steep(
  { legs }: Course,
  slopes: readonly CoursePart[],
): { readonly lap: readonly Piece[]; readonly lapM: number } {
  const lap = legs.flatMap(({ distanceM, ground, level }, leg) =>
    slopes.map(({ share, slope }) => ({
      lengthM: distanceM * share,
      slope,
      ground,
      level,
      headingDeg: null,
      leg,
    })),
  );
  return { lap, lapM: legs.reduce((sum, { distanceM }) => sum + distanceM, 0) };
}

type Laid = ReturnType<typeof steep>;
/** Ways already laid out: a figure's errors are found by reckoning the same way dozens of times. */
const LAID = { bySlopes: new WeakMap<Course, Laid>(), byClimb: new WeakMap<Course, Laid>() };

function laid(course: Course, slopes: readonly CoursePart[] | null): Laid {
  const known = slopes ? LAID.bySlopes : LAID.byClimb;
  const found = known.get(course) ?? (slopes ? steep(course, slopes) : layWay(course));
  known.set(course, found);
  return found;
}

/**
 * Battery energy of a ride by the road load, Wh per metre. Where the motor was outrun it drew nothing but what display and
 * lights take: such miles are modelled as they were, so that they do not count as frugal.
 */
export function perMetre({ course, rig, slopes, restShare }: Ride): number {
  const { lap, lapM } = laid(course, slopes);
  const assisted = piecesUse(lap, rig).wh / lapM;
  if (restShare === 0) return assisted;
  const idleW = ASSUMED.idleW + (rig.lightsOn ? ASSUMED.lightsW : 0);
  return (1 - restShare) * assisted + (restShare * idleW * WH_PER_WS) / rig.assistToMps;
}

/** The same way with a climb, m per mile up and down. */
export const climbing = (course: Course, gainMPerMi: number, lossMPerMi = gainMPerMi): Course => ({
  ...course,
  legs: course.legs.map((leg) => ({
    ...leg,
    gainM: (gainMPerMi / METRES_PER_MILE) * leg.distanceM,
    lossM: (lossMPerMi / METRES_PER_MILE) * leg.distanceM,
  })),
});

/** A ride with its unknowns moved, in sds. */
export const shifted = (ride: Ride, z: readonly number[]): Ride => ({ ...ride, rig: applyAll(ride.rig, z) });

/** Energy per metre of some parts together; the sds add, since parts of one test lean on one another. */
function partsFigure(test: RiddenTest, part: PartOf): Uncertain | null {
  const parts = test.results.parts.filter(({ level, ground }) => part(level, ground));
  const metres = parts.reduce((sum, { distanceM }) => sum + distanceM, 0);
  let [mean, sd] = [0, 0];
  for (const { distanceM, whPerM } of parts) {
    if (whPerM === null) return null;
    mean += (whPerM.mean * distanceM) / metres;
    sd += (whPerM.sd * distanceM) / metres;
  }
  return metres > 0 ? { mean, sd } : null;
}

/** How far the pack's capacity alone moves a test's figure, as a share of it. */
function capacityShare({ results: { best, budget } }: RiddenTest): number {
  const fall = budget.find(({ source }) => source === "capacity")?.variance ?? 0;
  return Math.sqrt(Math.min(fall, best.value.sd ** 2)) / best.value.mean;
}

/** A test's figure, of the whole or of a part. */
export function figureOf(test: RiddenTest, part?: PartOf): Result<Uncertain> {
  if (!part) return good(test.results.best.value);
  if (!test.results.parts.some(({ level, ground }) => part(level, ground)))
    return bad("not-ridden", "part", "It was not ridden so.");
  const figure = partsFigure(test, part);
  return figure
    ? good(figure)
    : bad("not-told-apart", "part", "Its readings do not tell this part from the others.");
}

/** A test's figure with its errors told apart, under its own conditions. */
export function asRidden({ id, packId, ridden }: Compared, part?: PartOf) {
  const figure = figureOf(ridden, part);
  if (!figure.ok) return figure;
  const { mean, sd } = figure.value;
  const capacity = Math.min(sd, capacityShare(ridden) * mean);
  return good({
    mean,
    effects: {
      [`measured:${id}`]: Math.sqrt(Math.max(0, sd * sd - capacity * capacity)),
      [`capacity:${packId}`]: capacity,
    },
  });
}

/** A test as the road load takes it: its climb and speed as surely as they are known, its bike as a fit has it. */
export function rideOf({ ridden: test, fitted }: Compared, part?: PartOf): Result<Ridden> {
  const ridden = riddenAs(test);
  if (!ridden) return bad("no-parts", "test", "The test has no parts with a distance.");
  const figure = figureOf(test, part);
  if (!figure.ok) return figure;
  const { meanSpeedMps, noted } = test.results;
  const climbM = test.results.climbM ?? noted.climbM;
  const legs = part
    ? ridden.course.legs.filter(({ level, ground }) => part(level ?? "", ground))
    : ridden.course.legs;
  if (legs.length === 0) return bad("no-parts", "test", "That part is too short to say anything.");
  const way = { ...ridden.course, legs };
  const withClimb = (more: number) =>
    climbM === null ? climbing(way, Math.max(0, UNMEASURED_CLIMB.mean + more)) : way;
  const counted = test.test.stops !== undefined || noted.stops !== null;
  const rig: Rig = {
    ...ridden.rig,
    speedSdShare:
      meanSpeedMps !== null
        ? ASSUMED.speedHeldSdShare
        : noted.clockSpeedMps !== null
          ? counted
            ? ASSUMED.speedHeldSdShare
            : ASSUMED.speedClockSdShare
          : ridden.rig.speedSdShare,
    stopsSdShare: counted ? COUNTED_STOPS_SD : undefined,
    ...(fitted && { crrBy: fitted.crrBy }),
  };
  const { slopes } = test.results;
  const restShare = noted.unassistedShare ?? 0;
  const capacity = capacityShare(test) * figure.value.mean;
  return good({
    ride: { course: withClimb(0), rig, slopes, restShare },
    climbed: (more: number): Ride => ({ course: withClimb(more), rig, slopes, restShare }),
    measuredClimb: climbM !== null,
    whPerM: figure.value,
    capacityEffect: Math.min(figure.value.sd, capacity),
  });
}

/** Directions in which the bike's own unknowns may move: each in its own line where nothing was fitted. */
export function bikeDirections({
  bikeId,
  ridden: { setUp },
  fitted,
}: Compared): readonly { readonly key: string; readonly z: readonly number[] }[] {
  const own = `${bikeId}/${setUp?.tyreClass ?? "city"}/${setUp?.posture ?? "upright"}`;
  const unit = (k: number) => UNKNOWNS.map((_, i) => (i === k ? 1 : 0));
  if (!fitted)
    return Array.from({ length: BIKE_UNKNOWNS }, (_, k) => ({
      key: `${UNKNOWNS[k]!.name}:${own}`,
      z: unit(k),
    }));
  return lowerTriangle(fitted.knowledge.covariance).map((z, k) => ({
    key: `fitted ${UNKNOWNS[k]!.name}:${bikeId}`,
    z,
  }));
}

/** Where the bike's unknowns stand: at the assumptions, or where a fit puts them. */
export function bikeMean({ fitted }: Compared): readonly number[] {
  return UNKNOWNS.map((_, i) => fitted?.knowledge.mean[i] ?? 0);
}

/** Columns of the lower triangle whose square is a covariance (Cholesky). */
function lowerTriangle(covariance: readonly (readonly number[])[]): readonly (readonly number[])[] {
  const n = covariance.length;
  const l = covariance.map(() => new Array<number>(n).fill(0));
  for (let i = 0; i < n; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = covariance[i]![j]!;
      for (let k = 0; k < j; k += 1) sum -= l[i]![k]! * l[j]![k]!;
      l[i]![j] = i === j ? Math.sqrt(Math.max(0, sum)) : l[j]![j]! > 0 ? sum / l[j]![j]! : 0;
    }
  return l[0]!.map((_, j) => l.map((row) => row[j]!));
}
