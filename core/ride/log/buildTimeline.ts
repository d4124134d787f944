import { climbAt, type TrackProfile } from "#core/ride/distance";
import { nth, unitToken } from "#core/base";
import { typedClimb } from "./climbs.ts";
import { chargeReadings, refillOf } from "./charges.ts";
import { type Ground } from "#core/fields";
import { READING_FIELDS } from "./entry.ts";
import type { LiveEntry } from "./fold.ts";
import type { Timeline, Leg, LoggedReading, LogSlip, Mark } from "./timeline.ts";
import { counterReadings, type MarkedEntry } from "./counters.ts";
import { slipSentence } from "./order.ts";
import { SAME_PLACE_M } from "./possible.ts";
import { isCharged, upToEnd } from "./ending.ts";
import { placeEntries, type DistanceBasis, type KnownFactor, type PlacedEntry } from "./places.ts";
import { withoutRebounds } from "./rebounds.ts";
import { unnotedCharges, unnotedSentence } from "./unnoted.ts";
import { readingsAt } from "./sightings.ts";
import { telemetryReadings, type TelemetryColumns } from "./telemetry.ts";

export interface RideLog {
  readonly entries: readonly LiveEntry[];
  readonly track: TrackProfile | null;
  readonly telemetry?: TelemetryColumns | null;
}

export interface TimelineSetting {
  readonly knownFactor: KnownFactor | null;
  readonly circumferenceMm?: number | undefined;
  readonly meterStepV: number;
  /** Level and ground before any entry names them. */
  readonly firstLevel: string;
  readonly firstGround: Ground;
}

const levelOf = ({ body }: LiveEntry) => ("level" in body ? body.level : undefined);
const sectionOf = ({ body }: LiveEntry) => ("section" in body ? body.section : undefined);
const sideOf = ({ body }: LiveEntry) => ("side" in body ? body.side : undefined);
const groundOf = ({ body }: LiveEntry) => ("ground" in body ? body.ground : undefined);

/** Entries that make no mark of their own; a stop or a go does where the gauge was read at it. */
const MARKLESS = ["stop", "go", "note", "fullPowerEnd", "totals"];
const READ_AT_STOPS = [...READING_FIELDS, "level", "ground", "section", "side"];

const startSentence = (startedAtM: number) =>
  `The start was noted at ${unitToken(startedAtM, "distance", 1)}, further on than all that follows: it is taken as the bike's whole mileage, and the ride counts from 0. Correct it if it is not.`;

/** Words alone, said nowhere in particular. */
const isRemark = ({ entry: { body }, source }: PlacedEntry) =>
  body.kind === "checkIn" && source === "between" && Object.keys(body).every((key) => REMARK.includes(key));
const REMARK = ["kind", "note"];

const makesMark = (placed: PlacedEntry) => {
  const { body } = placed.entry;
  if (isRemark(placed)) return false;
  return (
    !MARKLESS.includes(body.kind) ||
    ((body.kind === "stop" || body.kind === "go") &&
      READ_AT_STOPS.some((field) => (body as Record<string, unknown>)[field] !== undefined))
  );
};

/** Entries of one ride grouped by place; a refill closes its group, since what follows stands after the charge. */
function groupsOf(placed: readonly PlacedEntry[]): readonly (readonly PlacedEntry[])[] {
  const groups: PlacedEntry[][] = [];
  for (const item of placed) {
    const group = groups.at(-1);
    const closed = group?.some(({ entry }) => entry.body.kind === "refill" && !entry.struck);
    if (group && !closed && item.distanceM - nth(group, 0).distanceM < SAME_PLACE_M) group.push(item);
    else groups.push([item]);
  }
  return groups;
}

