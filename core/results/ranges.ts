import { ASSUMED } from "#core/assumptions";
import { linearFigure, usedBetween, withSds, type Solved } from "#core/ledger";
import { rangeOwnMix, shareWithReserve, SKETCH_BELOW } from "#core/projection";
import { fixed, widen, type Uncertain } from "#core/quantities";
import type { Explained } from "./types.ts";

/**
 * Range three ways: to the end, to the end of full power, with the owner's reserve. Ink where it was ridden from full,
 * else projected through the fraction used.
 *
 * @param wide factor of the sds; @param ended the test closed the range; @param lowPowerM where low-power mode began
 */
export function ranges(
  solved: Solved,
  distanceM: number,
  relativeSd: number,
  wide: number,
  ended: boolean,
  lowPowerM: number | null,
) {
  const lastMark = solved.prior.marks[0]!.length - 1;
  const [fraction, start] = withSds(solved, [
    linearFigure(solved, usedBetween(solved, 0, 0, lastMark)),
    linearFigure(solved, solved.prior.marks[0]![0]!),
  ]).map((value) => widen(value, wide)) as [Uncertain, Uncertain];
  const sketch = fraction.mean < SKETCH_BELOW ? "; a sketch: under 30 % of the energy was used" : "";
  const explain = (share: number, because: string): Explained | null => {
    const value = rangeOwnMix(distanceM, fraction, share, relativeSd);
    return value && value.sd / value.mean < 1 ? { value, because, pencil: true } : null;
  };
  const full = Math.abs(start.mean) < 0.03;
  const total: Explained | null =
    ended && full
      ? {
          value: { mean: distanceM, sd: distanceM * relativeSd },
          because: "ridden, full to the end",
          pencil: false,
        }
      : explain(1, `projected from ${fixed(fraction.mean * 100, 0)} % of the energy${sketch}`);
  const fullPower: Explained | null =
    lowPowerM !== null && full
      ? {
          value: { mean: lowPowerM, sd: lowPowerM * relativeSd },
          because: "low-power mode began there",
          pencil: false,
        }
      : explain(ASSUMED.lowPowerAt, `assumed to end at ${fixed(ASSUMED.lowPowerAt * 100, 0)} % used`);
  return {
    rangeTotal: total,
    rangeFullPower: fullPower,
    rangeWithReserve: explain(
      shareWithReserve,
      `${fixed(ASSUMED.reserve * 100, 0)} % kept back for the way home and the pack's sake`,
    ),
  };
}
