import { withoutOne, type PairedTest, type WithoutOne } from "#core/compare";

/** Solves a pair's joint ledger without each of its tests in turn, telling each as it is done. */
export interface PairWork {
  readonly tests: readonly PairedTest[];
}

export interface PairTold {
  readonly without: WithoutOne;
}

self.onmessage = ({ data: { tests } }: MessageEvent<PairWork>) => {
  for (const { id } of tests) self.postMessage({ without: withoutOne(tests, id) } satisfies PairTold);
};
