import FitParser from "fit-file-parser";
import { err, type Result } from "#core/base";
import type { Point } from "./gpx.ts";
import { recordedOf, type Recorded } from "./recorded.ts";

/** A sample as the parser gives it: any of it may be missing. */
interface Sample {
  readonly timestamp?: unknown;
  readonly position_lat?: unknown;
  readonly position_long?: unknown;
  readonly altitude?: unknown;
  readonly enhanced_altitude?: unknown;
  readonly heart_rate?: unknown;
}

const text = (value: unknown): string | undefined =>
  typeof value === "number" && Number.isFinite(value) ? String(value) : undefined;

/** What the parser says of a file that it cannot read, or its samples. It answers before it returns. */
function samplesOf(bytes: Uint8Array): readonly Sample[] | null {
  const whole = bytes.slice().buffer;
  let records: unknown = null;
  try {
    new FitParser({ force: true, mode: "list", lengthUnit: "m", speedUnit: "m/s" }).parse(
      whole,
      (problem, data) => {
        records = problem ? null : data?.records;
      },
    );
  } catch {
    return null;
  }
  return Array.isArray(records) ? (records as readonly Sample[]) : null;
}

/**
 * Reads a FIT activity: time, place, height and heart rate of every record message.
 *
 * @param bytes the file; @param path where to name it in problems
 */
export function readFit(bytes: Uint8Array, path = "file"): Result<Recorded> {
  const samples = samplesOf(bytes);
  if (!samples)
    return err("broken-fit", path, "The file breaks off or is no FIT file: copy it from the recorder again.");
  if (samples.length === 0)
    return err(
      "no-track",
      path,
      "The file holds no record of a ride: choose the activity, not its settings.",
    );
  const points = samples.map(({ timestamp, heart_rate: bpm, ...place }): Point => {
    const height = text(place.enhanced_altitude) ?? text(place.altitude);
    const beats = text(bpm);
    return {
      lat: text(place.position_lat),
      lon: text(place.position_long),
      ...(height !== undefined && { ele: height }),
      ...(timestamp instanceof Date &&
        Number.isFinite(timestamp.getTime()) && { time: timestamp.toISOString() }),
      ...(beats !== undefined && { bpm: beats }),
    };
  });
  return recordedOf(points, "", path);
}
