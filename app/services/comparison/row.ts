import type { Standing, StandingInput } from "#core/compare";
import type { Uncertain } from "#core/quantities";
import type { Factor } from "#core/roadload";

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
  readonly value: Uncertain;
  readonly plain: number | null;
  readonly beyond: readonly Factor[];
  /** Reckoned from no reading. */
  readonly pencil: boolean;
  /** Readings in question. */
  readonly questions: number;
  /** Share of the way ridden faster than the motor helps; null where not known. */
  readonly unassistedShare: number | null;
}

export type Place = Standing<CompareRow>;
