import { nth } from "#core/base";
import type { TrackProfile } from "#core/ride/distance";
import { FARTHEST_S, likeliestOffset, priorOf, type Agreement, type ClockOffset } from "./offset.ts";

/** A moment of a log at which its place was read, or at which it stood. */
export interface NotedMoment {
  readonly timeS: number;
  /** Since the ride's start, m; null where only that it stood is known. */
  readonly distanceM: number | null;
  /** By the display: the wheel's scale is another's. */
  readonly byDisplay: boolean;
  /** The bike stood. */
  readonly stood: boolean;
}

const STEP_S = 2;
/** As many moments as tell all there is to tell; of a log with more, every so many. */
const MOST_MOMENTS = 80;
/** 1 sd of a distance as it is read and typed, m: to the tenth of a mile, a moment late; by a clock of whole minutes. */
const [READ_SD_M, BY_MINUTES_SD_M] = [70, 115];
/** 1 sd of a recorder's and a display's scale, as a share. */
const [RECORDER_SD, DISPLAY_SD] = [0.01, 0.06];
/** A distance that is wrong altogether comes so seldom, and may be anywhere on the way. */
const SLIP = 0.03;
/** Fewer moments on the way tell nothing of a clock. */
const LEAST_MOMENTS = 3;
/** Who stands is slower than this, m/s; and the odds of a stop noted while it stood against in motion. */
const STANDING_MPS = 1;
const STOOD_LOG = 1.5;

/** The track's distance over even steps of its own clock. */
function evenly({ timeS, distanceM }: Pick<TrackProfile, "timeS" | "distanceM">) {
  const startS = nth(timeS, 0);
  const count = 1 + Math.floor((nth(timeS, timeS.length - 1) - startS) / STEP_S);
  const along = new Float64Array(count);
  let i = 0;
  for (let k = 0; k < count; k += 1) {
    const at = startS + k * STEP_S;
    while (i < timeS.length - 2 && nth(timeS, i + 1) <= at) i += 1;
    const [from, to] = [nth(timeS, i), nth(timeS, i + 1)];
    const share = to > from ? Math.min(1, (at - from) / (to - from)) : 0;
    along[k] = nth(distanceM, i) + share * (nth(distanceM, i + 1) - nth(distanceM, i));
  }
  return { startS, along };
}

/** Scale between what was read and the track that explains the pairs best, held near one by what is known of it; slips left out. */
function scaleOf(
  pairs: readonly (readonly [read: number, along: number])[],
  sd: number,
  readSdM: number,
): number {
  let [top, bottom] = [1 / sd ** 2, 1 / sd ** 2];
  for (const [read, along] of pairs) {
    if (Math.abs(read - along) > 4 * Math.hypot(readSdM, sd * along)) continue;
    top += (read * along) / readSdM ** 2;
    bottom += (along * along) / readSdM ** 2;
  }
  return top / bottom;
}

const densityOf = (offM: number, wayM: number, readSdM: number) =>
  (1 - SLIP) * (Math.exp(-0.5 * (offM / readSdM) ** 2) / (readSdM * Math.sqrt(2 * Math.PI))) +
  SLIP / Math.max(wayM, 1000);

/**
 * What to add to a recorder's clock to have the log's: by the distances that were noted with their times, and by the stops.
 *
 * @param prior density of the offset before anything is matched, 1/s
 * @returns null for fewer than three such moments, or a track that is none
 */
export function offsetByPlaces(
  track: Pick<TrackProfile, "timeS" | "distanceM">,
  all: readonly NotedMoment[],
  prior: (offsetS: number) => number = priorOf,
): ClockOffset | null {
  const every = Math.ceil(all.length / MOST_MOMENTS);
  const noted = all.filter((_, i) => i % every === 0);
  const placed = noted.filter(({ distanceM }) => distanceM !== null);
  if (track.timeS.length < 2 || placed.length < LEAST_MOMENTS) return null;
  const readSdM = noted.every(({ timeS }) => timeS % 60 === 0) ? BY_MINUTES_SD_M : READ_SD_M;
  const { startS, along } = evenly(track);
  const wayM = along[along.length - 1] ?? 0;
  const log = new Float64Array(1 + (2 * FARTHEST_S) / STEP_S).fill(-Infinity);
  // A moment that falls off the track tells as little as a slip.
  const nowhere = Math.log(SLIP / Math.max(wayM, 1000));
  for (let k = 0; k < log.length; k += 1) {
    const offsetS = -FARTHEST_S + k * STEP_S;
    const indexOf = (timeS: number) => Math.round((timeS - offsetS - startS) / STEP_S);
    const isOn = (timeS: number) => indexOf(timeS) >= 0 && indexOf(timeS) < along.length;
    if (placed.filter(({ timeS }) => isOn(timeS)).length < LEAST_MOMENTS) continue;
    const scales = [false, true].map((display) =>
      scaleOf(
        placed.flatMap(({ timeS, distanceM, byDisplay }) =>
          byDisplay === display && isOn(timeS) ? [[distanceM ?? 0, along[indexOf(timeS)] ?? 0] as const] : [],
        ),
        display ? DISPLAY_SD : RECORDER_SD,
        readSdM,
      ),
    );
    let sum = 0;
    for (const { timeS, distanceM, byDisplay, stood } of noted) {
      const at = indexOf(timeS);
      const here = along[at];
      if (distanceM !== null)
        sum +=
          here === undefined
            ? nowhere
            : Math.log(densityOf(distanceM - nth(scales, byDisplay ? 1 : 0) * here, wayM, readSdM));
      if (stood && here !== undefined) {
        const moved = Math.abs((along[at + 4] ?? here) - (along[at - 4] ?? here)) / (8 * STEP_S);
        sum += moved < STANDING_MPS ? STOOD_LOG : -STOOD_LOG;
      }
    }
    for (const scale of scales) sum -= 0.5 * ((scale - 1) / DISPLAY_SD) ** 2;
    log[k] = sum;
  }
  return likeliestOffset({ firstS: -FARTHEST_S, stepS: STEP_S, log } satisfies Agreement, prior);
}
