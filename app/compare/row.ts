import type { Pair, Standing } from "#core/compare";
import type { Uncertain } from "#core/quantities";

/** One test as the standings show it. Wh per metre. */
export interface CompareRow {
  readonly id: string;
  readonly bikeId: string;
  readonly bike: string;
  readonly setUp: string | null;
  readonly title: string;
  readonly drive: string;
  readonly day: string;
  readonly whPerM: Uncertain;
  readonly because: string;
  readonly pencil: boolean;
  readonly plainWhPerM: number | null;
  /** Readings in question. */
  readonly questions: number;
}

export type Place = Standing<CompareRow>;

/** Two chosen tests: their difference, and what else differed. */
export interface ComparedPair extends Pair {
  readonly first: CompareRow;
  readonly second: CompareRow;
  readonly confounders: readonly string[];
}
