import type { Estimate } from "#core/base";
import { jointPair } from "./joint.ts";
import type { PairedTest } from "./runs.ts";

/** A pair's difference were one of its tests not there; null where a side is then without a run. */
export interface WithoutOne {
  readonly id: string;
  /** Wh per metre. */
  readonly difference: Estimate | null;
  /** Chance that A truly used less. */
  readonly chanceA: number;
}

/** The joint ledger without one of the tests: whether that one alone decides the verdict. */
export function withoutOne(tests: readonly PairedTest[], id: string): WithoutOne {
  const found = jointPair(tests.filter((each) => each.id !== id));
  return found.ok
    ? { id, difference: found.value.whole.difference, chanceA: found.value.whole.chanceA }
    : { id, difference: null, chanceA: 0.5 };
}
