import { nth, lastOf, DEFAULTS, meanIfAny } from "#core/base";
import { meanWhileMoving, standsOf, type MovingMean, type TrackProfile } from "#core/ride/distance";
import { FASTEST_MPS, totalOf, type Timeline, type LiveEntry } from "#core/ride/log";
import type { TestRecord, TrackChannel } from "#core/records";
import type { ClimbAlong } from "./quarters.ts";
import type { NotedOnWay } from "./types.ts";

/** Shortest time over which a track's speed is taken, s: positions jitter. */
const WINDOW_S = 10;

/** Distances ridden at each speed, m and m/s, from a logger's samples. */
function bySamples({ timeS, speedMps }: NonNullable<TestRecord["rides"][number]["telemetry"]>) {
  return (speedMps ?? []).slice(1).map((speed, i) => ({
    speedMps: speed,
    metres: speed * Math.min(nth(timeS, i + 1) - nth(timeS, i), WINDOW_S),
  }));
}

/** The same from a track. */
function byTrack({ timeS, distanceM }: TrackProfile) {
  const found: { speedMps: number; metres: number }[] = [];
  let from = 0;
  for (let i = 1; i < timeS.length; i += 1) {
    const seconds = nth(timeS, i) - nth(timeS, from);
    if (seconds < WINDOW_S) continue;
    const metres = nth(distanceM, i) - nth(distanceM, from);
    found.push({ speedMps: metres / seconds, metres });
    from = i;
  }
  return found;
}

/** Share of the way ridden faster than the motor helps; null where no speed was recorded or the motor never rests. */
function unassistedShare(record: TestRecord, tracks: readonly (TrackProfile | null)[]): number | null {
  const limit = record.bike.assistToMps;
  if (limit === undefined || record.test.drive === "throttle") return null;
  const ridden = record.rides.flatMap(({ telemetry }, ride) => {
    const track = tracks[ride];
    return telemetry?.speedMps ? bySamples(telemetry) : track ? byTrack(track) : [];
  });
  const whole = ridden.reduce((sum, { metres }) => sum + metres, 0);
  if (!(whole > 0)) return null;
  return ridden.reduce((sum, { speedMps, metres }) => sum + (speedMps > limit ? metres : 0), 0) / whole;
}

/** A leg slower than this holds a rest, m/s. */
const RESTING_MPS = 2;

/** Stops of a ride that were noted with their end: how many, and how long they took, s. */
function timedStops(log: readonly LiveEntry[]): { readonly count: number; readonly seconds: number } {
  let [count, seconds] = [0, 0];
  let since: number | null = null;
  for (const { struck, timeS, body } of log) {
    if (struck || timeS === null) continue;
    if (body.kind === "stop") since = timeS;
    if (body.kind === "go" && since !== null) {
      [count, seconds] = [count + 1, seconds + Math.max(0, timeS - since)];
      since = null;
    }
  }
  return { count, seconds };
}

interface TimedLeg {
  readonly level: string;
  readonly metres: number;
  readonly seconds: number;
}

/** Shorter legs are mostly rounding, m. */
const LONG_LEG_M = 800;
/** Share of the way, its quickest, on which nobody rested. */
const QUICKEST = 0.15;

/** Mean speed over the quickest part of the way, by its longer legs; null where there are none. */
function quickestMps(legs: readonly TimedLeg[]): number | null {
  const long = legs.filter(({ metres }) => metres >= LONG_LEG_M);
  const whole = long.reduce((sum, { metres }) => sum + metres, 0);
  let [left, seconds] = [QUICKEST * whole, 0];
  for (const leg of [...long].sort((a, b) => b.metres / b.seconds - a.metres / a.seconds)) {
    const metres = Math.min(left, leg.metres);
    seconds += (leg.seconds * metres) / leg.metres;
    left -= metres;
  }
  return seconds > 0 ? (QUICKEST * whole) / seconds : null;
}

/**
 * Speeds by the check-ins' times over the legs that hold no long rest, less the stops: those noted with their end by their
 * own length, the others by what a stop takes, as many as fall on the part of the way that was timed. Where nobody noted a stop
 * the times hold rests as well: then riding speed is a little more than that of the quickest part of the way, and levels scale
 * with it.
 *
 * @param stops that were noted; null where nobody did
 */
