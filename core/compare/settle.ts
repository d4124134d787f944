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

/** Least share of the sd that something must take away to be listed. */
export const WORTH_SAYING = 0.03;

/** What each minute of it takes off an sd. A thing of less than a minute counts as one. */
export const gainPerMinute = (sd: number, sdLeft: number, minutes: number): number =>
  (sd - sdLeft) / Math.max(1, minutes);

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
  return tellableOf(desk, tests)
    .map(({ what, testId, minutes, taking }): Settling => {
      const sdLeft = sdWith(desk, figure.effects, taking);
      return { what, testId, minutes, sdLeft, gainPerMinute: gainPerMinute(sd, sdLeft, minutes) };
    })
    .filter(({ sdLeft }) => sdLeft < sd * (1 - WORTH_SAYING))
    .sort((a, b) => b.gainPerMinute - a.gainPerMinute);
}
