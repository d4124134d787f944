import type { SaxesTagPlain } from "saxes";
import { there, nth, lastOf, isInReach, NO_SUCH_YEAR, err, ok, type Result } from "#core/base";
import { haversine } from "#core/ride/distance";
import { MOST_POINTS, type TrackRecord } from "#core/records";
import { localName, passThrough } from "./xml.ts";

/** A point as a recorder's file has it. */
export interface Point {
  lat?: string | undefined;
  lon?: string | undefined;
  ele?: string;
  time?: string;
  /** Beats a minute, W at the cranks, turns a minute, C. */
  bpm?: string;
  riderW?: string;
  cadence?: string;
  tempC?: string;
}

/** An element of the course extension: its name without prefix, and its attributes. */
export interface OwnElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
}

/** What of a GPX file is read. */
export interface GpxFile {
  readonly trackName: string;
  readonly points: readonly Point[];
  /** What the recorder calls it. */
  readonly sport: string;
  readonly metaName: string;
  readonly metaDesc: string;
  /** Elements of Barometron's own extension, in order. */
  readonly own: readonly OwnElement[];
}

/** Names that recorders' extensions give to what stands beside a place. */
const BESIDE: Readonly<Record<string, "bpm" | "riderW" | "cadence" | "tempC">> = {
  hr: "bpm",
  heartrate: "bpm",
  power: "riderW",
  powerinwatts: "riderW",
  watts: "riderW",
  cad: "cadence",
  cadence: "cadence",
  atemp: "tempC",
  temp: "tempC",
  temperature: "tempC",
};

const FEWEST = 2;
/** Heights of the earth's roads, with room for a bad barometer, m. */
const [LOWEST_M, HIGHEST_M] = [-500, 9000];
/** Gathers what the parser passes by. */
function collector() {
  const points: Point[] = [];
  const own: OwnElement[] = [];
  const texts = { trackName: "", sport: "", metaName: "", metaDesc: "" };
  const path: string[] = [];
  let isGpx = false;
  let point: Point | null = null;
  let inside = false;
  let text = "";
  return {
    open({ name, attributes }: SaxesTagPlain) {
      const tag = localName(name);
      if (path.length === 0) isGpx = tag === "gpx";
      path.push(tag);
      text = "";
      if (tag === "trkpt") point = { lat: attributes["lat"], lon: attributes["lon"] };
      if (tag === "course" && path.at(-2) === "extensions") inside = true;
      if (inside) own.push({ name: tag, attributes });
    },
    text(piece: string) {
      text += piece;
    },
    close() {
      const tag = path.pop();
      const parent = path.at(-1);
      if (point && parent === "trkpt") {
        if (tag === "ele") point.ele = text.trim();
        if (tag === "time") point.time = text.trim();
      } else if (point && tag !== "trkpt") {
        const name = BESIDE[tag?.toLowerCase() ?? ""];
        if (name) point[name] = text.trim();
      } else if (tag === "trkpt" && point) {
        points.push(point);
        point = null;
      } else if (tag === "name" && parent === "trk") texts.trackName ||= text.trim();
      else if (tag === "type" && parent === "trk") texts.sport ||= text.trim();
      else if (tag === "name" && parent === "metadata") texts.metaName = text.trim();
      else if (tag === "desc" && parent === "metadata") texts.metaDesc = text.trim();
      if (tag === "course" && parent === "extensions") inside = false;
      text = "";
    },
    file: () => ({ isGpx, points, own, ...texts }),
  };
}

/**
 * Reads through a GPX file once.
 *
 * @param step is told the share that has been read
 */
export function scanGpx(text: string, path: string, step?: (share: number) => void): Result<GpxFile> {
  const found = collector();
  const passed = passThrough(text, found, { path, again: "the track again as GPX 1.1" }, step);
  if (!passed.ok) return passed;
  const { isGpx, ...file } = found.file();
  return isGpx ? ok(file) : err("not-gpx", path, "This is XML but not GPX: export the track as GPX 1.1.");
}

