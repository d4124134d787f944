import type { Standing, StandingInput } from "#core/compare";
import type { Estimate } from "#core/base";

/** One row of the standings: a test, or a bike and set-up. */
export interface CompareRow extends StandingInput {
  readonly testIds: readonly string[];
  readonly bikeId: string;
  readonly bike: string;
  readonly setUp: string | null;
  readonly title: string;
  readonly drive: string;
  readonly day: string;
  /** In the measure shown, SI. */
  readonly value: Estimate;
  readonly plain: number | null;
  /** What the desk knows so little of that the figure is drawn hollow. */
  readonly beyond: readonly string[];
  /** The speed the motor holds where it does not hold the reference's, m/s. */
  readonly heldMps: number | null;
  /** Reckoned from no reading. */
  readonly pencil: boolean;
  /** Readings in question. */
  readonly questions: number;
  /** Share of the way ridden faster than the motor helps; null where not known. */
  readonly unassistedShare: number | null;
}

export type Place = Standing<CompareRow>;
