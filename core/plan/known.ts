import { conditionsOfTest, type RiddenDay } from "#core/bike";
import {
  TYRES_IN_ROLLING,
  unknownsOfMount,
  type DeskFigure,
  type DeskPosterior,
  type Mount,
  type SharedUnknown,
} from "#core/desk";
import { PRIOR, type Knowledge } from "#core/forecast";

/** What a desk tells a forecast of a bike and its rider. */
export interface Known {
  readonly knowledge: Knowledge;
  /** Mean speed at each level and on the throttle, as ridden. */
  readonly speedMps: Readonly<Record<string, number>>;
}

export const NOTHING_KNOWN: Known = { knowledge: PRIOR, speedMps: {} };

/** Mean speed at each level and on the throttle, over the tests whose riding time is known. */
function speedsRidden(tests: readonly RiddenDay[]): Known["speedMps"] {
  const ridden = new Map<string, { s: number; m: number }>();
  for (const test of tests) {
    const ride = test.results.meanSpeedMps === null ? null : conditionsOfTest(test);
    for (const { level, distanceM } of ride?.legs ?? []) {
      const at = ridden.get(level) ?? { s: 0, m: 0 };
      ridden.set(level, { s: at.s + distanceM / ride!.conditions.speedMps[level]!, m: at.m + distanceM });
    }
  }
  return Object.fromEntries([...ridden].map(([level, { s, m }]) => [level, m / s]));
}

/** What lasts beyond a day, in its order: rolling with these tyres, drag, motor, the bike itself, the rider. */
function lastingOf(desk: DeskPosterior, unknowns: readonly SharedUnknown[]): readonly DeskFigure[] {
  const weights: readonly Partial<Record<SharedUnknown["kind"], number>>[] = [
    { rolling: 1, tyres: TYRES_IN_ROLLING },
    { drag: 1 },
    { motor: 1 },
    { model: 1 },
    { habit: 1 },
  ];
  return weights.map((by) => {
    const own = unknowns.filter(({ kind }) => kind in by);
    return desk.figure(own, (z) => own.reduce((sum, { kind }, k) => sum + by[kind]! * z[k]!, 0));
  });
}

function covariance(a: DeskFigure, b: DeskFigure): number {
  let sum = 0;
  for (const key in a.effects) sum += a.effects[key]! * (b.effects[key] ?? 0);
  return sum;
}

/**
 * What a desk has learned of a bike, as it is set up, and of who is to ride it: the same posterior that ranks bikes.
 *
 * @param tests of the bike, for the speeds at its levels; @param riderId null for a stranger
 */
export function knownFrom(
  desk: DeskPosterior,
  mount: Mount,
  riderId: string | null,
  tests: readonly RiddenDay[],
): Known {
  const rider: SharedUnknown = { kind: "habit", key: `habit:${riderId ?? "nobody"}` };
  const lasting = lastingOf(desk, [...unknownsOfMount(mount, []), rider]);
  return {
    knowledge: {
      mean: lasting.map(({ mean }) => mean),
      covariance: lasting.map((a) => lasting.map((b) => covariance(a, b))),
      results: desk.days.filter(({ day }) => day.home === mount.bikeId).length,
    },
    speedMps: speedsRidden(tests),
  };
}
