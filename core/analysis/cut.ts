import { nth } from "#core/base";
import { profileOf } from "#core/ride/distance";
import { foldLog, SAME_PLACE_M, type Timeline, type Entry } from "#core/ride/log";
import type { TelemetryRecord, TestRecord, TrackRecord } from "#core/records";
import { courseOf } from "./input.ts";

type RideRecord = TestRecord["rides"][number];

/** What a ride's log held when its last mark within the cut was noted: later entries go, corrections of the kept stay. */
function entriesUpTo(entries: readonly Entry[], ride: number, course: Timeline, cutM: number): Entry[] {
  const marks = course.marks.filter((mark) => mark.ride === ride);
  const rootsOf = (within: boolean) =>
    new Set(
      marks
        .filter(({ distanceM }) => distanceM <= cutM + SAME_PLACE_M === within)
        .flatMap((mark) => mark.entries.map(({ rootId }) => rootId)),
    );
  const [kept, gone] = [rootsOf(true), rootsOf(false)];
  const folded = foldLog(entries);
  const lastSeq = Math.max(-1, ...folded.filter(({ rootId }) => kept.has(rootId)).map(({ seq }) => seq));
  const stays = new Set(
    folded
      .filter(({ rootId, seq }) => kept.has(rootId) || (!gone.has(rootId) && seq <= lastSeq))
      .flatMap(({ rootId, id }) => [rootId, id]),
  );
  const chained = (entry: Entry): boolean =>
    stays.has(entry.id) ||
    (entry.supersedes !== null && stays.has(entry.supersedes)) ||
    ("target" in entry.body && stays.has(entry.body.target));
  return entries.filter(chained);
}

const firstBeyond = (distanceM: ArrayLike<number>, leftM: number) => {
  let count = 0;
  while (count < distanceM.length && nth(distanceM, count) <= leftM + SAME_PLACE_M) count += 1;
  return count;
};

function trackUpTo(track: TrackRecord, leftM: number): TrackRecord | null {
  const profile = profileOf(track);
  const lastS = profile.timeS[firstBeyond(profile.distanceM, leftM) - 1] ?? -Infinity;
  const count = track.timeS.filter((seconds) => seconds <= lastS).length;
  const { timeS, lat, lon, eleM } = track;
  const upTo = <T>(column: readonly T[]) => column.slice(0, count);
  return count < 2
    ? null
    : { ...track, timeS: upTo(timeS), lat: upTo(lat), lon: upTo(lon), eleM: upTo(eleM) };
}

function telemetryUpTo(samples: TelemetryRecord, leftM: number, lastS: number): TelemetryRecord | null {
  const { timeS, volts, amps, speedMps, distanceM } = samples;
  const count = distanceM
    ? firstBeyond(distanceM, leftM)
    : timeS.filter((seconds) => seconds <= lastS).length;
  if (count === 0) return null;
  const upTo = (column: readonly number[]) => column.slice(0, count);
  return {
    ...samples,
    timeS: upTo(timeS),
    volts: upTo(volts),
    amps: upTo(amps),
    ...(speedMps && { speedMps: upTo(speedMps) }),
    ...(distanceM && { distanceM: upTo(distanceM) }),
  };
}

const layOf = (record: TestRecord): Timeline =>
  courseOf(
    record,
    record.rides.map(({ track }) => track && profileOf(track)),
  );

/** How long a test's log is, m. */
export const lengthOf = (record: TestRecord): number => layOf(record).marks.at(-1)?.distanceM ?? 0;

/**
 * A test as its log stood at a place: what was noted, tracked and logged up to there.
 *
 * @param cutM along the whole test, m
 */
export function cutRecord(record: TestRecord, cutM: number): TestRecord {
  const course = layOf(record);
  let offsetM = 0;
  const rides: RideRecord[] = [];
  record.rides.forEach((ride, index) => {
    const marks = course.marks.filter((mark) => mark.ride === index);
    const leftM = cutM - offsetM;
    if (rides.length > 0 && leftM < SAME_PLACE_M) return;
    const within = marks.filter(({ distanceM }) => distanceM <= cutM + SAME_PLACE_M);
    const lastS = within.at(-1)?.timeS ?? -Infinity;
    rides.push({
      ...ride,
      entries: entriesUpTo(ride.entries, index, course, cutM),
      track: ride.track && trackUpTo(ride.track, leftM),
      telemetry: ride.telemetry && telemetryUpTo(ride.telemetry, leftM, lastS),
    });
    offsetM = marks.at(-1)?.distanceM ?? offsetM;
  });
  return { ...record, rides };
}
