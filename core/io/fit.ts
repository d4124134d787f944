import FitParser from "fit-file-parser";
import { err, type Result } from "#core/base";
import type { TrackSums } from "#core/records";
import type { Point } from "./gpx.ts";
import { recordedOf, type Recorded } from "./recorded.ts";

/** A message as the parser gives it: any of its fields may be missing, or be of another kind. */
type Message = Readonly<Record<string, unknown>>;

interface Messages {
  readonly records: readonly Message[];
  readonly sessions: readonly Message[];
}

const numberOf = (value: unknown): number | undefined =>
  typeof value === "number" && Number.isFinite(value) ? value : undefined;

const listOf = (value: unknown): readonly Message[] | null =>
  Array.isArray(value)
    ? value.filter((each): each is Message => typeof each === "object" && each !== null)
    : null;

/** What the parser says of a file, or null for one that it cannot read. It answers before it returns. */
function messagesOf(bytes: Uint8Array): Messages | null {
  const whole = bytes.slice().buffer;
  let found: Messages | null = null;
  try {
    new FitParser({ force: true, mode: "list", lengthUnit: "m", speedUnit: "m/s" }).parse(
      whole,
      (problem, data) => {
        const records = problem ? null : listOf(data?.records);
        found = records && { records, sessions: listOf(data?.sessions) ?? [] };
      },
    );
  } catch {
    return null;
  }
  return found;
}

/** Fields of a session that are summed over all of them, and those that are means. */
const SUMS = {
  total_distance: "distanceM",
  total_timer_time: "movingS",
  total_elapsed_time: "elapsedS",
  total_ascent: "gainM",
} as const satisfies Readonly<Record<string, keyof TrackSums>>;
const MEANS = {
  avg_heart_rate: "meanBpm",
  avg_power: "meanRiderW",
} as const satisfies Readonly<Record<string, keyof TrackSums>>;

function sumsOf(sessions: readonly Message[]): TrackSums {
  const sums: { -readonly [Name in keyof TrackSums]: TrackSums[Name] } = {};
  for (const session of sessions)
    for (const [field, name] of Object.entries(SUMS)) {
      const value = numberOf(session[field]);
      if (value !== undefined) sums[name] = (sums[name] ?? 0) + value;
    }
  const [only, ...others] = sessions;
  if (only && others.length === 0)
    for (const [field, name] of Object.entries(MEANS)) {
      const value = numberOf(only[field]);
      if (value !== undefined) sums[name] = value;
    }
  return sums;
}

/** Fields of a record message beside its time and place. */
const CHANNELS = {
  heart_rate: "bpm",
  power: "riderW",
  cadence: "cadence",
  temperature: "tempC",
} as const satisfies Readonly<Record<string, keyof Point>>;

function pointOf(message: Message): Point {
  const said = (field: string) => {
    const value = numberOf(message[field]);
    return value === undefined ? undefined : String(value);
  };
  const point: Point = { lat: said("position_lat"), lon: said("position_long") };
  const height = said("enhanced_altitude") ?? said("altitude");
  if (height !== undefined) point.ele = height;
  const { timestamp } = message;
  if (timestamp instanceof Date && Number.isFinite(timestamp.getTime())) point.time = timestamp.toISOString();
  for (const [field, name] of Object.entries(CHANNELS)) {
    const value = said(field);
    if (value !== undefined) point[name] = value;
  }
  return point;
}

/**
 * Reads a FIT activity: time, place, height, heart rate, power, cadence and temperature of every record message, and what the
 * recorder says of the whole.
 *
 * @param bytes the file; @param path where to name it in problems
 */
export function readFit(bytes: Uint8Array, path = "file"): Result<Recorded> {
  const messages = messagesOf(bytes);
  if (!messages)
    return err("broken-fit", path, "The file breaks off or is no FIT file: copy it from the recorder again.");
  const { records, sessions } = messages;
  if (records.length === 0)
    return err(
      "no-track",
      path,
      "The file holds no record of a ride: choose the activity, not its settings.",
    );
  const sport = sessions[0]?.["sport"];
  return recordedOf(
    records.map(pointOf),
    { sums: sumsOf(sessions), ...(typeof sport === "string" && { sport }) },
    path,
  );
}
