import { SaxesParser } from "saxes";
import { err, type Result } from "#core/base";
import type { Point } from "./gpx.ts";
import { recordedOf, type Recorded } from "./recorded.ts";

const local = (name: string) => name.slice(name.indexOf(":") + 1);

/** Gathers the points of all laps, in order. */
function collector() {
  const points: Point[] = [];
  const path: string[] = [];
  let isTcx = false;
  let text = "";
  let point: Point = {};
  return {
    open({ name }: { readonly name: string }) {
      const tag = local(name);
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
 * Reads a TCX activity: time, place, height and heart rate of every track point, laps joined in order. A document type or entity
 * declaration is refused unread.
 *
 * @param text the file; @param path where to name it in problems
 */
export function readTcx(text: string, path = "file"): Result<Recorded> {
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    return err(
      "xml-entities",
      path,
      "This file declares XML entities, which no recorder does: it was not read. Export the activity again as TCX.",
    );
  const parser = new SaxesParser();
  const found = collector();
  parser.on("opentag", found.open);
  parser.on("text", found.text);
  parser.on("closetag", found.close);
  try {
    parser.write(text).close();
  } catch {
    return err(
      "broken-xml",
      path,
      `The file breaks off or is not XML (line ${parser.line}): export the activity again as TCX.`,
    );
  }
  const { isTcx, points } = found.file();
  if (!isTcx) return err("not-tcx", path, "This is XML but not TCX: export the activity as TCX.");
  if (points.length === 0)
    return err("no-track", path, "The file holds no track: courses and workouts say nothing of a ride.");
  return recordedOf(points, "", path);
}
