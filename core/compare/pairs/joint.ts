import type { ErrorSource } from "#core/battery/readings";
import {
  budgetOf,
  energyFigure,
  judgeReadings,
  solveLedger,
  sumFigures,
  estimateOf,
  usedBetween,
  varianceOf,
  birgeRatio,
  type Figure,
  type Solved,
} from "#core/estimation";
import type { Side } from "#core/fields";
import {
  nth,
  lastOf,
  err,
  errs,
  ok,
  type Result,
  scale,
  unitToken,
  widen,
  chanceBelow,
  type Estimate,
} from "#core/base";
import { analyseTest, prepareTest } from "#core/analysis";
import type { TestRecord } from "#core/records";
import { lastBarWarning } from "./lastBar.ts";
import { metered } from "./metered.ts";
import { neededFor, type Needed } from "./needed.ts";
import { inOrder, orderOf, orderWarning, ridesTogether } from "./order.ts";
import { roundingOf } from "./rounding.ts";
import { jointInput, shareUpPacks, sideRuns, type LaidRun, type PairedTest, type SideRun } from "./runs.ts";
import { sideNotes, type SideNotes } from "./sideNotes.ts";

/** A and B over one section, or over all. Wh per metre. */
export interface SidesOf {
  readonly section: string;
  readonly a: Estimate;
  readonly b: Estimate;
  /** A less B, what they share cancelled. */
  readonly difference: Estimate;
  /** Chance that A truly used less. */
  readonly chanceA: number;
  readonly metres: Readonly<Record<Side, number>>;
  /** What the log noted of each side there. */
  readonly noted: Readonly<Record<Side, SideNotes>>;
}

/** Two put against each other by one ledger over all their runs. */
export interface JointPair {
  readonly whole: SidesOf;
  readonly sections: readonly SidesOf[];
  /** The order in which the runs were ridden. */
  readonly order: readonly Side[];
  /** Ridden side by side at one time: no order matters. */
  readonly together: boolean;
  /** Why that order does not cancel a drift; null where it does, or does not matter. */
  readonly orderWarning: string | null;
  /** What a difference read off the last bar is worth; null where none is. */
  readonly lastBar: string | null;
  /** What the last digits of the readings alone can do to the difference. */
  readonly rounding: { readonly whPerM: number; readonly sentence: string };
  readonly needed: Needed;
  /** The difference's sd if the runs shared no error, Wh per metre. */
  readonly sdApart: number;
  /** The difference's sd with a watt-hour meter on every run that had none; null where all had. */
  readonly sdMetered: number | null;
  readonly budget: readonly { readonly source: ErrorSource; readonly share: number }[];
  /** Tests that take part, and how many readings count. */
  readonly tests: number;
  readonly readings: number;
}

const SIDES: readonly Side[] = ["A", "B"];

/** Wh per metre of some runs together, on the pack as it was. */
function runsFigure(solved: Solved, runs: readonly LaidRun[], stretches: readonly SideRun[]): Figure {
  const metres = stretches.reduce((sum, run) => sum + run.metres, 0);
  return sumFigures(
    stretches.map(({ ride, fromMark, toMark }) => [
      energyFigure(solved, ride, usedBetween(solved, ride, fromMark, toMark), metres),
      nth(runs, ride).warmth,
    ]),
  );
}

/** Relative error of the distances of a side: the worst of its tests'. */
function distanceSd(runs: readonly LaidRun[], stretches: readonly SideRun[]): number {
  return Math.max(...stretches.map(({ ride }) => lastOf(nth(runs, ride).laid.course.bases).relativeSd));
}

/** Figures of whole tests, once each. */
const OF_TESTS = new WeakMap<TestRecord, Estimate | null>();

/** A test's own figure, as its page has it; null where it has none. */
function figureOfTest(record: TestRecord): Estimate | null {
  const known = OF_TESTS.get(record);
  if (known !== undefined) return known;
  const results = analyseTest(record);
  const figure = results.ok ? results.value.best.value : null;
  OF_TESTS.set(record, figure);
  return figure;
}

interface Sides {
  readonly a: Estimate;
  readonly b: Estimate;
  /** A less B. */
  readonly difference: Estimate;
}

/**
 * A and B where each test is wholly one of them: what their own pages say, weighed by miles. How far their errors go together
 * is the joint ledger's.
 *
 * @returns null where a log names its own sides
 */
