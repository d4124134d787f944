import { rowAt, nth, choleskyOf, meanOf } from "#core/base";
import { rideEnergy, type Reference } from "#core/bike";
import {
  rideUnder,
  unknownsOfMount,
  withUnknowns,
  type DeskPosterior,
  type SharedUnknown,
  type Subject,
} from "#core/desk";

/** A source of standard normals. */
export type Normal = () => number;

/** A figure under a reference with what the desk knows of its unknowns: all that drawing it again needs. */
export interface Drawable {
  readonly subject: Subject;
  readonly reference: Reference;
  readonly unknowns: readonly SharedUnknown[];
  readonly mean: readonly number[];
  readonly covariance: readonly (readonly number[])[];
}

/** What a drawing of a bike's figure under a reference needs of the desk. */
export function drawableOf(desk: DeskPosterior, subject: Subject, reference: Reference): Drawable {
  const grounds = rideUnder(subject, reference).legs.map(({ ground }) => ground);
  const unknowns = unknownsOfMount(subject, grounds);
  return {
    ...{ subject, reference, unknowns },
    mean: unknowns.map(({ key }) => desk.valueOf(key)),
    covariance: desk.covarianceOf(unknowns),
  };
}

/**
 * A figure under a reference drawn again and again, every unknown moved at random and the road load reckoned anew: a check
 * of the sd that its slopes give.
 *
 * @param normal draws of a standard normal, from a seed
 * @returns a function that draws once more, Wh per metre
 */
export function drawerUnder({ subject, reference, unknowns, mean, covariance }: Drawable, normal: Normal) {
  const lower = choleskyOf(covariance.map((row) => Float64Array.from(row)));
  const ride = rideUnder(subject, reference);
  return () => {
    const normals = unknowns.map(() => normal());
    const z = mean.map((each, i) =>
      rowAt(lower, i).reduce((sum, by, k) => (k <= i ? sum + by * nth(normals, k) : sum), each),
    );
    return rideEnergy(withUnknowns(ride, unknowns, z));
  };
}

/**
 * Mean, sd and central 95 % of draws.
 *
 * @example spreadOf([1, 2, 3, 4, 5]).mean === 3
 */
export function spreadOf(draws: readonly number[]) {
  const sorted = [...draws].sort((a, b) => a - b);
  const mean = meanOf(draws);
  const sd = Math.sqrt(draws.reduce((sum, each) => sum + (each - mean) ** 2, 0) / (draws.length - 1));
  const at = (share: number) => nth(sorted, Math.min(sorted.length - 1, Math.floor(share * sorted.length)));
  return { mean, sd, low: at(0.025), high: at(0.975) };
}
