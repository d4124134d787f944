import { XMLParser, XMLValidator } from "fast-xml-parser";
import { bad, good, type Result } from "#core/problems";
import type { TrackRecord } from "#core/records";

interface Point {
  readonly "@lat"?: string;
  readonly "@lon"?: string;
  readonly ele?: string;
  readonly time?: string;
}

interface Gpx {
  readonly gpx?: {
    readonly "@version"?: string;
    readonly trk?: readonly {
      readonly name?: string;
      readonly trkseg?: readonly { readonly trkpt?: readonly Point[] }[];
    }[];
  };
}

const LISTS = new Set(["trk", "trkseg", "trkpt"]);
const FEWEST = 2;
const MOST = 500_000;

const parser = new XMLParser({
  ignoreAttributes: false,
  attributeNamePrefix: "@",
  parseTagValue: false,
  parseAttributeValue: false,
  processEntities: false,
  removeNSPrefix: true,
  isArray: (name) => LISTS.has(name),
});

/**
 * Reads a GPX 1.1 track: position, time and height of every point, segments joined in order. A document type or entity
 * declaration is refused unread, since no recorder writes one.
 *
 * @param text the file; @param path where to name it in problems
 * @returns the track's columns (seconds since the epoch, degrees, metres), or one problem
 */
export function readGpx(text: string, path = "file"): Result<TrackRecord> {
  if (/<!(DOCTYPE|ENTITY)/i.test(text))
    return bad(
      "xml-entities",
      path,
      "This file declares XML entities, which no recorder does: it was not read. Export the track again as GPX 1.1.",
    );
  const valid = XMLValidator.validate(text);
  if (valid !== true)
    return bad(
      "broken-xml",
      path,
      `The file breaks off or is not XML (line ${valid.err.line}): export the track again as GPX 1.1.`,
    );
  const { gpx } = parser.parse(text) as Gpx;
  if (!gpx) return bad("not-gpx", path, "This is XML but not GPX: export the track as GPX 1.1.");
  const tracks = gpx.trk ?? [];
  const points = tracks.flatMap(({ trkseg }) =>
    (trkseg ?? []).flatMap((segment) => (typeof segment === "object" ? (segment.trkpt ?? []) : [])),
  );
  if (points.length < FEWEST)
    return bad(
      "no-track",
      path,
      "The file holds no track of two points or more: a route or waypoints alone say nothing of a ride.",
    );
  if (points.length > MOST)
    return bad(
      "too-many-points",
      path,
      `The track holds ${points.length} points; 500,000 are the most. Export one ride at a time.`,
    );
  const record = {
    name: typeof tracks[0]?.name === "string" ? tracks[0].name : "",
    timeS: [] as number[],
    lat: [] as number[],
    lon: [] as number[],
    eleM: [] as (number | null)[],
  };
  for (const [i, point] of points.entries()) {
    const lat = Number(point["@lat"]);
    const lon = Number(point["@lon"]);
    if (!(Math.abs(lat) <= 90 && Math.abs(lon) <= 180))
      return bad(
        "bad-position",
        path,
        `Point ${i + 1} has no position (lat ${point["@lat"] ?? "missing"}, lon ${point["@lon"] ?? "missing"}): export the track again.`,
      );
    if (point.time === undefined)
      return bad(
        "no-times",
        path,
        `Point ${i + 1} has no time, so neither speed nor stops can be told: export the recording itself, not a planned route.`,
      );
    const time = Date.parse(point.time) / 1000;
    if (!Number.isFinite(time))
      return bad(
        "bad-time",
        path,
        `Point ${i + 1} has the time “${point.time}”, which is no date: it should look like 2026-10-18T09:30:00Z.`,
      );
    record.timeS.push(time);
    record.lat.push(lat);
    record.lon.push(lon);
    const height = point.ele === undefined || point.ele === "" ? NaN : Number(point.ele);
    record.eleM.push(Number.isFinite(height) ? height : null);
  }
  if (record.timeS.at(-1)! <= record.timeS[0]!)
    return bad("bad-times", path, "The track's times do not run forward: export the recording again.");
  return good(record);
}
