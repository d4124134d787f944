import { good, type Result } from "#core/problems";
import type { Uncertain } from "#core/quantities";
import { FACTORS, referenceName, shapleySplit, type Factor, type Reference } from "#core/roadload";
import type { Compared, PartOf } from "./compared.ts";
import { perMetre, type Ride } from "./modelled.ts";
import { factorSentence } from "./swaps.ts";
import {
  measuredEffects,
  nudgesOf,
  prepare,
  slopeOf,
  underReference,
  type Prepared,
  type UnderReference,
} from "./underReference.ts";

/** What one thing that differs adds, Wh per metre, and why. */
export interface BridgeBar {
  readonly factor: Factor;
  readonly whPerM: Uncertain;
  readonly sentence: string;
}

/** The way from a measured figure to the reference: the bars sum to the answer less the measured figure. */
export interface Bridge {
  readonly measured: Uncertain;
  readonly bars: readonly BridgeBar[];
  readonly under: UnderReference;
}

/** A bar under this says nothing, as a share of the measured figure. */
const NOTHING_SHARE = 1e-9;
const NAMES = Object.keys(FACTORS) as readonly Factor[];

/**
 * Factors in which a ride differs from its reference. By the conditions, not by what each does alone: a climb may take
 * nothing on mud, where the motor never rests, and something on the reference's asphalt.
 */
function differing({ ride, swapped }: Prepared): readonly Factor[] {
  const as = (each: Ride) => JSON.stringify(each);
  return NAMES.filter((name) => as(swapped([name])) !== as(ride));
}

/** Bars by factor, Wh per metre, from one ride to the reference with what the reference takes of the bike moved alike. */
function barsFrom(prepared: Prepared, names: readonly Factor[], ride: Ride): ReadonlyMap<Factor, number> {
  const lambda = prepared.whPerM.mean / perMetre(ride);
  return new Map(shapleySplit(names, (changed) => lambda * perMetre(prepared.swapped(changed, ride))));
}

/**
 * The way from the measured figure to the reference, split over what differs after Shapley; the largest bar first. Each
 * bar's error comes by the same sources as the answer's. Source: docs/method.md.
 */
export function bridgeTo(compared: Compared, reference: Reference, part?: PartOf): Result<Bridge> {
  const prepared = prepare(compared, reference, part);
  if (!prepared.ok) return prepared;
  const under = underReference(compared, reference, part);
  if (!under.ok) return under;
  const { whPerM, ride } = prepared.value;
  const names = differing(prepared.value);
  const bars = barsFrom(prepared.value, names, ride);
  const variances = new Map([...bars].map(([factor]) => [factor, 0]));
  const add = (factor: Factor, effect: number) =>
    variances.set(factor, variances.get(factor)! + effect * effect);
  for (const effect of Object.values(measuredEffects(compared, prepared.value)))
    for (const [factor, bar] of bars) add(factor, (bar * effect) / whPerM.mean);
  for (const nudge of nudgesOf(compared, prepared.value)) {
    const moved = new Map([-0.5, 0.5].map((z) => [z, barsFrom(prepared.value, names, nudge.ride(z))]));
    for (const factor of bars.keys()) {
      const by = (z: number) => moved.get(z)!.get(factor)!;
      add(factor, slopeOf(by));
    }
  }
  return good({
    measured: whPerM,
    bars: [...bars]
      .map(([factor, mean]) => ({
        factor,
        whPerM: { mean, sd: Math.sqrt(variances.get(factor)!) },
        sentence: factorSentence(factor, ride, prepared.value.target, referenceName(reference)),
      }))
      .filter(({ whPerM: bar }) => Math.abs(bar.mean) > NOTHING_SHARE * whPerM.mean)
      .sort((a, b) => Math.abs(b.whPerM.mean) - Math.abs(a.whPerM.mean)),
    under: under.value,
  });
}
