import { createHash } from "node:crypto";
import { v7 as uuidv7 } from "uuid";
import type { z } from "zod";
import { joinTracks } from "#core/io";
import { err, errs, isInReach, NO_SUCH_YEAR, ok, type Result } from "#core/base";
import { telemetrySchema, trackSchema, type TrackRecord } from "#core/records";
import type { Database } from "#db/client";
import { saveTelemetry } from "#db/telemetry";
import { saveTrack } from "#db/tracks";
import { besideOf, isAhead, readSent, sentencesOf, type SentFile } from "./sent";

const MOST_SENTENCES = 5;

/** Sentences about why a recording was not kept, each with its place where it has one; empty when it was. */
export type Refusal = readonly string[];

/** What was read, held to the schema of what is kept, its clock put right. */
function checked<T extends { readonly timeS: readonly number[] }>(
  read: T,
  schema: z.ZodType<T>,
  offsetS: number,
  ahead: string,
): Result<T> {
  const [firstS, lastS] = [read.timeS[0] ?? 0, read.timeS.at(-1) ?? 0];
  if (!isInReach(firstS + offsetS) || !isInReach(lastS + offsetS))
    return err("no-such-year", "file", NO_SUCH_YEAR);
  if (isAhead(lastS + offsetS)) return err("ahead", "file", ahead);
  const found = schema.safeParse(read);
  if (found.success) return ok(found.data);
  const said = [...new Set(found.error.issues.map(({ message }) => message))].slice(0, MOST_SENTENCES);
  return errs(said.map((sentence) => ({ code: "bad-recording", path: "file", sentence })));
}

const moved = (track: TrackRecord, offsetS: number): TrackRecord => ({
  ...track,
  timeS: track.timeS.map((each) => each + offsetS),
});

/** Keeps a track beside its ride; where it goes on from the one that is there, the two as one. */
async function keepTrack(
  db: Database,
  rideId: string,
  track: TrackRecord,
  {
    there,
    offsetS,
    hash,
  }: { readonly there: TrackRecord | null; readonly offsetS: number; readonly hash: string },
): Promise<void> {
  const joined = there && joinTracks(there, moved(track, offsetS));
  if (joined) await saveTrack(db, uuidv7(), rideId, joined);
  else await saveTrack(db, uuidv7(), rideId, track, { sourceHash: hash, offsetS });
}

/** A file that is to be kept, and what is added to its times, s. */
export interface FileToKeep extends SentFile {
  readonly offsetS?: number;
}

export const hashOf = (bytes: Uint8Array): string => createHash("sha256").update(bytes).digest("base64url");

/** Reads a recorder's or a meter's file by its kind, and keeps what is in it beside a ride: all of it or nothing. */
export async function keepFile(db: Database, { offsetS = 0, ...file }: FileToKeep): Promise<Refusal> {
  const beside = await besideOf(db, file.testId, file.rideId);
  const read = readSent(file, beside.about);
  if (!read.ok) return sentencesOf(read.problems);
  const { contents } = read.value;
  if (!contents.ok) return sentencesOf(contents.problems);
  const { track, telemetry } = contents.value;
  const tracks =
    track &&
    checked(
      track,
      trackSchema,
      offsetS,
      "The track's times lie in the future: check the recorder's clock and export it again.",
    );
  const samples =
    telemetry &&
    checked(
      telemetry,
      telemetrySchema,
      offsetS,
      "The logger's times lie in the future: check its clock, or the times in the file.",
    );
  if (tracks && !tracks.ok) return sentencesOf(tracks.problems);
  if (samples && !samples.ok) return sentencesOf(samples.problems);
  const hash = hashOf(file.bytes);
  if (tracks) await keepTrack(db, file.rideId, tracks.value, { there: beside.track, offsetS, hash });
  if (samples) await saveTelemetry(db, file.rideId, samples.value, hash, offsetS);
  return tracks || samples ? [] : ["There is no recording in this file."];
}
