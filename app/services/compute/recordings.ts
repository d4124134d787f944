import { createHash } from "node:crypto";
import { v7 as uuidv7 } from "uuid";
import type { z } from "zod";
import { formatNamed, type FileContents, type FormatId } from "#core/io";
import { foldLog } from "#core/ride/log";
import { err, errs, ok, type Problem, type Result } from "#core/base";
import { telemetrySchema, trackSchema } from "#core/records";
import type { Database } from "#db/client";
import { listEntries } from "#db/log";
import { saveTelemetry } from "#db/telemetry";
import { zoneOfRide } from "#db/tests";
import { saveTrack } from "#db/tracks";

/** A recorder's clock may run this far ahead, s. */
const CLOCK_SLACK_S = 3600;
const MOST_SENTENCES = 5;

/** Sentences about why a recording was not kept, each with its place where it has one; empty when it was. */
export type Refusal = readonly string[];

const sentences = (problems: readonly Problem[]): Refusal =>
  problems.map(({ path, sentence }) => (path === "file" ? sentence : `${path}: ${sentence}`));

/** What was read, held to the schema of what is kept. */
function checked<T extends { readonly timeS: readonly number[] }>(
  read: T,
  schema: z.ZodType<T>,
  ahead: string,
): Result<T> {
  const lastS = read.timeS.at(-1);
  if (lastS !== undefined && lastS > Date.now() / 1000 + CLOCK_SLACK_S) return err("ahead", "file", ahead);
  const found = schema.safeParse(read);
  if (found.success) return ok(found.data);
  const said = [...new Set(found.error.issues.map(({ message }) => message))].slice(0, MOST_SENTENCES);
  return errs(said.map((sentence) => ({ code: "bad-recording", path: "file", sentence })));
}

/** When the ride started by its log, s since the epoch, null when no entry has a time; and the zone of its clock. */
async function clockOf(db: Database, rideId: string) {
  const times = foldLog(await listEntries(db, rideId)).flatMap(({ timeS }) => timeS ?? []);
  return { rideStartS: times.length ? Math.min(...times) : null, zone: await zoneOfRide(db, rideId) };
}

/** Keeps what a file held beside its ride: each kind of recording in its own place, all of them or none. */
async function keepContents(
  db: Database,
  rideId: string,
  { track, telemetry }: FileContents,
  hash: string,
): Promise<Refusal> {
  const tracks = track
    ? checked(
        track,
        trackSchema,
        "The track's times lie in the future: check the recorder's clock and export it again.",
      )
    : null;
  const samples = telemetry
    ? checked(
        telemetry,
        telemetrySchema,
        "The logger's times lie in the future: check its clock, or the times in the file.",
      )
    : null;
  if (tracks && !tracks.ok) return sentences(tracks.problems);
  if (samples && !samples.ok) return sentences(samples.problems);
  if (tracks) await saveTrack(db, uuidv7(), rideId, tracks.value, { sourceHash: hash });
  if (samples) await saveTelemetry(db, rideId, samples.value, hash);
  return tracks || samples ? [] : ["There is no recording in this file."];
}

/** A file as it came, the ride it is of, and what kind it is. */
export interface SentFile {
  readonly bytes: Uint8Array;
  readonly name: string;
  readonly rideId: string;
  readonly format: FormatId;
  /** Name of the logger whose samples it may hold. */
  readonly logger: string;
}

/** Reads a recorder's or a logger's file by its kind, and keeps what is in it beside a ride. */
export async function keepFile(
  db: Database,
  { bytes, rideId, format, ...about }: SentFile,
): Promise<Refusal> {
  const read = formatNamed(format)?.read(bytes, { ...about, ...(await clockOf(db, rideId)) });
  if (!read) return ["Nothing here reads such a file."];
  if (!read.ok) return sentences(read.problems);
  return keepContents(db, rideId, read.value, createHash("sha256").update(bytes).digest("base64url"));
}
