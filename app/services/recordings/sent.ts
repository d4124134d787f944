import { foldLog, type LiveEntry } from "#core/ride/log";
import {
  formatNamed,
  formatOf,
  type FileAbout,
  type FileContents,
  type FormatId,
  type MeterColumns,
} from "#core/io";
import { err, type Problem, type Result } from "#core/base";
import type { TelemetryRecord, TrackRecord } from "#core/records";
import type { Database } from "#db/client";
import { listEntries } from "#db/log";
import { readTelemetry } from "#db/telemetry";
import { listRides, zoneOfRide } from "#db/tests";
import { readTrack } from "#db/tracks";

/** A file as it came, the ride it is of, and how it is to be read. */
export interface SentFile {
  readonly testId: string;
  readonly rideId: string;
  readonly bytes: Uint8Array;
  readonly name: string;
  /** What kind it is; by how it begins without. */
  readonly format?: FormatId;
  /** Name of the logger whose samples it may hold. */
  readonly logger: string;
  readonly columns?: MeterColumns;
  readonly drawnIsMinus?: boolean;
}

/** What is known of a ride beside a file that comes to it, all by the log's clock. */
export interface RideBeside {
  readonly log: readonly LiveEntry[];
  readonly track: TrackRecord | null;
  readonly samples: TelemetryRecord | null;
  readonly about: Pick<FileAbout, "rideStartS" | "zone">;
}

/** The log, the recordings and the clock of a ride. */
export async function besideOf(db: Database, testId: string, rideId: string): Promise<RideBeside> {
  const [entries, rides, samples, zone] = await Promise.all([
    listEntries(db, rideId),
    listRides(db, testId),
    readTelemetry(db, rideId),
    zoneOfRide(db, rideId),
  ]);
  const log = foldLog(entries);
  const its = rides.find(({ id }) => id === rideId)?.track ?? null;
  const track = its && (await readTrack(db, its.id));
  const times = log.flatMap(({ timeS }) => timeS ?? []);
  const rideStartS = times.length ? Math.min(...times) : (track?.timeS[0] ?? null);
  return { log, track, samples, about: { rideStartS, zone } };
}

/** Why a file is not read, or what it is and what is in it. */
export interface ReadFile {
  readonly format: { readonly id: FormatId; readonly name: string };
  readonly contents: Result<FileContents>;
}

const UNKNOWN =
  "Nothing here reads such a file. Import a recording as GPX, TCX or FIT, a CSV of a meter or of check-ins, captions, or a photograph.";

/** Reads a file by its kind. */
export function readSent(file: SentFile, about: RideBeside["about"]): Result<ReadFile> {
  const format = file.format ? formatNamed(file.format) : formatOf(file.bytes);
  if (!format) return err("unknown-file", "file", UNKNOWN);
  const { name, logger, columns, drawnIsMinus } = file;
  const contents = format.read(file.bytes, {
    ...{ name, logger, ...about },
    ...(columns && { columns }),
    ...(drawnIsMinus !== undefined && { drawnIsMinus }),
  });
  return { ok: true, value: { format: { id: format.id as FormatId, name: format.name }, contents } };
}

/** Problems as sentences, each with its place where it has one. */
export const sentencesOf = (problems: readonly Problem[]): readonly string[] =>
  problems.map(({ path, sentence }) => (path === "file" ? sentence : `${path}: ${sentence}`));

/** A recorder's clock may run this far ahead, s. */
const CLOCK_SLACK_S = 3600;
/** Whether a moment lies in the future, s since the epoch, by more than two clocks may differ. */
export const isAhead = (timeS: number): boolean => timeS > Date.now() / 1000 + CLOCK_SLACK_S;