function sidesOfTests(solved: Solved, runs: readonly LaidRun[], stretches: readonly SideRun[]): Sides | null {
  const tests = runs.flatMap((run, ride) => {
    const { side, record } = run.test;
    const own = stretches.filter((each) => each.ride === ride);
    const value = side && own.length ? figureOfTest(record) : null;
    if (!side || !value) return [];
    const { relativeSd, source } = lastOf(run.laid.course.bases);
    const byDistance = relativeSd * value.mean;
    return {
      ...{ side, value, source, byDistance },
      byLedger: Math.sqrt(Math.max(0, value.sd ** 2 - byDistance ** 2)),
      metres: own.reduce((sum, { metres }) => sum + metres, 0),
      figure: runsFigure(solved, runs, own),
    };
  });
  if (tests.length < runs.length) return null;
  const variance = (figure: Figure) => varianceOf(solved.posterior, figure);
  const own = tests.map(({ figure }) => variance(figure));
  const covariance = (i: number, j: number) => {
    const [one, other] = [nth(tests, i), nth(tests, j)];
    if (i === j) return one.value.sd ** 2;
    const both = variance(sumFigures([[one.figure, 1], [other.figure, 1]])); // prettier-ignore
    const alike = (both - nth(own, i) - nth(own, j)) / 2 / Math.sqrt(nth(own, i) * nth(own, j));
    // Distances from one kind of recorder are off alike.
    const byDistance = one.source === other.source ? one.byDistance * other.byDistance : 0;
    return alike * one.byLedger * other.byLedger + byDistance;
  };
  const covariances = tests.map((_, i) => tests.map((__, j) => covariance(i, j)));
  const metresOf = (side: Side) =>
    tests.reduce((sum, each) => sum + (each.side === side ? each.metres : 0), 0);
  const weighed = (by: Readonly<Record<Side, number>>): Estimate => {
    const weights = tests.map(({ side, metres }) => (by[side] * metres) / metresOf(side));
    let [mean, square] = [0, 0];
    weights.forEach((weight, i) => {
      mean += weight * nth(tests, i).value.mean;
      weights.forEach((other, j) => (square += weight * other * nth(nth(covariances, i), j)));
    });
    return { mean, sd: Math.sqrt(Math.max(0, square)) };
  };
  return {
    a: weighed({ A: 1, B: 0 }),
    b: weighed({ A: 0, B: 1 }),
    difference: weighed({ A: 1, B: -1 }),
  };
}

const sourceOf = (runs: readonly LaidRun[], stretches: readonly SideRun[]) =>
  [...new Set(stretches.map(({ ride }) => lastOf(nth(runs, ride).laid.course.bases).source))]
    .sort()
    .join("+");

/** What each side took over some stretches by the joint ledger, and their difference. */
function sidesJointly(solved: Solved, runs: readonly LaidRun[], stretches: readonly SideRun[]): Sides {
  const wide = birgeRatio(solved.posterior);
  const of = (side: Side) => stretches.filter((run) => run.side === side);
  const [figureA, figureB] = SIDES.map((side) => runsFigure(solved, runs, of(side))) as [Figure, Figure];
  const widened = (figure: Figure) => widen(estimateOf(solved, figure), wide);
  const [a, b] = [widened(figureA), widened(figureB)];
  const gap = widened(gapOf(solved, runs, stretches));
  const [sdA, sdB] = [distanceSd(runs, of("A")), distanceSd(runs, of("B"))];
  // Distances from one kind of recorder are off alike, and scale the difference with them.
  const alike = sourceOf(runs, of("A")) === sourceOf(runs, of("B"));
  const byDistance = alike ? Math.max(sdA, sdB) * gap.mean : Math.hypot(sdA * a.mean, sdB * b.mean);
  return {
    a: { mean: a.mean, sd: Math.hypot(a.sd, sdA * a.mean) },
    b: { mean: b.mean, sd: Math.hypot(b.sd, sdB * b.mean) },
    difference: { mean: gap.mean, sd: Math.hypot(gap.sd, byDistance) },
  };
}

/** Sides over some stretches with what was noted there. */
function sidesOf(
  sides: Sides,
  runs: readonly LaidRun[],
  stretches: readonly SideRun[],
  section: string,
): SidesOf {
  const of = (side: Side) => stretches.filter((run) => run.side === side);
  const metres = (side: Side) => of(side).reduce((sum, run) => sum + run.metres, 0);
  return {
    ...{ section, ...sides },
    chanceA: chanceBelow(sides.difference, 0),
    metres: { A: metres("A"), B: metres("B") },
    noted: { A: sideNotes(runs, of("A")), B: sideNotes(runs, of("B")) },
  };
}

