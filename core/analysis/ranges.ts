import { num, nth, DEFAULTS, fixed, widen } from "#core/base";
import { linearFigure, estimateOf, usedOnRide, type Solved } from "#core/estimation";
import type { Timeline } from "#core/ride/log";
import { rangeOwnMix, shareWithReserve, SKETCH_BELOW } from "#core/analysis/projection";
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
 * else projected through the fraction used.
 *
 * @param wide factor of the sds
 */
export function ranges(
  solved: Solved,
  distanceM: number,
  relativeSd: number,
  wide: number,
  course: Timeline,
  end: EndView,
) {
  const fraction = widen(estimateOf(solved, linearFigure(solved, usedOnRide(solved, 0).form)), wide);
  const start = num(solved.posterior.mean, 0);
  const sketch = fraction.mean < SKETCH_BELOW ? "; a sketch: under 30 % of the energy was used" : "";
  const explain = (share: number, because: string): Explained | null => {
    const value = rangeOwnMix(distanceM, fraction, share, relativeSd);
    return value && value.sd / value.mean < 1
      ? { value, because, pencil: true, how: howRange(distanceM, share, fraction) }
      : null;
  };
  const ridden = (metres: number, because: string): Explained => ({
    value: { mean: metres, sd: metres * relativeSd },
    because,
    pencil: false,
    how: [],
  });
  const full = Math.abs(start) < FULL_WITHIN && !course.legs.some(({ charged }) => charged);
  const { fullPower, closed } = end;
  const firstM = nth(course.marks, 0).distanceM;
  const rangeTotal =
    closed && full
      ? ridden(distanceM, "ridden, full to the end")
      : explain(1, `projected from ${fixed(fraction.mean * 100, 0)} % of the energy${sketch}`);
  const assumed = explain(
    DEFAULTS.lowPowerAt,
    `assumed to end at ${fixed(DEFAULTS.lowPowerAt * 100, 0)} % used`,
  );
  return {
    rangeTotal,
    rangeFullPower:
      fullPower && full
        ? ridden(Math.min(distanceM, fullPower.distanceM - firstM), FULL_POWER_BECAUSE[fullPower.by])
        : noFurther(assumed, rangeTotal),
    rangeWithReserve: explain(
      shareWithReserve,
      `${fixed(DEFAULTS.reserve * 100, 0)} % kept back for the way home and the pack's sake`,
    ),
  };
}
