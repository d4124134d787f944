import { LASTING_UNKNOWNS } from "#core/bike";

/** What is known of the unknowns that last beyond a day, of bike and rider: mean and covariance, in sds of their priors. */
export interface Knowledge {
  readonly mean: readonly number[];
  readonly covariance: readonly (readonly number[])[];
  /** Earlier results of the bike that it rests on. */
  readonly results: number;
}

/** Nothing but the assumptions. */
export const PRIOR: Knowledge = {
  mean: Array.from({ length: LASTING_UNKNOWNS }, () => 0),
  covariance: Array.from({ length: LASTING_UNKNOWNS }, (_, i) =>
    Array.from({ length: LASTING_UNKNOWNS }, (_, j) => (i === j ? 1 : 0)),
  ),
  results: 0,
};
