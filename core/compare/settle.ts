import { worthDoing } from "#core/estimation";
import { sdWith, type DeskPosterior } from "#core/desk";
import type { Compared } from "./compared.ts";
import { tellableOf } from "./tellable.ts";
import { combine, type ErrorComponents } from "./errorComponents.ts";

/** One thing that would make a figure, or a difference, surer. */
export interface Settling {
  readonly what: string;
  /** Of which test. */
  readonly testId: string;
  readonly minutes: number;
  /** The sd that it would leave, in the figure's unit. */
  readonly sdLeft: number;
  readonly gainPerMinute: number;
}

/**
 * What would settle a figure or a difference on a desk: for each test it leans on what could still be told of it, a run on
 * the throttle, the same ride once more; by what each minute gains.
 *
 * @param figure whose sd it is about; @param tests those that may be told more
 */
export function whatWouldSettle(
  desk: DeskPosterior,
  figure: ErrorComponents,
  tests: readonly Compared[],
): readonly Settling[] {
  const { sd } = combine(figure);
  const told = tellableOf(desk, tests).map(({ taking, ...each }) => ({
    ...each,
    sdLeft: sdWith(desk, figure.effects, taking),
  }));
  return worthDoing(sd, told);
}
