import { climbAt, type TrackProfile } from "#core/distance";
import type { Reading } from "#core/readings";
import type { Ground, ReadingField } from "./entry.ts";
import type { LiveEntry } from "./fold.ts";
import {
  placeEntries,
  type DistanceBasis,
  type KnownFactor,
  type PlacedEntry,
  type PlaceSource,
} from "./places.ts";

/** A moment with a distance along the test. Several entries at one place and ride make one mark. */
export interface Mark {
  readonly index: number;
  readonly ride: number;
  /** Along the whole test, m. */
  readonly distanceM: number;
  readonly source: PlaceSource;
  readonly timeS: number | null;
  readonly entries: readonly LiveEntry[];
}

/** The way between two marks: one level, one ground. */
export interface Leg {
  readonly from: number;
  readonly to: number;
  readonly distanceM: number;
  readonly level: string;
  readonly ground: Ground;
  readonly gainM: number;
  readonly lossM: number;
}

/** A reading at a mark, with the entry and field it came from. */
export interface LoggedReading {
  readonly reading: Reading;
  readonly rootId: string;
  readonly field: ReadingField | null;
  readonly struck: boolean;
}

export interface Course {
  readonly marks: readonly Mark[];
  readonly legs: readonly Leg[];
  readonly readings: readonly LoggedReading[];
  /** Distance basis of each ride. */
  readonly bases: readonly DistanceBasis[];
}

export interface RideLog {
  readonly entries: readonly LiveEntry[];
  readonly track: TrackProfile | null;
}

export interface CourseSetting {
  readonly knownFactor: KnownFactor | null;
  readonly circumferenceMm?: number | undefined;
  readonly meterStepV: number;
  /** Level and ground before any entry names them. */
  readonly firstLevel: string;
  readonly firstGround: Ground;
}

const SAME_PLACE_M = 1;

/** The readings an entry holds, at a mark. */
export function readingsAt(mark: number, entry: LiveEntry, meterStepV: number): LoggedReading[] {
  const { body } = entry;
  const found: LoggedReading[] = [];
  const say = (reading: Reading, field: ReadingField | null) =>
    found.push({
      reading,
      rootId: entry.rootId,
      field,
      struck: entry.struck || (field !== null && entry.struckFields.includes(field)),
    });
  if (body.kind === "start" && body.chargerDone) say({ kind: "fullStart", mark }, null);
  if (body.kind === "barLost") say({ kind: "barLost", mark, bar: body.bar }, null);
  if (body.kind === "lastBar") say({ kind: "lastBarBlinking", mark }, null);
  if (body.kind === "lowPower") say({ kind: "lowPower", mark }, null);
  if (body.kind === "end" && body.reason === "cutOff") say({ kind: "cutOff", mark }, null);
  if ("percent" in body && body.percent !== undefined)
    say({ kind: "percent", mark, percent: body.percent }, "percent");
  if ("bars" in body && body.bars !== undefined) say({ kind: "bars", mark, bars: body.bars }, "bars");
  if ("packVolts" in body && body.packVolts !== undefined) {
    const { packVolts, amps, underLoad, restMin } = body;
    if (!underLoad)
      say({ kind: "restVolts", mark, packVolts, restMin: restMin ?? 0, meterStepV }, "packVolts");
    else if (amps !== undefined) say({ kind: "loadedVolts", mark, packVolts, amps, meterStepV }, "packVolts");
  }
  return found;
}

const levelOf = ({ body }: LiveEntry) => ("level" in body ? body.level : undefined);
const groundOf = ({ body }: LiveEntry) => ("ground" in body ? body.ground : undefined);

/**
 * Lays the rides of one charge end to end as marks, legs and readings. A struck entry keeps its mark, level and ground
 * but its readings count for nothing. Entries of stops, starts and notes make no mark of their own.
 */
export function layCourse(rides: readonly RideLog[], setting: CourseSetting): Course {
  const marks: Mark[] = [];
  const legs: Leg[] = [];
  const readings: LoggedReading[] = [];
  const bases: DistanceBasis[] = [];
  let offset = 0;
  let level = setting.firstLevel;
  let ground = setting.firstGround;
  rides.forEach(({ entries, track }, ride) => {
    const { placed, basis } = placeEntries(entries, track, setting.knownFactor, setting.circumferenceMm);
    bases.push(basis);
    const counted = placed.filter(({ entry }) => !["stop", "go", "note"].includes(entry.body.kind));
    const groups: PlacedEntry[][] = [];
    for (const item of counted) {
      const group = groups.at(-1);
      if (group && item.distanceM - group[0]!.distanceM < SAME_PLACE_M) group.push(item);
      else groups.push([item]);
    }
    groups.forEach((group) => {
      const { distanceM: along, source } = group[0]!;
      const index = marks.length;
      const previous = marks.at(-1);
      const fromM = previous?.ride === ride ? previous.distanceM - offset : 0;
      if (previous)
        legs.push({
          from: index - 1,
          to: index,
          distanceM: along - fromM,
          level,
          ground,
          gainM: track?.hasHeights ? climbAt(track, "gainM", along) - climbAt(track, "gainM", fromM) : 0,
          lossM: track?.hasHeights ? climbAt(track, "lossM", along) - climbAt(track, "lossM", fromM) : 0,
        });
      marks.push({
        index,
        ride,
        distanceM: offset + along,
        source,
        timeS: group.find(({ entry }) => entry.timeS !== null)?.entry.timeS ?? null,
        entries: group.map(({ entry }) => entry),
      });
      for (const { entry } of group) {
        readings.push(...readingsAt(index, entry, setting.meterStepV));
        level = levelOf(entry) ?? level;
        ground = groundOf(entry) ?? ground;
      }
    });
    offset = marks.at(-1)?.distanceM ?? offset;
  });
  return { marks, legs, readings, bases };
}
