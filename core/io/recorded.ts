import { err, nth, ok, type Result } from "#core/base";
import { haversine } from "#core/ride/distance";
import type { TrackRecord } from "#core/records";
import { trackOf, type Point } from "./gpx.ts";

/** What a recorder kept of a ride. */
export interface Recorded {
  readonly track: TrackRecord;
  /** Mean heart rate while moving, beats a minute; null where the heart was not recorded. */
  readonly meanBpm: number | null;
}

/** Slower is standing, m/s; a longer gap than this is a break, s. */
const MOVING_MPS = 0.5;
const LONGEST_GAP_S = 10;
/** A strap that slipped: beats outside are none. */
const [LEAST_BPM, MOST_BPM] = [30, 230];

/**
 * Mean heart rate over the time in motion.
 *
 * @param bpm of each point of the track, NaN where there was none
 */
export function meanWhileMoving({ timeS, lat, lon }: TrackRecord, bpm: readonly number[]): number | null {
  let [beats, seconds] = [0, 0];
  for (let i = 1; i < timeS.length; i += 1) {
    const lasted = nth(timeS, i) - nth(timeS, i - 1);
    const rate = bpm[i] ?? NaN;
    if (lasted <= 0 || lasted > LONGEST_GAP_S || !(rate >= LEAST_BPM && rate <= MOST_BPM)) continue;
    const way = haversine(nth(lat, i - 1), nth(lon, i - 1), nth(lat, i), nth(lon, i));
    if (way / lasted < MOVING_MPS) continue;
    beats += rate * lasted;
    seconds += lasted;
  }
  return seconds > 0 ? beats / seconds : null;
}

/** Points that a recorder wrote as a track, and the heart with it. Points without a place, as of a tunnel, are passed over. */
export function recordedOf(points: readonly Point[], name: string, path: string): Result<Recorded> {
  const placed = points.filter(({ lat, lon }) => lat !== undefined && lon !== undefined);
  if (points.length > 0 && placed.length < 2)
    return err(
      "no-places",
      path,
      "The recording has no places: it was made indoors, or without a satellite. Export one of a ride outside.",
    );
  const track = trackOf({ points: placed, trackName: name }, path);
  if (!track.ok) return track;
  const bpm = placed.map((point) => (point.bpm === undefined ? NaN : Number(point.bpm)));
  return ok({ track: track.value, meanBpm: meanWhileMoving(track.value, bpm) });
}
