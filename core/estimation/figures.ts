import { num, there, nth, DEFAULTS, METRES_PER_MILE, type Estimate } from "#core/base";
import { barForm } from "./known.ts";
import { combine, valueAt, type LinearForm } from "./linearForm.ts";
import type { Posterior } from "./posterior.ts";
import type { LedgerRide } from "./schema.ts";
import type { Solved } from "./solve.ts";
import type { CellUse } from "./travel.ts";

/** A figure read off the posterior: its value, its gradient for the delta method, and variance the columns do not hold. */
export interface Figure {
  readonly mean: number;
  readonly gradient: LinearForm;
  readonly extra: number;
}

/** A linear figure: the form itself. */
export function linearFigure({ posterior }: Solved, form: LinearForm): Figure {
  return { mean: valueAt(form, posterior.mean), gradient: form, extra: 0 };
}

/** One column by itself. */
export function columnFigure(solved: Solved, column: number): Figure {
  return linearFigure(solved, new Map([[column, 1]]));
}

/** Energy C x (fraction used) on a ride, Wh, over an exact divisor. */
export function energyFigure(
  { columns, input, posterior }: Solved,
  ride: number,
  used: CellUse,
  divisor = 1,
): Figure {
  const column = nth(columns.capacity, nth(input.rides, ride).pack);
  const capacity = num(posterior.mean, column);
  const fraction = valueAt(used.form, posterior.mean);
  return {
    mean: (capacity * fraction) / divisor,
    gradient: combine([
      [used.form, capacity / divisor],
      [new Map([[column, fraction / divisor]]), 1],
    ]),
    extra: used.variance * (capacity / divisor) ** 2,
  };
}

/** A sum of figures x factors. */
export function sumFigures(terms: readonly (readonly [Figure, number])[]): Figure {
  return {
    mean: terms.reduce((sum, [{ mean }, factor]) => sum + factor * mean, 0),
    gradient: combine(terms.map(([{ gradient }, factor]) => [gradient, factor] as const)),
    extra: terms.reduce((sum, [{ extra }, factor]) => sum + factor * factor * extra, 0),
  };
}

/** A figure's variance under a posterior. */
export function varianceOf(posterior: Posterior, { gradient, extra }: Figure): number {
  return posterior.variance(gradient) + extra;
}

/** A figure's mean with its posterior sd. */
export function estimateOf({ posterior }: Solved, figure: Figure): Estimate {
  return { mean: figure.mean, sd: Math.sqrt(varianceOf(posterior, figure)) };
}

/** Fraction used between two marks of a ride, leaving out what a charge in between put back. */
export function usedBetween({ columns, input }: Solved, ride: number, from: number, to: number): CellUse {
  const first = nth(columns.firstMark, ride);
  const form = new Map<number, number>();
  const add = (mark: number, by: number) => form.set(first + mark, (form.get(first + mark) ?? 0) + by);
  add(to, 1);
  add(from, -1);
  nth(input.rides, ride)
    .legs.slice(from, to)
    .forEach(({ charged }, i) => {
      if (!charged) return;
      add(from + i + 1, -1);
      add(from + i, 1);
    });
  return { form, variance: 0 };
}

/** Fraction used over a whole ride. */
export function usedOnRide(solved: Solved, ride: number): CellUse {
  return usedBetween(solved, ride, 0, nth(solved.input.rides, ride).legs.length);
}

/** Metres of a ride, in all or in one cell. */
export function metresOf({ legs }: LedgerRide, cell?: string): number {
  return legs.reduce(
    (sum, { metres }) =>
      sum + (cell === undefined ? Object.values(metres).reduce((a, b) => a + b, 0) : (metres[cell] ?? 0)),
    0,
  );
}

/** Whole-ride Wh per metre of one ride. */
export function rideFigure(solved: Solved, ride: number): Figure {
  return energyFigure(solved, ride, usedOnRide(solved, ride), metresOf(nth(solved.input.rides, ride)));
}

/** Energy used in a cell over all rides, over its metres; null when it was not ridden. */
export function cellFigure(solved: Solved, cell: string): Figure | null {
  const { input, travel } = solved;
  const metres = input.rides.reduce((sum, ride) => sum + metresOf(ride, cell), 0);
  if (metres === 0) return null;
  return sumFigures(
    travel.cellUse.flatMap((uses, ride) => {
      const use = uses.get(cell);
      if (!use) return [];
      const scattered = { ...use, variance: use.variance * solved.scatterSquared };
      return [[energyFigure(solved, ride, scattered, metres), 1] as const];
    }),
  );
}

/** A cell's rate on a pack, Wh per metre, for forecasts. */
export function rateFigure(solved: Solved, pack: string, cell: string): Figure {
  const { columns, input } = solved;
  const ride = input.rides.findIndex((each) => each.pack === pack);
  const column = there(columns.unknowns.find(`rate ${pack}/${cell}`));
  return energyFigure(solved, ride, { form: new Map([[column, 1]]), variance: 0 });
}

/** Whether the readings say nothing of a cell's own rate: its posterior sd is over half its prior sd, on every pack it was ridden with. */
export function isUnidentifiable({ columns, input, posterior }: Solved, cell: string): boolean {
  const packs = new Set(input.rides.filter((ride) => metresOf(ride, cell) > 0).map(({ pack }) => pack));
  return [...packs].every((pack) => {
    const column = there(columns.unknowns.find(`rate ${pack}/${cell}`));
    const prior = DEFAULTS.rateSdWhPerMi / METRES_PER_MILE / nth(columns.usable, pack).mean;
    return posterior.variance(new Map([[column, 1]])) > (0.5 * prior) ** 2;
  });
}

/** The 99 % point of chi-square over its degrees of freedom (Wilson and Hilferty, 1931). */
function chi2Limit(count: number): number {
  const ninth = 2 / (9 * count);
  return (1 - ninth + 2.326 * Math.sqrt(ninth)) ** 3;
}

/**
 * The 97.5 % point of Student's t against the normal's: few readings tell their own scatter badly (JCGM 100, annex G).
 *
 * @example studentShare(4).toFixed(2) === "1.39"
 */
export const studentShare = (count: number) => 1 + 1.21 / count + 1.44 / count ** 2;

/**
 * The factor by which every sd is widened: 1 unless the readings disagree more than one in a hundred honest rides would, whatever
 * the road did; then the root of chi-square per reading (Birge's ratio), by Student's t.
 */
export function birgeRatio({ chi2PerReading, count }: Pick<Posterior, "chi2PerReading" | "count">): number {
  if (count === 0 || chi2PerReading <= chi2Limit(count)) return 1;
  return Math.sqrt(chi2PerReading) * studentShare(count);
}

/** Where a bar of a gauge goes out: its own threshold with what all bars share; null when nothing leans on it. */
export function barFigure(solved: Solved, gauge: string, bar: number): Figure | null {
  const form = barForm(solved.columns, gauge, bar);
  return form && linearFigure(solved, form);
}
