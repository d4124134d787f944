import { there, nth } from "#core/base";
import { ArrowEquations, type Factored } from "./arrow.ts";
import { eliminate } from "./eliminate.ts";
import { layoutOf, type DeskLayout } from "./layout.ts";
import { DEFAULT_SPREADS, learnSpreads } from "./spreads.ts";
import { LEARNED_KINDS, type DeskDay, type LearnedKind, type Linearised, type Spreads } from "./types.ts";
import { equationsOf, expectedSquares, misfit, moveTo, residualOf, type Work } from "./work.ts";

/** How a desk is solved. */
export interface DeskOptions {
  /** Spreads are learned from the desk; else they are as assumed. */
  readonly learnSpreads: boolean;
  /** Days that nothing explains are widened; else every one counts as it says. */
  readonly robust: boolean;
}

/** A day as the desk has solved it. */
export interface SolvedDay {
  readonly day: DeskDay;
  readonly shared: readonly number[];
  /** Its own unknowns, most likely values. */
  readonly own: readonly number[];
  readonly linearised: Linearised;
  /** Where it was linearised. */
  readonly at: { readonly shared: readonly number[]; readonly own: readonly number[] };
  /** How far its first observation lies from what all others expect of it, sds. */
  readonly residual: number;
  /** Factor on its sds, 1 where it fits. */
  readonly widened: number;
}

/** All days of a desk solved together. */
export interface SolvedDesk {
  readonly layout: DeskLayout;
  readonly spreads: Spreads;
  readonly factored: Factored;
  readonly days: readonly SolvedDay[];
}

/** An earlier answer, from which a changed desk starts. */
export type Warm = Pick<SolvedDesk, "days" | "spreads" | "layout" | "factored">;

/** Steps by Gauss and Newton in a row, and rounds of learning spreads and widening odd days, one step after each. */
const MOST_STEPS = 8;
const MOST_ROUNDS = 8;
/** The desk is solved when no shared unknown moves by more, sds: nearly, and to where digits no longer change. */
const SETTLED = { nearly: 5e-3, exactly: 1e-7 } as const;
const ODD_SDS = 3;
const SPREAD_SETTLED = 0.02;
/** Under this a day is not odd, however much it weighs with its own bike. */
const NOT_ODD = 1;
const WIDENED_SETTLED = 0.01;
const LEAST_STEP = 1 / 8;

/** A round of learning carried on as far again by half: rounds come ever nearer to where they end, from one side. */
const faster = (from: Spreads, to: Spreads): Spreads => {
  const by = (kind: LearnedKind) => to[kind] * Math.sqrt(to[kind] / from[kind]);
  return { rolling: by("rolling"), drag: by("drag"), motor: by("motor"), habit: by("habit") };
};

/** How much wider a day must be for its residual to be that of an odd one and no more. */
const widenedFor = (residual: number, widened: number) =>
  Math.max(1, (Math.abs(residual) * widened) / ODD_SDS);

/** A desk on its way to being solved. */
interface Solving {
  readonly layout: DeskLayout;
  readonly equations: ArrowEquations;
  readonly work: readonly Work[];
  /** Every day counts as it says and spreads are as assumed: solved to the last digit. */
  readonly exact: boolean;
  z: readonly number[];
  spreads: Spreads;
  factored: Factored;
}

/** Where a solve starts: at the assumptions, or where the desk stood before it changed. */
function begin(days: readonly DeskDay[], exact: boolean, warm: Warm | undefined): Solving {
  const layout = layoutOf(days);
  const before = new Map(warm?.days.map((solved) => [solved.day, solved]));
  const z = layout.unknowns.map(({ key }) => {
    const k = warm?.layout.indexOf.get(key);
    return k === undefined ? 0 : there(warm).factored.valueAt(nth(there(warm).layout.places, k));
  });
  const work = days.map((day): Work => {
    const index = day.shared.map(({ key }) => there(layout.indexOf.get(key)));
    const known = before.get(day);
    const at = known?.at ?? { shared: index.map((k) => nth(z, k)), own: day.own.map(() => 0) };
    const linearised = known?.linearised ?? day.linearise(at.shared, at.own);
    const widened = known?.widened ?? 1;
    const eliminated = eliminate(day, linearised, at, widened);
    return { day, index, own: known?.own ?? at.own, at, linearised, eliminated, widened };
  });
  const spreads = warm?.spreads ?? DEFAULT_SPREADS;
  const equations = new ArrowEquations(layout.sizes, layout.border);
  const factored = equationsOf(equations, work, layout, spreads);
  return { layout, equations, work, exact, z, spreads, factored };
}

