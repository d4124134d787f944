import { good, type Result } from "#core/problems";
import type { Reference } from "#core/roadload";
import type { Compared } from "./compared.ts";
import { perMetre } from "./modelled.ts";
import { measuredEffects, nudgesOf, prepare } from "./underReference.ts";

/** A source of standard normals. */
export type Normal = () => number;

/**
 * A figure under a reference drawn again and again, every named error moved at random and the road load reckoned anew: a
 * check of the sd that finite differences give.
 *
 * @param normal draws of a standard normal, from a seed
 * @returns a function that draws once more, Wh per metre
 */
export function drawerUnder(compared: Compared, reference: Reference, normal: Normal): Result<() => number> {
  const prepared = prepare(compared, reference);
  if (!prepared.ok) return prepared;
  const { whPerM } = prepared.value;
  const nudges = nudgesOf(compared, prepared.value);
  const own = Object.values(measuredEffects(compared, prepared.value));
  const base = { ride: perMetre(prepared.value.ride), target: perMetre(prepared.value.target) };
  return good(() => {
    const measured = own.reduce((sum, effect) => sum + effect * normal(), whPerM.mean);
    // Each source moves the two models by a factor of its own; together their product.
    let [ride, target] = [base.ride, base.target];
    for (const nudge of nudges) {
      const z = normal();
      ride *= perMetre(nudge.ride(z)) / base.ride;
      target *= perMetre(nudge.target(z)) / base.target;
    }
    return (measured * target) / ride;
  });
}

/** Mean, sd and central 95 % of draws. */
export function spreadOf(draws: readonly number[]) {
  const sorted = [...draws].sort((a, b) => a - b);
  const mean = draws.reduce((sum, each) => sum + each, 0) / draws.length;
  const sd = Math.sqrt(draws.reduce((sum, each) => sum + (each - mean) ** 2, 0) / (draws.length - 1));
  const at = (share: number) => sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))]!;
  return { mean, sd, low: at(0.025), high: at(0.975) };
}
