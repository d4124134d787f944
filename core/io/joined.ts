import { lastOf, nth } from "#core/base";
import { haversine } from "#core/ride/distance";
import { TRACK_CHANNELS, type TrackRecord } from "#core/records";

/** A later file takes the place of an earlier one when it covers so much of its time. */
const COVERS = 0.8;
/** Two parts of one ride are not further apart, s; and nobody rides on faster than this in between, m/s. */
const [LONGEST_BREAK_S, FASTEST_MPS] = [6 * 3600, 30];

/**
 * One track of two files that one device wrote of a ride, as when it was stopped on the way, or exported twice with more the
 * second time: where both have a moment, the later file's points count.
 *
 * @param earlier what is kept; @param later what came now, by the same clock
 * @returns null where the later file stands for itself: it covers the earlier, or is of another ride
 */
export function joinTracks(earlier: TrackRecord, later: TrackRecord): TrackRecord | null {
  const [from, to] = [nth(later.timeS, 0), lastOf(later.timeS)];
  const [began, ended] = [nth(earlier.timeS, 0), lastOf(earlier.timeS)];
  const shared = Math.max(0, Math.min(to, ended) - Math.max(from, began));
  if (shared >= COVERS * (ended - began)) return null;
  if (Math.max(from - ended, began - to) > LONGEST_BREAK_S) return null;
  const before = indicesOf(earlier, (timeS) => timeS < from);
  const after = indicesOf(earlier, (timeS) => timeS > to);
  const meets = (a: number | undefined, b: number | undefined) =>
    a === undefined || b === undefined || isRideable(earlier, a, later, b);
  if (!meets(before.at(-1), 0) || !meets(after[0], later.timeS.length - 1)) return null;
  const column = <T>(of: (track: TrackRecord) => readonly T[]): T[] => [
    ...before.map((i) => nth(of(earlier), i)),
    ...of(later),
    ...after.map((i) => nth(of(earlier), i)),
  ];
  const none = ({ timeS }: TrackRecord) => timeS.map(() => null);
  const channels = TRACK_CHANNELS.flatMap((name) =>
    earlier[name] || later[name] ? [[name, column((track) => track[name] ?? none(track))] as const] : [],
  );
  return {
    name: later.name,
    timeS: column(({ timeS }) => timeS),
    lat: column(({ lat }) => lat),
    lon: column(({ lon }) => lon),
    eleM: column(({ eleM }) => eleM),
    ...Object.fromEntries(channels),
  };
}

const indicesOf = ({ timeS }: TrackRecord, keeps: (timeS: number) => boolean): readonly number[] =>
  timeS.flatMap((each, i) => (keeps(each) ? [i] : []));

/** Whether somebody can have come from one point to the other in the time between. */
function isRideable(a: TrackRecord, i: number, b: TrackRecord, k: number): boolean {
  const seconds = Math.abs(nth(b.timeS, k) - nth(a.timeS, i));
  const metres = haversine(nth(a.lat, i), nth(a.lon, i), nth(b.lat, k), nth(b.lon, k));
  return metres <= 50 + FASTEST_MPS * seconds;
}