/** One step by Gauss and Newton, halved while it makes the fit worse; how far it went, sds. */
function step(solving: Solving): number {
  const { layout, work, spreads, factored, exact } = solving;
  const from = { z: solving.z, own: work.map(({ own }) => own) };
  const before = misfit(work, from.z, layout, spreads);
  const full = layout.places.map((place) => factored.valueAt(place));
  for (let share = 1; ; share /= 2) {
    const z = full.map((each, k) => nth(from.z, k) + share * (each - nth(from.z, k)));
    work.forEach((each, t) => moveTo(each, z, nth(from.own, t), share, exact));
    solving.z = z;
    const now = misfit(work, z, layout, spreads);
    if (now <= before * (1 + 1e-9) + 1e-9 || share <= LEAST_STEP) break;
  }
  return solving.z.reduce((most, each, k) => Math.max(most, Math.abs(each - nth(from.z, k))), 0);
}

/** Widens the days that nothing explains; whether any changed. */
function widenOdd({ work, layout, factored, z }: Solving): boolean {
  let changed = false;
  for (const each of work) {
    const widened = widenedFor(residualOf(each, layout, factored, z, NOT_ODD), each.widened);
    if (Math.abs(widened - each.widened) < WIDENED_SETTLED) continue;
    each.widened = widened;
    each.eliminated = eliminate(each.day, each.linearised, each.at, widened);
    changed = true;
  }
  return changed;
}

/** One round of learning the spreads; whether they changed. */
function learnOnce(solving: Solving): boolean {
  const { layout, factored, z, spreads } = solving;
  const learned = faster(spreads, learnSpreads(expectedSquares(layout, factored, z)));
  solving.spreads = learned;
  return LEARNED_KINDS.some((kind) => Math.abs(learned[kind] - spreads[kind]) > SPREAD_SETTLED);
}

const factorAnew = (solving: Solving) => {
  const { equations, work, layout, spreads } = solving;
  solving.factored = equationsOf(equations, work, layout, spreads);
};

/**
 * Solves all days of a desk together: most likely values of every shared unknown by Gauss and Newton on their normals, with
 * halved steps where a step makes it worse, each day's own unknowns solved out, spreads of bikes and riders learned, and
 * days that nothing explains widened. Source: docs/method.md.
 *
 * @param warm the answer before a change: days that are the same object start where they stood
 */
export function solveDesk(days: readonly DeskDay[], options: DeskOptions, warm?: Warm): SolvedDesk {
  const exact = !options.learnSpreads && !options.robust;
  const solving = begin(days, exact, warm);
  const settled = exact ? SETTLED.exactly : SETTLED.nearly;
  const steps = exact ? 4 * MOST_STEPS : MOST_STEPS;
  for (let i = 0; i < steps && step(solving) > settled; i += 1) factorAnew(solving);
  for (let round = 0; round < MOST_ROUNDS && !exact; round += 1) {
    const widened = options.robust && widenOdd(solving);
    const learned = options.learnSpreads && learnOnce(solving);
    if (!widened && !learned) break;
    factorAnew(solving);
    step(solving);
  }
  factorAnew(solving);
  const { layout, spreads, factored, work, z } = solving;
  return {
    ...{ layout, spreads, factored },
    days: work.map((each) => ({
      day: each.day,
      shared: each.index.map((k) => nth(z, k)),
      own: each.own,
      at: each.at,
      linearised: each.linearised,
      residual: residualOf(each, layout, factored, z),
      widened: each.widened,
    })),
  };
}
