import { err, ok, type Result } from "#core/base";
import { TRACK_CHANNELS, type TrackChannel, type TrackRecord, type TrackSums } from "#core/records";
import { trackOf, type Point } from "./gpx.ts";

/** What a recorder kept of a ride. */
export interface Recorded {
  readonly track: TrackRecord;
  /** What the recorder calls it, in its own word; empty where it does not say. */
  readonly sport: string;
}

/** What a file says of the whole, beside its points. */
export interface Whole {
  readonly name?: string;
  readonly sport?: string;
  readonly sums?: TrackSums;
}

/** What can be; anything else is a strap that slipped or a field of another sport. */
const SPANS: Readonly<Record<TrackChannel, readonly [least: number, most: number]>> = {
  bpm: [25, 240],
  riderW: [0, 2500],
  cadence: [0, 254],
  tempC: [-60, 90],
};
const MOST_SUMS: Readonly<Required<TrackSums>> = {
  distanceM: 2_000_000,
  movingS: 4 * 86_400,
  elapsedS: 30 * 86_400,
  gainM: 60_000,
  meanBpm: 240,
  meanRiderW: 2500,
};

/** One channel of a recording; null where it was never there. */
function channelOf(points: readonly Point[], channel: TrackChannel): (number | null)[] | null {
  const [least, most] = SPANS[channel];
  const values = points.map((point) => {
    const said = point[channel];
    const value = said === undefined || said === "" ? NaN : Number(said);
    return value >= least && value <= most ? value : null;
  });
  return values.some((value) => value !== null) ? values : null;
}

/** Sums that can be. */
function sensible(sums: TrackSums | undefined): TrackSums | null {
  const kept = Object.entries(sums ?? {}).filter(
    ([name, value]) => value >= 0 && value <= MOST_SUMS[name as keyof TrackSums],
  );
  return kept.length ? (Object.fromEntries(kept) as TrackSums) : null;
}

/** Points that a recorder wrote as a track, with what it kept beside. Points without a place, as of a tunnel, are passed over. */
export function recordedOf(points: readonly Point[], whole: Whole, path: string): Result<Recorded> {
  const placed = points.filter(({ lat, lon }) => lat !== undefined && lon !== undefined);
  if (points.length > 0 && placed.length < 2)
    return err(
      "no-places",
      path,
      "The recording has no places: it was made indoors, or without a satellite. Export one of a ride outside.",
    );
  const track = trackOf({ points: placed, trackName: whole.name ?? "" }, path);
  if (!track.ok) return track;
  const channels = TRACK_CHANNELS.flatMap((channel) => {
    const values = channelOf(placed, channel);
    return values ? [[channel, values] as const] : [];
  });
  const sums = sensible(whole.sums);
  return ok({
    track: { ...track.value, ...Object.fromEntries(channels), ...(sums && { sums }) },
    sport: (whole.sport ?? "").trim().slice(0, 40),
  });
}
