import { lastOf, nth } from "#core/base";
import {
  filmByTrack,
  filmClock,
  notedMoments,
  onGrid,
  speedAlong,
  tieSamples,
  tieTrack,
  type FilmClock,
  type FilmTie,
  type Recorded,
} from "#core/ride/clocks";
import { profileOf, standsOf, stoodFor, type Stand, type TrackProfile } from "#core/ride/distance";
import type { TelemetryRecord, TrackRecord } from "#core/records";
import type { Database } from "#db/client";
import { listImports } from "#db/telemetry";
import { trackOfRide } from "#db/tracks";
import { clockLook, type ClockLook } from "./lookAt";
import { besideOf } from "./sent";

/** A line along a clock, in even steps; null where nothing was recorded. */
export interface ClockLine {
  readonly what: "speed" | "power";
  readonly startS: number;
  readonly stepS: number;
  readonly values: readonly (number | null)[];
}

/** A device beside a ride, as its clock is read now. */
export interface ClockedDevice {
  readonly kind: "track" | "meter";
  readonly id: string;
  readonly name: string;
  /** Seconds that are added to its file's times. */
  readonly offsetS: number;
  readonly fromS: number;
  readonly toS: number;
  /** What its clock is off still. */
  readonly clock: ClockLook;
  readonly lines: readonly ClockLine[];
}

/** The clocks of one ride. */
export interface Clocks {
  readonly noted: readonly { readonly timeS: number; readonly distanceM: number | null }[];
  readonly film: FilmClock | null;
  /** When the film began by the recorder; null where it does not tell surely. */
  readonly filmBy: FilmTie | null;
  readonly devices: readonly ClockedDevice[];
  /** By the recorder: where it stood, and its heights along the way; null without one. */
  readonly way: {
    readonly wholeM: number;
    readonly movingS: number;
    readonly gainM: number | null;
    readonly sums: TrackRecord["sums"] | null;
    readonly stands: readonly Stand[];
    /** At all of them together, s. */
    readonly stoodS: number;
    /** Distance and height, m, some hundred of them; empty without heights. */
    readonly heights: readonly (readonly [distanceM: number, heightM: number])[];
  } | null;
}

/** Points of a drawn line. */
const DRAWN = 480;

function lineOf(what: ClockLine["what"], recorded: Recorded): readonly ClockLine[] {
  const spanS = lastOf(recorded.timeS) - nth(recorded.timeS, 0);
  const series = onGrid(recorded, Math.max(1, Math.ceil(spanS / DRAWN)));
  if (!series) return [];
  const values = Array.from(series.values, (value) => (Number.isNaN(value) ? null : value));
  return [{ what, startS: series.startS, stepS: series.stepS, values }];
}

function meterLines({ timeS, volts, amps, speedMps }: TelemetryRecord): readonly ClockLine[] {
  const watts = timeS.map((_, i) => nth(volts, i) * nth(amps, i));
  return [
    ...(speedMps ? lineOf("speed", { timeS, values: speedMps }) : []),
    ...lineOf("power", { timeS, values: watts }),
  ];
}

function wayOf(track: TrackRecord, profile: TrackProfile): Clocks["way"] {
  const every = Math.max(1, Math.ceil(profile.timeS.length / DRAWN));
  const stands = standsOf(profile);
  return {
    wholeM: profile.totalM,
    movingS: profile.movingS,
    gainM: profile.hasHeights ? lastOf(profile.gainM) : null,
    sums: track.sums ?? null,
    stands,
    stoodS: stoodFor(stands),
    heights: profile.hasHeights
      ? profile.heightM.flatMap((height, i) =>
          i % every === 0 ? [[nth(profile.distanceM, i), height] as const] : [],
        )
      : [],
  };
}

/** Less sure than this, a film's beginning is not proposed. */
const SURE = 0.9;
const sureTie = (tie: FilmTie | null): FilmTie | null => (tie && tie.sure >= SURE ? tie : null);

/** Every clock of a ride beside the log's, each with what it is found to be off. */
export async function clocksOf(
  db: Database,
  { testId, rideId }: { readonly testId: string; readonly rideId: string },
): Promise<Clocks> {
  const { log, track, samples } = await besideOf(db, testId, rideId);
  const [itsTrack, imports] = await Promise.all([trackOfRide(db, rideId), listImports(db, rideId)]);
  const meter = imports.find(({ logger, counts }) => counts && logger === samples?.logger);
  const profile = track && profileOf(track);
  const devices: ClockedDevice[] = [];
  if (track && profile && itsTrack)
    devices.push({
      ...{ kind: "track", id: itsTrack.id, name: track.name, offsetS: itsTrack.offsetS },
      ...{ fromS: nth(track.timeS, 0), toS: lastOf(track.timeS) },
      clock: clockLook(tieTrack(track, { log, samples: null }), lastOf(track.timeS)),
      lines: lineOf("speed", speedAlong(profile)),
    });
  if (samples && meter)
    devices.push({
      ...{ kind: "meter", id: meter.id, name: meter.logger, offsetS: meter.offsetS },
      ...{ fromS: nth(samples.timeS, 0), toS: lastOf(samples.timeS) },
      clock: clockLook(tieSamples(samples, { log, track }), lastOf(samples.timeS)),
      lines: meterLines(samples),
    });
  return {
    noted: notedMoments(log).map(({ timeS, distanceM }) => ({ timeS, distanceM })),
    film: filmClock(log),
    filmBy: sureTie(profile ? filmByTrack(profile, log) : null),
    devices,
    way: track && profile ? wayOf(track, profile) : null,
  };
}
