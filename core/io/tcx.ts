import { err, type Result } from "#core/base";
import type { Point } from "./gpx.ts";
import { recordedOf, type Recorded } from "./recorded.ts";
import { localName, passThrough } from "./xml.ts";

/** Gathers the points of all laps, in order. */
function collector() {
  const points: Point[] = [];
  const path: string[] = [];
  let isTcx = false;
  let text = "";
  let point: Point = {};
  return {
    open({ name }: { readonly name: string }) {
      const tag = localName(name);
      if (path.length === 0) isTcx = tag === "TrainingCenterDatabase";
      path.push(tag);
      text = "";
      if (tag === "Trackpoint") point = {};
    },
    text(piece: string) {
      text += piece;
    },
    close() {
      const tag = path.pop();
      const said = text.trim();
      if (tag === "Trackpoint") points.push(point);
      else if (path.includes("Trackpoint")) {
        if (tag === "Time") point.time = said;
        if (tag === "LatitudeDegrees") point.lat = said;
        if (tag === "LongitudeDegrees") point.lon = said;
        if (tag === "AltitudeMeters") point.ele = said;
        if (tag === "Value" && path.at(-1) === "HeartRateBpm") point.bpm = said;
      }
      text = "";
    },
    file: () => ({ isTcx, points }),
  };
}

/**
 * Reads a TCX activity: time, place, height and heart rate of every track point, laps joined in order.
 *
 * @param text the file; @param path where to name it in problems
 */
export function readTcx(text: string, path = "file"): Result<Recorded> {
  const found = collector();
  const passed = passThrough(text, found, { path, again: "the activity again as TCX" });
  if (!passed.ok) return passed;
  const { isTcx, points } = found.file();
  if (!isTcx) return err("not-tcx", path, "This is XML but not TCX: export the activity as TCX.");
  if (points.length === 0)
    return err("no-track", path, "The file holds no track: courses and workouts say nothing of a ride.");
  return recordedOf(points, "", path);
}
