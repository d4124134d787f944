import type { Result } from "#core/base";
import { reckonPlan, yieldOf, type PlanRecord, type PlanResults, type PlanYield } from "#core/planning";

/** Reckons a plan in the background as it is typed: the forecast first, then what the method will leave. */
export interface PlanAsk {
  readonly id: number;
  readonly record: PlanRecord;
}

export type PlanTold =
  | { readonly id: number; readonly results: Result<PlanResults> }
  | { readonly id: number; readonly yielded: Result<PlanYield> };

self.onmessage = ({ data: { id, record } }: MessageEvent<PlanAsk>) => {
  self.postMessage({ id, results: reckonPlan(record) } satisfies PlanTold);
  self.postMessage({ id, yielded: yieldOf(record) } satisfies PlanTold);
};
