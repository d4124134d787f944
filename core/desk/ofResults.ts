import type { ErrorSource } from "#core/battery/readings";
import type { RiddenHow } from "#core/bike";
import type { Estimate } from "#core/base";

/** What a desk takes of a test's results. */
export interface MeasuredResults extends RiddenHow {
  readonly best: { readonly value: Estimate };
  readonly budget: readonly { readonly source: ErrorSource; readonly variance: number }[];
}

/** How far the pack's capacity alone moves a test's figure, as a share of it. */
export function capacityShareOf({ best: { value }, budget }: MeasuredResults): number {
  const fall = budget.find(({ source }) => source === "capacity")?.variance ?? 0;
  return Math.sqrt(Math.min(fall, value.sd ** 2)) / value.mean;
}