/** A timeline while it is laid out: what stands of it, and how the log goes on from where it is. */
interface Laying {
  readonly setting: TimelineSetting;
  readonly marks: Mark[];
  readonly legs: Leg[];
  readonly plain: LoggedReading[];
  readonly bases: DistanceBasis[];
  readonly slips: LogSlip[];
  readonly marked: MarkedEntry[];
  readonly rideStart: number[];
  readonly logged: LoggedReading[];
  readonly handMarks: { rootId: string; distanceM: number }[];
  readonly asides: { rootId: string; distanceM: number; between: boolean }[];
  isDone: boolean;
  afterEndM: number;
  /** Metres of the rides before. */
  offset: number;
  /** Level, ground, section and side as they hold from here on. */
  held: Pick<Leg, "level" | "ground" | "section" | "side">;
}

/** Climb of a ride from one place along it to another, metres. */
type ClimbOver = (key: "gainM" | "lossM", fromM: number, toM: number) => number;

function climbOver(track: RideLog["track"], placed: Parameters<typeof typedClimb>[0]): ClimbOver {
  if (track?.hasHeights) return (key, fromM, toM) => climbAt(track, key, toM) - climbAt(track, key, fromM);
  const climbed = typedClimb(placed);
  return (_key, fromM, toM) => (climbed ? climbed(toM) - climbed(fromM) : 0);
}

/** Where a ride goes on from a charge without a look at the gauge there: a mark without entries. */
function goOnFromCharge(
  { marks, legs, held, offset }: Laying,
  ride: number,
  alongM: number,
  isCharged: boolean,
): void {
  const charge = marks.at(-1);
  if (!charge || !isCharged) return;
  const left = charge.ride === ride ? charge.distanceM - offset : 0;
  if (alongM - left < SAME_PLACE_M) return;
  const index = marks.length;
  legs.push({ from: index - 1, to: index, distanceM: 0, ...held, gainM: 0, lossM: 0, charged: true });
  marks.push({ ...charge, index, ride, timeS: null, entries: [] });
}

/** A mark where entries were made, and the leg to it. */
function layMark(
  laying: Laying,
  ride: number,
  group: readonly PlacedEntry[],
  climb: ClimbOver,
  chargedUnnoted: boolean,
): void {
  const { marks, legs, plain, marked, setting, offset } = laying;
  const { distanceM: along, source } = nth(group, 0);
  const last = marks.at(-1);
  const isCharged = last !== undefined && (refillOf(last) !== null || chargedUnnoted);
  goOnFromCharge(laying, ride, along, isCharged);
  const index = marks.length;
  const previous = marks.at(-1);
  const fromM = previous?.ride === ride ? previous.distanceM - offset : 0;
  // Where a mark of its own was made for the end of the charge, the way goes on from there.
  const charged = isCharged && previous === last;
  const [gainM, lossM] = charged ? [0, 0] : [climb("gainM", fromM, along), climb("lossM", fromM, along)];
  if (previous)
    legs.push({
      from: index - 1,
      to: index,
      distanceM: along - fromM,
      ...laying.held,
      gainM,
      lossM,
      charged,
    });
  marks.push({
    index,
    ride,
    distanceM: offset + along,
    source,
    timeS: group.find(({ entry }) => entry.timeS !== null)?.entry.timeS ?? null,
    entries: group.map(({ entry }) => entry),
  });
  const sdM = Math.min(...group.map((each) => each.sdM ?? 0));
  for (const { entry } of group) {
    plain.push(...readingsAt(index, entry, setting.meterStepV, sdM));
    marked.push({ entry, mark: index, ride });
    const { level, ground, section, side } = laying.held;
    laying.held = {
      level: levelOf(entry) ?? level,
      ground: groundOf(entry) ?? ground,
      section: sectionOf(entry) ?? section,
      side: sideOf(entry) ?? side,
    };
  }
}

/** A ride with its entries at their places, and what of it is part of the test. */
interface PlacedRide extends ReturnType<typeof placeEntries> {
  readonly log: RideLog;
  readonly upToEnd: ReturnType<typeof upToEnd>;
  readonly groups: readonly (readonly PlacedEntry[])[];
}

