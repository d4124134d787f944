import { there, nth } from "#core/base";
import { conditionsOfTest, type RiddenDay } from "#core/bike";
import {
  covarianceWith,
  TYRES_IN_ROLLING,
  unknownsOfMount,
  type DeskFigure,
  type DeskPosterior,
  type Mount,
  type SharedUnknown,
  type Taking,
} from "#core/desk";
import { PRIOR, type Knowledge } from "#core/forecast";

/** Something that could still be told of an earlier test. */
export interface Untold {
  readonly what: string;
  readonly testId: string;
  /** The test's title. */
  readonly test: string;
  readonly minutes: number;
}

/** What a desk tells a forecast of a bike and its rider. */
export interface Known {
  readonly knowledge: Knowledge;
  /** Mean speed at each level and on the throttle, as ridden. */
  readonly speedMps: Readonly<Record<string, number>>;
  /** What could still be told of earlier tests, each with what would then be known. */
  readonly untold: readonly (Untold & { readonly covariance: Knowledge["covariance"] })[];
  /** Tests that are still being reckoned, so that what they tell is not in it yet. */
  readonly awaited: number;
}

export const NOTHING_KNOWN: Known = { knowledge: PRIOR, speedMps: {}, untold: [], awaited: 0 };

/** Things untold that a forecast looks at, those that would tell most of bike and rider. */
const MOST_UNTOLD = 12;

/** Mean speed at each level and on the throttle, over the tests whose riding time is known. */
function speedsRidden(tests: readonly RiddenDay[]): Known["speedMps"] {
  const ridden = new Map<string, { s: number; m: number }>();
  for (const test of tests) {
    const ride = test.results.meanSpeedMps === null ? null : conditionsOfTest(test);
    for (const { level, distanceM } of ride?.legs ?? []) {
      const at = ridden.get(level) ?? { s: 0, m: 0 };
      ridden.set(level, {
        s: at.s + distanceM / nth(there(ride).conditions.speedMps, level),
        m: at.m + distanceM,
      });
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
    return desk.figure(own, (z) => own.reduce((sum, { kind }, k) => sum + nth(by, kind) * nth(z, k), 0));
  });
}

function covariance(a: DeskFigure, b: DeskFigure): number {
  let sum = 0;
  for (const key in a.effects) sum += nth(a.effects, key) * (b.effects[key] ?? 0);
  return sum;
}

/** Whom and what a forecast is for. */
export interface KnownFor {
  readonly mount: Mount;
  /** Null for a stranger. */
  readonly riderId: string | null;
  /** Tests of the bike, for the speeds at its levels. */
  readonly tests: readonly RiddenDay[];
  /** What could still be told of the tests, as a change of the desk's readings. */
  readonly tellable: readonly (Untold & { readonly taking: Taking })[];
}

const trace = (of: Knowledge["covariance"]) => of.reduce((sum, row, i) => sum + nth(row, i), 0);

/** What a desk has learned of a bike, as it is set up, and of who is to ride it: the same posterior that ranks bikes. */
export function knownFrom(desk: DeskPosterior, { mount, riderId, tests, tellable }: KnownFor): Known {
  const rider: SharedUnknown = { kind: "habit", key: `habit:${riderId ?? "nobody"}` };
  const lasting = lastingOf(desk, [...unknownsOfMount(mount, []), rider]);
  const untold = tellable.map(({ taking, what, testId, test, minutes }) => {
    const varies = covarianceWith(desk, taking);
    const covariance = lasting.map((a) => lasting.map((b) => varies(a.effects, b.effects)));
    return { what, testId, test, minutes, covariance };
  });
  return {
    knowledge: {
      mean: lasting.map(({ mean }) => mean),
      covariance: lasting.map((a) => lasting.map((b) => covariance(a, b))),
      results: desk.days.filter(({ day }) => day.home === mount.bikeId).length,
    },
    speedMps: speedsRidden(tests),
    untold: untold.sort((a, b) => trace(a.covariance) - trace(b.covariance)).slice(0, MOST_UNTOLD),
    awaited: 0,
  };
}
