import { there, nth, meanIfAny, meanOf } from "#core/base";
import type { TrackProfile } from "#core/ride/distance";
import type { Timeline } from "#core/ride/log";
import type { TestRecord } from "#core/records";
import type { LoggedSeries } from "./types.ts";

/** Points a drawing needs at most. */
const POINTS = 400;

function thinned<T>(values: readonly T[]): readonly T[] {
  const step = Math.max(1, Math.ceil(values.length / POINTS));
  return values.filter((_, i) => i % step === 0 || i === values.length - 1);
}

/** Where each ride starts along the test, m. */
function offsets(course: Timeline, rides: number): readonly number[] {
  return Array.from({ length: rides }, (_, ride) => {
    const before = course.marks.filter((mark) => mark.ride < ride).at(-1);
    return before?.distanceM ?? 0;
  });
}

/** Height along the test, from the tracks that have it. */
export function profileAlong(course: Timeline, tracks: readonly (TrackProfile | null)[]) {
  const starts = offsets(course, tracks.length);
  const points = tracks.flatMap((track, ride) =>
    track?.hasHeights
      ? track.distanceM.map((metres, i) => ({
          distanceM: nth(starts, ride) + metres,
          heightM: nth(track.heightM, i),
        }))
      : [],
  );
  if (points.length < 2) return null;
  const few = thinned(points);
  return { distanceM: few.map(({ distanceM }) => distanceM), heightM: few.map(({ heightM }) => heightM) };
}

/**
 * A logger's speed and amps along the test over equal stretches of samples, as their means, and of the amps the least and
 * the most besides; null without telemetry.
 */
export function seriesAlong(record: TestRecord, course: Timeline): LoggedSeries | null {
  const samples = record.rides.flatMap(({ telemetry }, ride) => {
    if (!telemetry) return [];
    const marks = course.marks.filter((mark) => mark.ride === ride && mark.timeS !== null);
    if (marks.length < 2) return [];
    let at = 1;
    return telemetry.timeS.flatMap((time, i) => {
      while (at < marks.length - 1 && there(nth(marks, at).timeS) < time) at += 1;
      const [before, after] = [nth(marks, at - 1), nth(marks, at)];
      const share = (time - there(before.timeS)) / (there(after.timeS) - there(before.timeS));
      if (!(share >= 0 && share <= 1)) return [];
      const distanceM = before.distanceM + share * (after.distanceM - before.distanceM);
      return [{ distanceM, speed: telemetry.speedMps?.[i] ?? null, amps: nth(telemetry.amps, i) }];
    });
  });
  if (samples.length < 2) return null;
  const size = Math.max(1, Math.ceil(samples.length / POINTS));
  const buckets = Array.from({ length: Math.ceil(samples.length / size) }, (_, i) =>
    samples.slice(i * size, (i + 1) * size),
  );
  return {
    distanceM: buckets.map((bucket) => meanOf(bucket.map(({ distanceM }) => distanceM))),
    speedMps: buckets.map((bucket) =>
      meanIfAny(bucket.flatMap(({ speed }) => (speed === null ? [] : [speed]))),
    ),
    amps: buckets.map((bucket) => meanIfAny(bucket.map(({ amps }) => amps))),
    ampsLow: buckets.map((bucket) => Math.min(...bucket.map(({ amps }) => amps))),
    ampsHigh: buckets.map((bucket) => Math.max(...bucket.map(({ amps }) => amps))),
  };
}
