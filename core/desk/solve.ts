import { ArrowEquations, whitenedVariance, type Factored, type Form } from "./arrow.ts";
import { eliminate, type Eliminated } from "./eliminate.ts";
import { layoutOf, type DeskLayout } from "./layout.ts";
import { ASSUMED_SPREADS, learnSpreads, type ExpectedSquares } from "./spreads.ts";
import { LEARNED_KINDS, type DeskDay, type LearnedKind, type Linearised, type Spreads } from "./types.ts";

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
/** A day is linearised anew when one of its unknowns has moved by this, sds; always where the answer is to be exact. */
const MOVED = 0.2;
/** The desk is solved when no shared unknown moves by more, sds: nearly, and to where digits no longer change. */
const SETTLED = { nearly: 5e-3, exactly: 1e-7 } as const;
const ODD_SDS = 3;
const SPREAD_SETTLED = 0.02;
/** Under this a day is not odd, however much it weighs with its own bike. */
const NOT_ODD = 1;
const WIDENED_SETTLED = 0.01;
const LEAST_STEP = 1 / 8;

interface Work {
  readonly day: DeskDay;
  readonly index: readonly number[];
  own: readonly number[];
  at: { readonly shared: readonly number[]; readonly own: readonly number[] };
  linearised: Linearised;
  eliminated: Eliminated;
  widened: number;
}

const priorSd = ({ kind }: { readonly kind: string }, spreads: Spreads) =>
  kind in spreads ? spreads[kind as LearnedKind] : 1;

/** Twice the negative log posterior, up to a constant. */
function misfit(work: readonly Work[], z: readonly number[], layout: DeskLayout, spreads: Spreads): number {
  let sum = 0;
  z.forEach((each, k) => (sum += (each / priorSd(layout.unknowns[k]!, spreads)) ** 2));
  for (const { day, linearised, own, widened } of work) {
    const noise = widened * widened;
    day.measured.forEach(
      ({ mean, sd }, i) => (sum += (mean - linearised.value[i]!) ** 2 / (sd * sd) / noise),
    );
    for (const each of own) sum += (each * each) / noise;
  }
  return sum;
}

function equationsOf(
  equations: ArrowEquations,
  work: readonly Work[],
  layout: DeskLayout,
  spreads: Spreads,
): Factored {
  equations.clear();
  layout.unknowns.forEach((unknown, k) =>
    equations.add([[layout.places[k]!, 1 / priorSd(unknown, spreads)]], 0),
  );
  for (const { index, eliminated } of work)
    for (const { slopes, right } of eliminated.rows) equations.add(formOf(layout, index, slopes), right);
  return equations.factor();
}

const formOf = (layout: DeskLayout, index: readonly number[], slopes: readonly number[]): Form =>
  index.map((k, i) => [layout.places[k]!, slopes[i]!] as const);

/** How far a day's rows lie from what the other days expect: the largest of its observations, in sds. */
function residualOf(
  { index, eliminated }: Work,
  layout: DeskLayout,
  factored: Factored,
  z: readonly number[],
  least = 0,
) {
  let most = 0;
  for (const { slopes, right } of eliminated.rows) {
    const left = right - index.reduce((sum, k, i) => sum + slopes[i]! * z[k]!, 0);
    if (Math.abs(left) < least) continue;
    const leverage = Math.min(0.999, whitenedVariance(factored.whiten(formOf(layout, index, slopes))));
    const residual = left / Math.sqrt(1 - leverage);
    if (Math.abs(residual) > Math.abs(most)) most = residual;
  }
  return most;
}

/** Squares that the posterior expects of the unknowns of each kind whose spread is learned. */
function expectedSquares(layout: DeskLayout, factored: Factored, z: readonly number[]): ExpectedSquares {
  const found = Object.fromEntries(LEARNED_KINDS.map((kind) => [kind, [] as number[]])) as Record<
    LearnedKind,
    number[]
  >;
  layout.unknowns.forEach(({ kind }, k) => {
    if (!(kind in found)) return;
    const variance = whitenedVariance(factored.whiten([[layout.places[k]!, 1]]));
    found[kind as LearnedKind].push(z[k]! ** 2 + variance);
  });
  return found;
}

/** A round of learning carried on as far again by half: rounds come ever nearer to where they end, from one side. */
const faster = (from: Spreads, to: Spreads): Spreads => {
  const by = (kind: LearnedKind) => to[kind] * Math.sqrt(to[kind] / from[kind]);
  return { rolling: by("rolling"), drag: by("drag"), motor: by("motor"), habit: by("habit") };
};

/** How much wider a day must be for its residual to be that of an odd one and no more. */
const widenedFor = (residual: number, widened: number) =>
  Math.max(1, (Math.abs(residual) * widened) / ODD_SDS);