function clockSpeeds(
  { marks, legs }: Timeline,
  stops: number | null,
  logs: readonly (readonly LiveEntry[])[],
) {
  const moving = legs.filter(({ charged }) => !charged);
  const wholeM = moving.reduce((total, { distanceM }) => total + distanceM, 0);
  const ridden = moving.flatMap(({ from, to, distanceM, level }) => {
    const [a, b] = [nth(marks, from).timeS, nth(marks, to).timeS];
    const same = nth(marks, from).ride === nth(marks, to).ride;
    if (!same || a === null || b === null) return [];
    const speedMps = distanceM / (b - a);
    if (!(speedMps > RESTING_MPS && speedMps < FASTEST_MPS)) return [];
    return [{ level, metres: distanceM, seconds: b - a }];
  });
  const sum = (of: typeof ridden, key: "metres" | "seconds") =>
    of.reduce((total, each) => total + each[key], 0);
  const [metres, seconds] = [sum(ridden, "metres"), sum(ridden, "seconds")];
  const timed = logs.map(timedStops);
  const timedCount = timed.reduce((total, { count }) => total + count, 0);
  const timedS = timed.reduce((total, each) => total + each.seconds, 0);
  const untimed = Math.max(0, (stops ?? 0) - timedCount) * DEFAULTS.stopS;
  // They take no more than half of what is there, whoever counted them; each level its share by distance.
  const stood = Math.min(((timedS + untimed) * metres) / wholeM, seconds / 2);
  const speedOf = (of: typeof ridden) =>
    sum(of, "metres") / (sum(of, "seconds") - (stood * sum(of, "metres")) / metres);
  const levels = [...new Set(ridden.map(({ level }) => level))];
  const byLevel = levels.map(
    (level) => [level, speedOf(ridden.filter((each) => each.level === level))] as const,
  );
  const clockMps = seconds > 0 ? metres / (seconds - stood) : null;
  const quickMps = stops === null && timed.every(({ count }) => count === 0) ? quickestMps(ridden) : null;
  const ridingMps =
    quickMps === null || clockMps === null
      ? clockMps
      : Math.max(clockMps, DEFAULTS.quickestToRiding * quickMps);
  const faster = ridingMps === null || clockMps === null ? 1 : ridingMps / clockMps;
  return {
    clockSpeedMps: ridingMps,
    clockHoldsRests: quickMps !== null,
    levelSpeedMps: Object.fromEntries(
      byLevel.flatMap(([level, speed]) =>
        speed > 0 && Number.isFinite(speed) ? [[level, faster * speed]] : [],
      ),
    ),
  };
}

/** Climb at the marks where a recorder's was noted, from nothing at the start; each ride counts on from the one before. */
function climbNoted({ marks }: Timeline): ClimbAlong | null {
  const all = [{ distanceM: 0, climbM: 0 }];
  let [ride, beforeM] = [0, 0];
  for (const mark of marks) {
    if (mark.ride !== ride) [ride, beforeM] = [mark.ride, lastOf(all).climbM];
    for (const { struck, body } of mark.entries)
      if (!struck && "climbM" in body && body.climbM !== undefined)
        all.push({ distanceM: mark.distanceM, climbM: beforeM + body.climbM });
  }
  if (all.length === 1) return null;
  return { distanceM: all.map(({ distanceM }) => distanceM), climbM: all.map(({ climbM }) => climbM) };
}

/** The climb where it was noted more than once: one total spread over the miles says nothing of a quarter. */
export function climbOnTheWay(course: Timeline): ClimbAlong | null {
  const noted = climbNoted(course);
  return noted && new Set(noted.distanceM).size > 2 ? noted : null;
}

/** What a recorder kept beside the places of all rides, as one mean over the time in motion; null where it kept none. */
function recordedMean(record: TestRecord, channel: TrackChannel): number | null {
  const means = record.rides.flatMap(({ track }): readonly MovingMean[] => {
    const values = track?.[channel];
    const found = track && values ? meanWhileMoving(track, values) : null;
    return found ? [found] : [];
  });
  const seconds = means.reduce((sum, each) => sum + each.seconds, 0);
  return seconds > 0 ? means.reduce((sum, each) => sum + each.mean * each.seconds, 0) / seconds : null;
}

/** Stops that were noted, else those at which the recorders stood; null where neither tells. */
function stopsOf(logs: readonly (readonly LiveEntry[])[], tracks: readonly (TrackProfile | null)[]) {
  const noted = logs.flat().filter(({ struck, body }) => !struck && body.kind === "stop").length;
  if (noted > 0) return noted;
  const ridden = tracks.flatMap((track) => (track ? [track] : []));
  if (ridden.length === 0 || ridden.length < tracks.length) return null;
  return ridden.reduce((sum, track) => sum + standsOf(track).length, 0);
}

/** What was noted on the way besides the pack: stops, heart rate, wind, and how much of it the motor rested. */
export function rideObservations(
  record: TestRecord,
  course: Timeline,
  logs: readonly (readonly LiveEntry[])[],
  tracks: readonly (TrackProfile | null)[],
): NotedOnWay {
  const bodies = course.marks.flatMap(({ entries }) =>
    entries.flatMap(({ struck, body }) => (struck ? [] : [body])),
  );
  const airs = bodies.flatMap((body) =>
    "airTempC" in body && body.airTempC !== undefined ? [body.airTempC] : [],
  );
  const stops = stopsOf(logs, tracks);
  return {
    stops,
    bpm:
      meanIfAny(
        logs.flatMap((log) => {
          const bpm = totalOf(log, "avgBpm");
          return bpm === null ? [] : [bpm];
        }),
      ) ??
      recordedMean(record, "bpm") ??
      meanIfAny(bodies.flatMap((body) => ("bpm" in body && body.bpm !== undefined ? [body.bpm] : []))),
    riderW: recordedMean(record, "riderW"),
    windMps: meanIfAny(
      bodies.flatMap((body) => ("windMps" in body && body.windMps !== undefined ? [body.windMps] : [])),
    ),
    airTempC: airs.length ? { from: Math.min(...airs), to: Math.max(...airs) } : null,
    unassistedShare: unassistedShare(record, tracks),
    ...clockSpeeds(course, record.test.stops ?? stops, logs),
    climbM: climbNoted(course)?.climbM.at(-1) ?? null,
    guesses: course.marks.flatMap(({ distanceM, entries }) =>
      entries.flatMap(({ struck, body }) =>
        !struck && "rangeGuessM" in body && body.rangeGuessM !== undefined
          ? [{ distanceM, guessM: body.rangeGuessM }]
          : [],
      ),
    ),
  };
}
