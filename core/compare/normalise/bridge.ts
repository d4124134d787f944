import {
  conditionsOfTest,
  FACTORS,
  referenceName,
  rideEnergy,
  shapleySplit,
  type Factor,
  type Reference,
  type Ride,
} from "#core/bike";
import {
  DAY_UNKNOWNS,
  rideUnder,
  unknownsOfMount,
  unknownsOfRider,
  withUnknowns,
  type DeskPosterior,
  type SolvedDay,
} from "#core/desk";
import { there, nth, err, ok, type Result, fixed, type Estimate } from "#core/base";
import type { Compared } from "../compared.ts";
import { describe, factorSentence, swapsTo } from "./swaps.ts";
import { combine } from "../errorComponents.ts";
import { subjectOf, normaliseTo, type Normalised } from "./normaliseTo.ts";

/** What one thing that differs adds, Wh per metre, and why. */
export interface BridgeBar {
  readonly factor: Factor | "day";
  readonly whPerM: Estimate;
  readonly sentence: string;
}

/** The way from a measured figure to the reference: the bars sum to the answer less the measured figure. */
export interface Bridge {
  readonly measured: Estimate;
  /** This day's own first, then what differs, the largest first. */
  readonly bars: readonly BridgeBar[];
  readonly under: Normalised;
  /** What the road load expects of such a day by the assumptions alone, and measured over that. */
  readonly expected: number;
  readonly lambda: number;
  /** What lambda most likely comes from, in a sentence. */
  readonly because: string;
  /** Where nothing on the desk explains the test: that it counts for less, and by how much. */
  readonly odd: string | null;
  /** What nobody noted or measured of the ride, and what is assumed of it, in words. */
  readonly assumed: readonly string[];
}

/** A bar under this says nothing, as a share of the measured figure. */
const NOTHING_SHARE = 1e-9;
const NAMES = Object.keys(FACTORS) as readonly Factor[];

/** What a day's own unknowns are called where they explain something. */
const DAY_WORDS: Readonly<Record<(typeof DAY_UNKNOWNS)[number], string>> = {
  weight: "the weight",
  rider: "the effort",
  wind: "the wind",
  speed: "the speed",
  stops: "the stops",
  climb: "the climb",
  day: "something of that day",
};
const BIKE_WORDS: Readonly<Record<string, string>> = {
  rolling: "how the bike rolls",
  tyres: "its tyres",
  drag: "its drag",
  motor: "its motor",
  model: "the bike itself",
  habit: "what such an effort means with this rider",
  line: "the rider's line from heart rate to power",
  capacity: "what the pack holds",
  ground: "how hard the ground rolls",
};

/** Least part of the difference, in ln, that is worth a word. */
const WORTH = 0.03;

/** What a test's measured figure is away from the assumptions by: the unknowns that carry most of it. */
function explainedBy({ day, shared, own, linearised }: SolvedDay): readonly string[] {
  const [value] = linearised.value;
  const parts = [
    ...day.shared.map(({ kind }, k) => ({
      word: BIKE_WORDS[kind] ?? kind,
      by: nth(nth(linearised.byShared, 0), k) * nth(shared, k),
    })),
    ...DAY_UNKNOWNS.map((name, k) => ({
      word: DAY_WORDS[name],
      by: nth(nth(linearised.byOwn, 0), k) * nth(own, k),
    })),
  ];
  const whole = parts.reduce((sum, { by }) => sum + by, 0);
  return parts
    .filter(({ by }) => Math.sign(by) === Math.sign(whole) && Math.abs(by) > WORTH * there(value))
    .sort((a, b) => Math.abs(b.by) - Math.abs(a.by))
    .slice(0, 2)
    .map(({ word }) => word);
}

/** A test made wider by less than this is as good as any. */
const HARDLY_WIDER = 1.05;

/** That a test stands apart from all others of the desk, and so counts for less. */
function oddSentence({ widened }: SolvedDay): string | null {
  return widened > HARDLY_WIDER
    ? `Nothing on the desk explains this test: it lies over three times its doubt from what all others expect of it, and counts as ${fixed(widened, 1)} times less sure.`
    : null;
}