/** A less B over some stretches, Wh per metre. */
function gapOf(solved: Solved, runs: readonly LaidRun[], stretches: readonly SideRun[]): Figure {
  const of = (side: Side) =>
    runsFigure(
      solved,
      runs,
      stretches.filter((run) => run.side === side),
    );
  return sumFigures([[of("A"), 1], [of("B"), -1]]); // prettier-ignore
}

/**
 * Sections that both sides rode, each by itself; none where the runs name no section.
 *
 * @param whole what each side's sections come to, and what the joint ledger has for it
 */
function sectionsOf(
  solved: Solved,
  runs: readonly LaidRun[],
  stretches: readonly SideRun[],
  [whole, jointly]: readonly [Sides, Sides],
) {
  const [byA, byB] = [whole.a.mean / jointly.a.mean, whole.b.mean / jointly.b.mean];
  const agreeing = ({ a, b, difference }: Sides): Sides => ({
    a: scale(a, byA),
    b: scale(b, byB),
    difference: { mean: a.mean * byA - b.mean * byB, sd: difference.sd },
  });
  const names = [...new Set(stretches.map(({ section }) => section))].filter(
    (name) =>
      name !== "" &&
      SIDES.every((side) => stretches.some((run) => run.section === name && run.side === side)),
  );
  return names.map((name) => {
    const own = stretches.filter(({ section }) => section === name);
    return sidesOf(agreeing(sidesJointly(solved, runs, own)), runs, own, name);
  });
}

/** The difference's sd with a watt-hour meter on every run that had none, Wh per metre; null where all had. */
function meteredSd(solved: Solved, runs: readonly LaidRun[], stretches: readonly SideRun[]): number | null {
  const input = metered(solved.input, solved);
  const sure = input && solveLedger(input);
  if (!sure?.ok) return null;
  return Math.sqrt(varianceOf(sure.value.posterior, gapOf(sure.value, runs, stretches)));
}

/**
 * Two put against each other by one ledger over all their runs, so that what they share (the pack, a meter, a gauge, the
 * same hills) cancels. Source: docs/method.md.
 *
 * @returns a problem where a side has no run, or a test nothing to reckon
 */
export function jointPair(tests: readonly PairedTest[]): Result<JointPair> {
  const laid = tests.map((test) => ({ test, laid: prepareTest(test.record) }));
  const problems = laid.flatMap(({ laid: each }) => (each.ok ? [] : each.problems));
  if (problems.length) return errs(problems);
  const { packs, runs } = shareUpPacks(
    laid.flatMap(({ test, laid: each }) => (each.ok ? [{ test, laid: each.value }] : [])),
  );
  const stretches = sideRuns(runs);
  const missing = SIDES.find((side) => !stretches.some((run) => run.side === side));
  if (missing)
    return err(
      "no-side",
      "tests",
      `No run is ${missing}: choose a test for each side, or name the runs in the log, as @:A and @:B.`,
    );
  const found = solveLedger(jointInput(packs, runs));
  if (!found.ok) return found;
  // Readings in question count by their odds, as on a test's own page.
  const solved = judgeReadings(found.value).headline;
  const jointly = sidesJointly(solved, runs, stretches);
  const sides = sidesOfTests(solved, runs, stretches) ?? jointly;
  const whole = sidesOf(sides, runs, stretches, "");
  const budget = budgetOf(solved, gapOf(solved, runs, stretches));
  const falls = budget.reduce((sum, { variance }) => sum + variance, 0);
  const order = orderOf(inOrder(runs, stretches));
  const together = ridesTogether(runs, stretches);
  const runsOfEach = Math.min(...SIDES.map((side) => order.filter((each) => each === side).length));
  const rounding = roundingOf(solved, runs, stretches);
  return ok({
    whole,
    sections: sectionsOf(solved, runs, stretches, [sides, jointly]),
    order,
    together,
    orderWarning: together ? null : orderWarning(order),
    lastBar: lastBarWarning(runs, stretches),
    rounding: {
      whPerM: rounding,
      sentence: `Of the ${unitToken(Math.abs(whole.difference.mean), "energyPerDistance", 2)} between them, up to ${unitToken(rounding, "energyPerDistance", 2)} can be rounding of what was read.`,
    },
    needed: neededFor(whole.difference, budget, runsOfEach),
    sdApart: Math.hypot(whole.a.sd, whole.b.sd),
    sdMetered: meteredSd(solved, runs, stretches),
    budget: budget.map(({ source, variance }) => ({ source, share: variance / falls })),
    tests: tests.length,
    readings: solved.input.rides.reduce((sum, { readings }) => sum + readings.length, 0),
  });
}
