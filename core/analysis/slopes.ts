import { nth } from "#core/base";
import type { TrackProfile } from "#core/ride/distance";
import type { CoursePart } from "#core/route";

/** Stretch over which a slope is taken, m: heights jitter. */
const STEP_M = 60;
/** Slopes this far apart are told apart. */
const BIN = 0.01;
/** Steeper than any road for a bike: a slip of the recorder. */
const STEEPEST = 0.3;

/** How much of a ride lies at which slope, by the heights of its tracks; null where none has them. */
export function slopesOf(tracks: readonly (TrackProfile | null)[]): readonly CoursePart[] | null {
  const bins = new Map<number, number>();
  let whole = 0;
  for (const track of tracks) {
    if (!track?.hasHeights) continue;
    const { distanceM, heightM } = track;
    let from = 0;
    for (let i = 1; i < distanceM.length; i += 1) {
      const metres = nth(distanceM, i) - nth(distanceM, from);
      if (metres < STEP_M) continue;
      const slope = (nth(heightM, i) - nth(heightM, from)) / metres;
      if (Math.abs(slope) < STEEPEST) {
        const bin = Math.round(slope / BIN);
        bins.set(bin, (bins.get(bin) ?? 0) + metres);
        whole += metres;
      }
      from = i;
    }
  }
  if (!(whole > 0)) return null;
  return [...bins]
    .sort(([a], [b]) => a - b)
    .map(([bin, metres]) => ({ share: metres / whole, slope: bin * BIN }));
}
