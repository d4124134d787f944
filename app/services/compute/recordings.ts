import { createHash } from "node:crypto";
import { v7 as uuidv7 } from "uuid";
import { decodeText, readGpx, readLogger } from "#core/io";
import { foldLog } from "#core/ride/log";
import type { Problem, Result } from "#core/base";
import { telemetrySchema, trackSchema } from "#core/records";
import type { Database } from "#db/client";
import { listEntries } from "#db/log";
import { saveTelemetry } from "#db/telemetry";
import { saveTrack } from "#db/tests";
import type { z } from "zod";

/** A recorder's clock may run this far ahead, s. */
const CLOCK_SLACK_S = 3600;

/** Sentences about why a recording was not kept, each with its place where it has one; empty when it was. */
export type Refusal = readonly string[];

const sentences = (problems: readonly Problem[]): Refusal =>
  problems.map(({ path, sentence }) => (path === "file" ? sentence : `${path}: ${sentence}`));

const liesAhead = (lastS: number | undefined) =>
  lastS !== undefined && lastS > Date.now() / 1000 + CLOCK_SLACK_S;

/** What was read, held to the schema of what is kept. */
function checked<T>(
  read: Result<{ readonly timeS: readonly number[] }>,
  schema: z.ZodType<T>,
  ahead: string,
): { readonly value: T } | { readonly refusal: Refusal } {
  if (!read.ok) return { refusal: sentences(read.problems) };
  if (liesAhead(read.value.timeS.at(-1))) return { refusal: [ahead] };
  const found = schema.safeParse(read.value);
  return found.success
    ? { value: found.data }
    : { refusal: [...new Set(found.error.issues.map(({ message }) => message))].slice(0, 5) };
}

/** Reads a GPX file and keeps its track beside a ride. */
export async function keepTrack(
  db: Database,
  {
    bytes,
    rideId,
    fileName,
  }: { readonly bytes: Uint8Array; readonly rideId: string; readonly fileName: string },
): Promise<Refusal> {
  const text = decodeText(bytes, "file");
  const read = text.ok ? readGpx(text.value) : text;
  const named = read.ok
    ? { ok: true as const, value: { ...read.value, name: read.value.name || fileName } }
    : read;
  const track = checked(
    named,
    trackSchema,
    "The track's times lie in the future: check the recorder's clock and export it again.",
  );
  if ("refusal" in track) return track.refusal;
  await saveTrack(db, uuidv7(), rideId, track.value);
  return [];
}

/** Reads a logger's file and keeps its samples beside a ride, whose first time its seconds are counted from. */
export async function keepLogger(
  db: Database,
  { bytes, rideId, logger }: { readonly bytes: Uint8Array; readonly rideId: string; readonly logger: string },
): Promise<Refusal> {
  const text = decodeText(bytes, "file");
  if (!text.ok) return sentences(text.problems);
  const times = foldLog(await listEntries(db, rideId)).flatMap(({ timeS }) =>
    timeS === null ? [] : [timeS],
  );
  const startS = times.length ? Math.min(...times) : null;
  const record = checked(
    readLogger(text.value, logger, startS),
    telemetrySchema,
    "The logger's times lie in the future: check its clock, or the times in the file.",
  );
  if ("refusal" in record) return record.refusal;
  const hash = createHash("sha256").update(bytes).digest("base64url");
  await saveTelemetry(db, rideId, record.value, hash);
  return [];
}
