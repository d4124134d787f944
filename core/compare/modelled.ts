import { ASSUMED } from "#core/assumptions";
import { layWay, type Course, type Piece } from "#core/course";
import { applyAll, piecesUse, type Rig } from "#core/forecast";
import { METRES_PER_MILE } from "#core/quantities";
import type { CoursePart } from "#core/roadload";

/** A way and who rides it. */
export interface Ride {
  readonly course: Course;
  readonly rig: Rig;
  /** How much of each leg lies at which slope, as a track's heights say; null: by its climb alone. */
  readonly slopes: readonly CoursePart[] | null;
  /** Share of the way on which the motor rested, being outrun. */
  readonly restShare: number;
}

const WH_PER_WS = 1 / 3600;

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