/**
 * Solves all days of a desk together: most likely values of every shared unknown by Gauss and Newton on their normals, with
 * halved steps where a step makes it worse, each day's own unknowns solved out, spreads of bikes and riders learned, and
 * days that nothing explains widened. Source: docs/method.md.
 *
 * @param warm the answer before a change: days that are the same object start where they stood
 */
export function solveDesk(days: readonly DeskDay[], options: DeskOptions, warm?: Warm): SolvedDesk {
  const layout = layoutOf(days);
  let spreads = warm?.spreads ?? ASSUMED_SPREADS;
  const before = new Map(warm?.days.map((solved) => [solved.day, solved]));
  let z: readonly number[] = layout.unknowns.map(({ key }) => {
    const k = warm?.layout.indexOf.get(key);
    return k === undefined ? 0 : warm!.factored.valueAt(warm!.layout.places[k]!);
  });
  const work = days.map((day): Work => {
    const index = day.shared.map(({ key }) => layout.indexOf.get(key)!);
    const known = before.get(day);
    const at = known?.at ?? { shared: index.map((k) => z[k]!), own: day.own.map(() => 0) };
    const linearised = known?.linearised ?? day.linearise(at.shared, at.own);
    const widened = known?.widened ?? 1;
    const eliminated = eliminate(day, linearised, at, widened);
    return { day, index, own: known?.own ?? at.own, at, linearised, eliminated, widened };
  });
  const equations = new ArrowEquations(layout.sizes, layout.border);
  const exact = !options.learnSpreads && !options.robust;
  let factored = equationsOf(equations, work, layout, spreads);
  /** One step, halved while it makes the fit worse; how far it went. */
  const step = (): number => {
    const from = { z, own: work.map(({ own }) => own), misfit: misfit(work, z, layout, spreads) };
    const full = layout.places.map((place) => factored.valueAt(place));
    for (let share = 1; ; share /= 2) {
      z = full.map((each, k) => from.z[k]! + share * (each - from.z[k]!));
      work.forEach((each, t) => moveTo(each, z, from.own[t]!, share, exact));
      const now = misfit(work, z, layout, spreads);
      if (now <= from.misfit * (1 + 1e-9) + 1e-9 || share <= LEAST_STEP) break;
    }
    return z.reduce((most, each, k) => Math.max(most, Math.abs(each - from.z[k]!)), 0);
  };
  const settled = exact ? SETTLED.exactly : SETTLED.nearly;
  const steps = exact ? 4 * MOST_STEPS : MOST_STEPS;
  for (let i = 0; i < steps && step() > settled; i += 1)
    factored = equationsOf(equations, work, layout, spreads);
  for (let round = 0; round < MOST_ROUNDS && !exact; round += 1) {
    let changed = false;
    if (options.robust)
      for (const each of work) {
        const residual = residualOf(each, layout, factored, z, NOT_ODD);
        const widened = widenedFor(residual, each.widened);
        if (Math.abs(widened - each.widened) < WIDENED_SETTLED) continue;
        each.widened = widened;
        each.eliminated = eliminate(each.day, each.linearised, each.at, widened);
        changed = true;
      }
    if (options.learnSpreads) {
      const learned = faster(spreads, learnSpreads(expectedSquares(layout, factored, z)));
      changed ||= LEARNED_KINDS.some((kind) => Math.abs(learned[kind] - spreads[kind]) > SPREAD_SETTLED);
      spreads = learned;
    }
    if (!changed) break;
    factored = equationsOf(equations, work, layout, spreads);
    step();
  }
  factored = equationsOf(equations, work, layout, spreads);
  return {
    layout,
    spreads,
    factored,
    days: work.map((each) => ({
      day: each.day,
      shared: each.index.map((k) => z[k]!),
      own: each.own,
      at: each.at,
      linearised: each.linearised,
      residual: residualOf(each, layout, factored, z),
      widened: each.widened,
    })),
  };
}

/** Moves a day to where the shared unknowns stand, its own by the way they were solved out; linearises it anew where it has moved. */
function moveTo(
  each: Work,
  z: readonly number[],
  from: readonly number[],
  step: number,
  exact: boolean,
): void {
  const shared = each.index.map((k) => z[k]!);
  const wanted = each.eliminated.ownAt(shared);
  const own = wanted.map((value, k) => from[k]! + step * (value - from[k]!));
  each.own = own;
  const most = exact ? 0 : MOVED;
  const far =
    shared.some((value, k) => Math.abs(value - each.at.shared[k]!) > most) ||
    own.some((value, k) => Math.abs(value - each.at.own[k]!) > most);
  if (!far) return;
  each.at = { shared, own };
  each.linearised = each.day.linearise(shared, own);
  each.eliminated = eliminate(each.day, each.linearised, each.at, each.widened);
}
