import { nth } from "#core/base";
import { haversine, type Track, type TrackProfile } from "./track.ts";

/** Slower is standing, m/s; a longer gap than this is a break, s. */
const MOVING_MPS = 0.5;
const LONGEST_GAP_S = 10;

/** A mean over the time in motion, and how long that was, s. */
export interface MovingMean {
  readonly mean: number;
  readonly seconds: number;
}

/**
 * Mean of what was recorded along a track over the time in motion.
 *
 * @param values one for each point, null where there was none
 * @returns null where nothing was recorded in motion
 */
export function meanWhileMoving(
  { timeS, lat, lon }: Track,
  values: readonly (number | null)[],
): MovingMean | null {
  let [sum, seconds] = [0, 0];
  for (let i = 1; i < timeS.length; i += 1) {
    const lasted = nth(timeS, i) - nth(timeS, i - 1);
    const value = values[i] ?? null;
    if (lasted <= 0 || lasted > LONGEST_GAP_S || value === null) continue;
    if (haversine(nth(lat, i - 1), nth(lon, i - 1), nth(lat, i), nth(lon, i)) / lasted < MOVING_MPS) continue;
    sum += value * lasted;
    seconds += lasted;
  }
  return seconds > 0 ? { mean: sum / seconds, seconds } : null;
}

/** A recorder that stood: from when to when, s, and where along the way, m. */
export interface Stand {
  readonly fromS: number;
  readonly toS: number;
  readonly distanceM: number;
}

/**
 * How long a track stood in all, s.
 *
 * @example stoodFor([{ fromS: 10, toS: 70, distanceM: 60 }]) === 60
 */
export const stoodFor = (stands: readonly Stand[]): number =>
  stands.reduce((sum, { fromS, toS }) => sum + toS - fromS, 0);

/** Less time at a stand is a moment's balance, s; less way between two is one stand, m. */
const SHORTEST_STAND_S = 8;
const SHUFFLED_M = 15;

/**
 * Where a track stood between its first and its last move; a pause of the recorder in one place is a stand too.
 *
 * @example standsOf({ timeS: [0, 10, 70, 80], distanceM: [0, 60, 60, 120] }).length === 1
 */
export function standsOf({ timeS, distanceM }: Pick<TrackProfile, "timeS" | "distanceM">): readonly Stand[] {
  const wholeM = distanceM.at(-1) ?? 0;
  const found: Stand[] = [];
  for (let i = 1; i < timeS.length; i += 1) {
    const [fromS, toS, along] = [nth(timeS, i - 1), nth(timeS, i), nth(distanceM, i)];
    if (toS <= fromS || (along - nth(distanceM, i - 1)) / (toS - fromS) >= MOVING_MPS) continue;
    if (along <= 0 || along >= wholeM) continue;
    const last = found.at(-1);
    if (last && along - last.distanceM < SHUFFLED_M) found[found.length - 1] = { ...last, toS };
    else found.push({ fromS, toS, distanceM: along });
  }
  return found.filter((stand) => stand.toS - stand.fromS >= SHORTEST_STAND_S);
}
