import { sweepResults, type SweepResults } from "#core/compare";
import type { Riding } from "#core/bike";
import type { PackRecord, Sweep } from "#core/records";

/** Reckons a sweep in the background as it is filled. */
export interface SweepAsk {
  readonly id: number;
  readonly sweep: Sweep;
  readonly riding: Riding;
  readonly pack: PackRecord;
}

export interface SweepTold {
  readonly id: number;
  readonly results: SweepResults;
}

self.onmessage = ({ data: { id, sweep, riding, pack } }: MessageEvent<SweepAsk>) =>
  self.postMessage({ id, results: sweepResults(sweep, riding, pack) } satisfies SweepTold);
