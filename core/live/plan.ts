import type { Forecast } from "#core/forecast";
import { fixed, Z_95, type Estimate } from "#core/base";

/** How the pack stands against the plan at a place. */
export interface AgainstPlan {
  /** Fraction of the pack used beyond what was expected there; negative when less was. */
  readonly more: number;
  /** It lies outside what 95 of 100 such days would bring. */
  readonly odd: boolean;
  /** Too little to speak of. */
  readonly asPlanned: boolean;
  readonly sentence: string;
}

/** Least difference worth a word, as a fraction of the pack: what a gauge's step hides. */
const WORTH_SAYING = 0.02;

/** The charge used against the plan's forecast for the same place. */
export function againstPlan(forecast: Forecast, atM: number, used: Estimate): AgainstPlan {
  const expected = forecast.at(atM).used;
  const more = used.mean - expected.mean;
  const odd = Math.abs(more) > Z_95 * Math.hypot(expected.sd, used.sd);
  const points = fixed(100 * Math.abs(more), 0);
  const asPlanned = Math.abs(more) < WORTH_SAYING;
  if (asPlanned) return { more, odd, asPlanned, sentence: "As planned so far." };
  const how = more > 0 ? "more" : "less";
  return {
    more,
    odd,
    asPlanned,
    sentence: `${points} % of the pack ${how} used than planned by here${odd ? ", beyond what such a day explains." : "."}`,
  };
}
