import { nth, DEFAULTS, fixed, num, type Estimate } from "#core/base";
import type { Solved } from "#core/estimation";
import type { Timeline } from "#core/ride/log";
import { SKETCH_BELOW, SPENT, wayInAll, type RideSoFar } from "#core/analysis/projection";
import { howRange } from "./how.ts";
import type { EndView, Explained } from "./types.ts";

/** Fraction used at the start, within which it counts as full. */
const FULL_WITHIN = 0.03;

const FULL_POWER_BECAUSE = {
  hand: "marked by hand",
  "low-power mode": "low-power mode began there",
  "fading speed": "the speed that was held fades from there",
} as const;

/** Full power never reaches beyond the end. */
function noFurther(fullPower: Explained | null, total: Explained | null): Explained | null {
  if (!fullPower || !total || fullPower.value.mean <= total.value.mean) return fullPower;
  return { ...fullPower, value: total.value, because: "to the end, as far as anybody noted" };
}

/**
 * Range three ways: to the end, to the end of full power, with the owner's reserve. Ink where it was ridden from full,
 * else what was ridden and what is left of a full charge.
 */
export function ranges(solved: Solved, ride: RideSoFar, relativeSd: number, course: Timeline, end: EndView) {
  const { used, distance } = ride;
  const start = num(solved.posterior.mean, 0);
  const full = Math.abs(start) < FULL_WITHIN && !course.legs.some(({ charged }) => charged);
  const sketch = used.mean < SKETCH_BELOW ? "; a sketch: under 30 % of the energy was used" : "";
  const explain = (share: Estimate, because: string): Explained | null => {
    const value = wayInAll(ride, share, full);
    return value && value.sd < value.mean
      ? { value, because, pencil: true, how: howRange(distance.mean, share.mean, used) }
      : null;
  };
  const ridden = (metres: number, because: string): Explained => ({
    value: { mean: metres, sd: metres * relativeSd },
    because,
    pencil: false,
    how: [],
  });
  const { fullPower, closed } = end;
  const firstM = nth(course.marks, 0).distanceM;
  const rangeTotal =
    closed && full
      ? ridden(distance.mean, "ridden, full to the end")
      : explain(SPENT.toEnd, `projected from ${fixed(used.mean * 100, 0)} % of the energy${sketch}`);
  const assumed = explain(
    SPENT.toFullPower,
    `assumed to end at ${fixed(DEFAULTS.lowPowerAt * 100, 0)} % used`,
  );
  return {
    rangeTotal,
    rangeFullPower:
      fullPower && full
        ? ridden(Math.min(distance.mean, fullPower.distanceM - firstM), FULL_POWER_BECAUSE[fullPower.by])
        : noFurther(assumed, rangeTotal),
    rangeWithReserve: explain(
      SPENT.toReserve,
      `${fixed(DEFAULTS.reserve * 100, 0)} % kept back for the way home and the pack's sake`,
    ),
  };
}