/** "It took 1.4 times what the road load expects of such a day; most likely: the wind, the effort." */
function lambdaSentence(lambda: number, words: readonly string[]): string {
  const share = Math.round(100 * Math.abs(lambda - 1));
  if (share < 3) return "It took what the road load expects of such a day.";
  const how =
    lambda > 1.9 ? `${fixed(lambda, 1)} times` : `${share} % ${lambda > 1 ? "more than" : "less than"}`;
  const why = words.length ? ` Most likely: ${words.join(" and ")}.` : "";
  return `It took ${how} what the road load expects of such a day by its assumptions.${why}`;
}

/**
 * Factors in which a ride differs from its reference. By the conditions, not by what each does alone: a climb may take
 * nothing on mud, where the motor never rests, and something on the reference's asphalt.
 */
function differing(ride: Ride, swaps: ReturnType<typeof swapsTo>): readonly Factor[] {
  const as = (each: Ride) => JSON.stringify(each);
  return NAMES.filter((name) => as(swaps[name](ride)) !== as(ride));
}

/** A function of the unknowns that is asked at the same places for every bar. */
export function remembered<T>(of: (z: readonly number[]) => T): (z: readonly number[]) => T {
  const known = new Map<string, T>();
  return (z) => {
    const key = z.join();
    const found = known.get(key) ?? of(z);
    known.set(key, found);
    return found;
  };
}

/**
 * The way from the measured figure to the reference: first what of it was this day's own, so that what the road load expects
 * of this bike on such a day is left; then what differs, split after Shapley. Each bar's error comes from the desk's
 * posterior. Source: docs/method.md.
 */
export function bridgeTo(desk: DeskPosterior, compared: Compared, reference: Reference): Result<Bridge> {
  const under = normaliseTo(desk, compared, reference);
  if (!under.ok) return under;
  const ride = conditionsOfTest(compared.ridden);
  const solved = desk.days.find(({ day }) => day.id === compared.id);
  if (!ride || !solved) return err("no-parts", "test", "The test has no parts with a distance.");
  const subject = subjectOf(compared);
  const measured = compared.ridden.results.best.value;
  const target = rideUnder(subject, reference);
  const swaps = swapsTo(target);
  const names = differing(ride, swaps);
  const unknowns = [
    ...unknownsOfMount(
      subject,
      [...ride.legs, ...target.legs].map(({ ground }) => ground),
    ),
    ...unknownsOfRider(compared.riderId ?? `of ${compared.id}`, ride.conditions),
  ];
  // What an effort means with the rider is the ride's own: the reference's rider gives so many watts.
  const at = (changed: Iterable<Factor>, z: readonly number[]) => {
    const swapped = [...changed].reduce(
      (now, name) => swaps[name](now),
      withUnknowns(ride, unknowns, z) as Ride,
    );
    return rideEnergy(swapped);
  };
  const splitAt = remembered((z) => new Map(shapleySplit(names, (changed) => at(changed, z))));
  const bars = names.map((factor): BridgeBar => {
    const figure = desk.figure(unknowns, (z) => there(splitAt(z).get(factor)));
    return {
      factor,
      whPerM: combine(figure),
      sentence: factorSentence(factor, ride, target, referenceName(reference)),
    };
  });
  const expectedNow = desk.figure(unknowns, (z) => at([], z));
  const own = expectedNow.mean - measured.mean;
  const assumed = rideEnergy(ride);
  const lambda = measured.mean / assumed;
  const sum = bars.reduce((total, { whPerM }) => total + whPerM.mean, expectedNow.mean);
  const sorted = bars
    .filter(({ whPerM }) => Math.abs(whPerM.mean) > NOTHING_SHARE * measured.mean)
    .sort((a, b) => Math.abs(b.whPerM.mean) - Math.abs(a.whPerM.mean));
  return ok({
    measured,
    bars: [
      {
        factor: "day",
        // The last of a sum that is reckoned by parts: what they leave is rounding.
        whPerM: {
          mean: own + (under.value.whPerM.mean - sum),
          sd: Math.hypot(measured.sd, combine(expectedNow).sd),
        },
        sentence: `This bike would be expected to take ${own < 0 ? "less" : "more"} on such a day: what is left is that day's own wind, effort, speed.`,
      },
      ...sorted,
    ],
    under: under.value,
    expected: assumed,
    lambda,
    because: lambdaSentence(lambda, explainedBy(solved)),
    odd: oddSentence(solved),
    assumed: (ride.assumed ?? []).map((factor) => describe(factor, ride)),
  });
}
