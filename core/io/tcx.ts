import { err, type Result } from "#core/base";
import type { TrackSums } from "#core/records";
import type { Point } from "./gpx.ts";
import { recordedOf, type Recorded } from "./recorded.ts";
import { localName, passThrough } from "./xml.ts";

/** Elements of a point that hold something in themselves. */
const POINT: Readonly<Record<string, Exclude<keyof Point, "bpm">>> = {
  Time: "time",
  LatitudeDegrees: "lat",
  LongitudeDegrees: "lon",
  AltitudeMeters: "ele",
  Cadence: "cadence",
  Watts: "riderW",
};
/** Elements of a lap that are summed over all of them. */
const LAP: Readonly<Record<string, keyof TrackSums>> = {
  TotalTimeSeconds: "movingS",
  DistanceMeters: "distanceM",
};

/** Gathers the points of all laps, in order, and what the laps say of themselves. */
function collector() {
  const points: Point[] = [];
  const path: string[] = [];
  const sums: { -readonly [Name in keyof TrackSums]: TrackSums[Name] } = {};
  let [isTcx, sport, text] = [false, "", ""];
  let point: Point = {};
  return {
    open({
      name,
      attributes,
    }: {
      readonly name: string;
      readonly attributes: Readonly<Record<string, string>>;
    }) {
      const tag = localName(name);
      if (path.length === 0) isTcx = tag === "TrainingCenterDatabase";
      path.push(tag);
      text = "";
      if (tag === "Trackpoint") point = {};
      if (tag === "Activity") sport ||= attributes["Sport"] ?? "";
    },
    text(piece: string) {
      text += piece;
    },
    close() {
      const tag = path.pop() ?? "";
      const said = text.trim();
      const [of, sum] = [POINT[tag], LAP[tag]];
      if (tag === "Trackpoint") points.push(point);
      else if (path.includes("Trackpoint")) {
        if (of) point[of] = said;
        if (tag === "Value" && path.at(-1) === "HeartRateBpm") point.bpm = said;
      } else if (sum && path.at(-1) === "Lap" && said !== "") sums[sum] = (sums[sum] ?? 0) + Number(said);
      text = "";
    },
    file: () => ({ isTcx, points, sport, sums }),
  };
}

/**
 * Reads a TCX activity: time, place, height, heart rate, power, cadence of every track point, laps joined in order.
 *
 * @param text the file; @param path where to name it in problems
 */
export function readTcx(text: string, path = "file"): Result<Recorded> {
  const found = collector();
  const passed = passThrough(text, found, { path, again: "the activity again as TCX" });
  if (!passed.ok) return passed;
  const { isTcx, points, ...whole } = found.file();
  if (!isTcx) return err("not-tcx", path, "This is XML but not TCX: export the activity as TCX.");
  if (points.length === 0)
    return err("no-track", path, "The file holds no track: courses and workouts say nothing of a ride.");
  return recordedOf(points, whole, path);
}
