import { nth } from "#core/base";
import { whitenedVariance, type ArrowEquations, type Factored, type ArrowForm } from "./arrow.ts";
import { eliminate, type Eliminated } from "./eliminate.ts";
import type { DeskLayout } from "./layout.ts";
import { kindSpread, type ExpectedSquares } from "./spreads.ts";
import { LEARNED_KINDS, type DeskDay, type LearnedKind, type Linearised, type Spreads } from "./types.ts";

/** A day is linearised anew when one of its unknowns has moved by this, sds; always where the answer is to be exact. */
const MOVED = 0.2;

/** A day of the desk while it is being solved. */
export interface Work {
  readonly day: DeskDay;
  readonly index: readonly number[];
  own: readonly number[];
  at: { readonly shared: readonly number[]; readonly own: readonly number[] };
  linearised: Linearised;
  eliminated: Eliminated;
  widened: number;
}

/** Twice the negative log posterior, up to a constant. */
export function misfit(
  work: readonly Work[],
  z: readonly number[],
  layout: DeskLayout,
  spreads: Spreads,
): number {
  let sum = 0;
  z.forEach((each, k) => (sum += (each / kindSpread(nth(layout.unknowns, k).kind, spreads)) ** 2));
  for (const { day, linearised, own, widened } of work) {
    const noise = widened * widened;
    day.measured.forEach(
      ({ mean, sd }, i) => (sum += (mean - nth(linearised.value, i)) ** 2 / (sd * sd) / noise),
    );
    for (const each of own) sum += (each * each) / noise;
  }
  return sum;
}

export function equationsOf(
  equations: ArrowEquations,
  work: readonly Work[],
  layout: DeskLayout,
  spreads: Spreads,
): Factored {
  equations.clear();
  layout.unknowns.forEach((unknown, k) =>
    equations.add([[nth(layout.places, k), 1 / kindSpread(unknown.kind, spreads)]], 0),
  );
  for (const { index, eliminated } of work)
    for (const { slopes, right } of eliminated.rows) equations.add(formOf(layout, index, slopes), right);
  return equations.factor();
}

const formOf = (layout: DeskLayout, index: readonly number[], slopes: readonly number[]): ArrowForm =>
  index.map((k, i) => [nth(layout.places, k), nth(slopes, i)] as const);

/** How far a day's rows lie from what the other days expect: the largest of its observations, in sds. */
export function residualOf(
  { index, eliminated }: Work,
  layout: DeskLayout,
  factored: Factored,
  z: readonly number[],
  least = 0,
) {
  let most = 0;
  for (const { slopes, right } of eliminated.rows) {
    const left = right - index.reduce((sum, k, i) => sum + nth(slopes, i) * nth(z, k), 0);
    if (Math.abs(left) < least) continue;
    const leverage = Math.min(0.999, whitenedVariance(factored.whiten(formOf(layout, index, slopes))));
    const residual = left / Math.sqrt(1 - leverage);
    if (Math.abs(residual) > Math.abs(most)) most = residual;
  }
  return most;
}

/** Squares that the posterior expects of the unknowns of each kind whose spread is learned. */
export function expectedSquares(
  layout: DeskLayout,
  factored: Factored,
  z: readonly number[],
): ExpectedSquares {
  const found = Object.fromEntries(LEARNED_KINDS.map((kind) => [kind, [] as number[]])) as Record<
    LearnedKind,
    number[]
  >;
  layout.unknowns.forEach(({ kind }, k) => {
    if (!(kind in found)) return;
    const variance = whitenedVariance(factored.whiten([[nth(layout.places, k), 1]]));
    found[kind as LearnedKind].push(nth(z, k) ** 2 + variance);
  });
  return found;
}

/** Moves a day to where the shared unknowns stand, its own by the way they were solved out; linearises it anew where it has moved. */
export function moveTo(
  each: Work,
  z: readonly number[],
  from: readonly number[],
  step: number,
  exact: boolean,
): void {
  const shared = each.index.map((k) => nth(z, k));
  const wanted = each.eliminated.ownAt(shared);
  const own = wanted.map((value, k) => nth(from, k) + step * (value - nth(from, k)));
  each.own = own;
  const most = exact ? 0 : MOVED;
  const far =
    shared.some((value, k) => Math.abs(value - nth(each.at.shared, k)) > most) ||
    own.some((value, k) => Math.abs(value - nth(each.at.own, k)) > most);
  if (!far) return;
  each.at = { shared, own };
  each.linearised = each.day.linearise(shared, own);
  each.eliminated = eliminate(each.day, each.linearised, each.at, each.widened);
}