/** A time that names no zone is UTC, as GPX has it. */
const inZone = (time: string) => (/(?:Z|[+-]\d{2}:?\d{2})$/i.test(time.trim()) ? time : `${time.trim()}Z`);

/** Speed given to a planned track that has no times, m/s: only the way counts then. */
const PLANNED_MPS = 5;

/**
 * Reads a GPX 1.1 track: position, time and height of every point, segments joined in order.
 *
 * @param text the file; @param path where to name it in problems
 * @returns the track's columns (seconds since the epoch, degrees, metres), or one problem
 */
export function readGpx(text: string, path = "file"): Result<TrackRecord> {
  const file = scanGpx(text, path);
  return file.ok ? trackOf(file.value, path) : file;
}

/**
 * The track of a file that was read.
 *
 * @param planned a planned way will do: when no point has a time, times are made up at an even speed
 */
export function trackOf(
  { points, trackName }: Pick<GpxFile, "points" | "trackName">,
  path: string,
  planned = false,
): Result<TrackRecord> {
  if (points.length < FEWEST)
    return err(
      "no-track",
      path,
      "The file holds no track of two points or more: a route or waypoints alone say nothing of a ride.",
    );
  if (points.length > MOST_POINTS)
    return err(
      "too-many-points",
      path,
      `The track holds ${points.length} points; 500,000 are the most. Export one ride at a time.`,
    );
  const record = {
    name: trackName,
    timeS: [] as number[],
    lat: [] as number[],
    lon: [] as number[],
    eleM: [] as (number | null)[],
  };
  const untimed = planned && points.every(({ time }) => time === undefined);
  let madeUpS = 0;
  for (const [i, point] of points.entries()) {
    const lat = Number(point.lat);
    const lon = Number(point.lon);
    if (!(Math.abs(lat) <= 90 && Math.abs(lon) <= 180))
      return err(
        "bad-position",
        path,
        `Point ${i + 1} has no position (lat ${point.lat ?? "missing"}, lon ${point.lon ?? "missing"}): export the track again.`,
      );
    if (untimed) {
      const last = record.lat.length - 1;
      if (last >= 0)
        madeUpS += haversine(nth(record.lat, last), nth(record.lon, last), lat, lon) / PLANNED_MPS;
    } else if (point.time === undefined)
      return err(
        "no-times",
        path,
        `Point ${i + 1} has no time, so neither speed nor stops can be told: export the recording itself, not a planned route.`,
      );
    const time = untimed ? madeUpS : Date.parse(inZone(there(point.time))) / 1000;
    if (!Number.isFinite(time))
      return err(
        "bad-time",
        path,
        `Point ${i + 1} has the time “${point.time}”, which is no date: it should look like 2026-10-18T09:30:00Z.`,
      );
    if (!untimed && !isInReach(time)) return err("no-such-year", path, `Point ${i + 1}: ${NO_SUCH_YEAR}`);
    const before = record.timeS.at(-1);
    if (before !== undefined && time < before)
      return err(
        "times-backward",
        path,
        `The time of point ${i + 1} (${point.time}) lies before that of the point above it: the recording is out of order. Export it again, one ride to a file.`,
      );
    record.timeS.push(time);
    record.lat.push(lat);
    record.lon.push(lon);
    const height = point.ele === undefined || point.ele === "" ? NaN : Number(point.ele);
    if (height < LOWEST_M || height > HIGHEST_M)
      return err(
        "bad-height",
        path,
        `Point ${i + 1} lies ${height.toFixed(0)} m high, where no road is (-500 to 9,000 m): the heights are broken. Correct them, or export the track without.`,
      );
    record.eleM.push(Number.isFinite(height) ? height : null);
  }
  if (lastOf(record.timeS) <= nth(record.timeS, 0))
    return err("bad-times", path, "The track's times do not run forward: export the recording again.");
  return ok(record);
}
