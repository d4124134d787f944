import { ASSUMED } from "#core/assumptions";
import type { Uncertain } from "#core/quantities";
import { combine, dot, type Form } from "./forms.ts";
import type { Solved } from "./solve.ts";

/** A figure read off the posterior: its value, and its gradient for the delta method. */
export interface Figure {
  readonly mean: number;
  readonly gradient: Form;
}

/** Energy C (form) in Wh, over an exact divisor. */
export function energyFigure({ prior, posterior }: Solved, used: Form, divisor = 1): Figure {
  const capacity = posterior.mean[prior.capacity]!;
  const fraction = dot(used, posterior.mean);
  const gradient = combine(prior.size, [[used, capacity / divisor]]);
  gradient[prior.capacity] = gradient[prior.capacity]! + fraction / divisor;
  return { mean: (capacity * fraction) / divisor, gradient };
}

/** A linear figure: the form itself. */
export function linearFigure({ posterior }: Solved, form: Form): Figure {
  return { mean: dot(form, posterior.mean), gradient: form };
}

/** One base variable. */
export function variableFigure(solved: Solved, index: number): Figure {
  const form = new Float64Array(solved.prior.size);
  form[index] = 1;
  return linearFigure(solved, form);
}

/** Means with their posterior sds, all figures in one solve. */
export function withSds(
  { posterior }: Pick<Solved, "posterior">,
  figures: readonly Figure[],
): readonly Uncertain[] {
  const variances = posterior.variances(figures.map(({ gradient }) => gradient));
  return figures.map(({ mean }, i) => ({ mean, sd: Math.sqrt(variances[i]!) }));
}

/** The form of the fraction used between two marks of a ride. */
export function usedBetween({ prior }: Solved, ride: number, from: number, to: number): Form {
  const marks = prior.marks[ride]!;
  return combine(prior.size, [
    [marks[to]!, 1],
    [marks[from]!, -1],
  ]);
}

/** Miles of a ride, in all or in one cell. */
export function milesOf({ input }: Solved, ride: number, cell?: string): number {
  return input.rides[ride]!.legs.reduce(
    (sum, { miles }) =>
      sum + (cell === undefined ? Object.values(miles).reduce((a, b) => a + b, 0) : (miles[cell] ?? 0)),
    0,
  );
}

/** Whether the readings say nothing of a cell's own rate: its posterior sd is over half its prior sd. */
export function notToldApart(rateSd: number, capacityWh: number): boolean {
  return rateSd > (0.5 * ASSUMED.rateSdWhPerMi) / capacityWh;
}