function placeRide(log: RideLog, { knownFactor, circumferenceMm }: TimelineSetting): PlacedRide {
  const found = placeEntries(log.entries, log.track, knownFactor, circumferenceMm);
  const kept = upToEnd(found.placed);
  const groups = groupsOf(kept.placed.filter(makesMark));
  return { ...found, log, upToEnd: kept, groups };
}

/**
 * One ride of the test, from where those before it ended.
 *
 * @param unnoted places of it before which the pack was charged though nobody noted it
 */
function layRide(laying: Laying, found: PlacedRide, ride: number, unnoted: ReadonlySet<number>): void {
  const { marks, handMarks, offset } = laying;
  const { entries, track, telemetry } = found.log;
  laying.bases.push(found.basis);
  for (const placed of found.placed)
    if (!makesMark(placed))
      laying.asides.push({
        ...{ rootId: placed.entry.rootId, distanceM: offset + placed.distanceM },
        between: placed.source === "between",
      });
  const { placed, afterM, done } = found.upToEnd;
  laying.rideStart.push(marks.length);
  if (laying.isDone && !isCharged(entries)) {
    laying.afterEndM += found.placed.at(-1)?.distanceM ?? 0;
    return;
  }
  laying.isDone = done;
  laying.afterEndM += afterM;
  for (const slip of found.slips)
    laying.slips.push({ rootId: slip.rootId, field: "distanceM", sentence: slipSentence(slip) });
  for (const { entry, distanceM } of placed)
    if (entry.body.kind === "fullPowerEnd" && !entry.struck)
      handMarks.push({ rootId: entry.rootId, distanceM: offset + distanceM });
  const climb = climbOver(track, placed);
  found.groups.forEach((group, at) => layMark(laying, ride, group, climb, unnoted.has(at)));
  if (telemetry) laying.logged.push(...telemetryReadings(marks.slice(laying.rideStart[ride]), telemetry));
  laying.offset = marks.at(-1)?.distanceM ?? offset;
}

/**
 * Lays the rides of one test end to end as marks, legs and readings. A struck entry keeps its mark, level and ground but
 * its readings count for nothing. Entries of stops, notes and hand marks make no mark of their own. A refill ends its
 * mark: the leg to the next one is a charge, not a way ridden.
 */
export function buildTimeline(rides: readonly RideLog[], setting: TimelineSetting): Timeline {
  const { firstLevel: level, firstGround: ground } = setting;
  const laying: Laying = {
    setting,
    ...{ marks: [], legs: [], plain: [], bases: [], slips: [] },
    ...{ marked: [], rideStart: [], logged: [], handMarks: [], asides: [] },
    ...{ isDone: false, afterEndM: 0, offset: 0 },
    held: { level, ground, section: "", side: null },
  };
  const found = rides.map((log) => placeRide(log, setting));
  const unnoted = unnotedCharges(
    found.map(({ groups }) => groups.map((group) => group.map(({ entry }) => entry))),
    (entries) => refillOf({ entries }) !== null,
  );
  found.forEach((each, ride) => layRide(laying, each, ride, nth(unnoted, ride)));
  const { marks, legs, marked, rideStart } = laying;
  const charges = new Map(legs.flatMap(({ from, to, charged }) => (charged ? [[from, to] as const] : [])));
  const steady = withoutRebounds(laying.plain, new Set(charges.values()));
  const counted = counterReadings(marked, { rideStart, charges });
  return {
    marks,
    legs,
    readings: [...steady.readings, ...chargeReadings(marks), ...counted.readings, ...laying.logged],
    bases: laying.bases,
    handMarks: laying.handMarks,
    asides: laying.asides,
    afterEndM: laying.afterEndM,
    slips: [...laying.slips, ...steady.slips],
    rebounds: steady.rebounds,
    notices: [
      ...new Set(
        unnoted.flatMap((places, ride) => [...places].map((at) => unnotedSentence(ride > 0 && at === 0))),
      ),
      ...new Set(found.flatMap(({ startedAtM }) => (startedAtM === null ? [] : [startSentence(startedAtM)]))),
      ...steady.notices,
      ...counted.notices,
    ],
  };
}
