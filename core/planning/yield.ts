import { DEFAULTS, err, ok, type Result } from "#core/base";
import { MINUTES } from "./additions.ts";
import { comparisonYield, DEEPEST } from "./comparison.ts";
import { routeOf, type PlanRecord } from "./record.ts";
import type { Method } from "./method.ts";
import { singleYield } from "./single.ts";
import { steadyYield } from "./steady.ts";
import type { Addition, PlanYield } from "./yieldTypes.ts";

/**
 * What a plan will cost in time and charge, and the plus-or-minus it will leave: the ledger solved on the readings it
 * would yield, exactly as forecast.
 *
 * @returns a problem when the plan cannot be forecast, or no reading it takes says anything
 */
export function yieldOf(record: PlanRecord): Result<PlanYield> {
  const routed = routeOf(record);
  if (!routed.ok) return routed;
  // A course longer than the pack lasts yields what is ridden of it.
  const lastsM = routed.value.forecast.where(DEEPEST)?.mean ?? Infinity;
  const emptied = record.plan.method.until === "the pack is empty";
  const endM = emptied ? routed.value.endM : Math.min(routed.value.endM, lastsM);
  const route = { ...routed.value, endM };
  const { forecast } = route;
  const { method } = record.plan;
  const none = { whPerM: null, comparison: null, bench: null, surer: [] as readonly Addition[] };
  if (method.school === "bench") {
    const { capacity } = forecast;
    return ok({
      ...none,
      rideS: 0,
      minutes: DEFAULTS.benchMinutes + 60 / DEFAULTS.benchRate,
      energyWh: capacity.mean,
      chargeShare: 1,
      bench: { mean: capacity.mean, sd: capacity.mean * DEFAULTS.measuredSdFloor },
    });
  }
  if (method.school === "steady current") {
    const steady = steadyYield(route);
    if (!steady) return unsaid();
    return ok({
      ...none,
      ...steady,
      minutes: DEFAULTS.setUpMinutes + DEFAULTS.passesMinutes + steady.rideS / 60,
      chargeShare: steady.energyWh / forecast.capacity.mean,
    });
  }
  const end = forecast.at(endM);
  const cost = {
    rideS: end.timeS.mean,
    minutes: DEFAULTS.setUpMinutes + end.timeS.mean / 60 + handling(method),
    energyWh: end.energyWh.mean,
    chargeShare: Math.min(1, end.energyWh.mean / forecast.capacity.mean),
  };
  if (method.compare) {
    const pair = comparisonYield(record, route, method.compare);
    return pair ? ok({ ...none, ...cost, ...pair }) : tooMuch();
  }
  const single = singleYield(record, route);
  return single ? ok({ ...none, ...cost, ...single }) : unsaid();
}

/** A person's time for a method's readings besides the riding, min. */
function handling({ taken, compare }: Method): number {
  const runs = compare ? 2 * compare.pairs : 1;
  return taken.reduce((sum, each) => sum + (each === "rest volts" ? MINUTES[each] * runs : MINUTES[each]), 0);
}

const unsaid = () =>
  err<PlanYield>(
    "no-reading",
    "method.taken",
    "None of the readings this plan takes says anything of the energy: choose percent, bars, rest volts or a meter.",
  );
const tooMuch = () =>
  err<PlanYield>(
    "runs-too-long",
    "method.compare.pairs",
    "One charge does not hold these runs: choose a shorter course or fewer runs.",
  );
