import { climbAt, type TrackProfile } from "#core/ride/distance";
import { nth, METRES_PER_MILE } from "#core/base";
import { typedClimb } from "./climbs.ts";
import { chargeReadings, refillOf } from "./charges.ts";
import { type Ground, type Side } from "#core/fields";
import { READING_FIELDS } from "./entry.ts";
import type { LiveEntry } from "./fold.ts";
import type { Timeline, Leg, LoggedReading, LogSlip, Mark } from "./timeline.ts";
import { counterReadings, type MarkedEntry } from "./counters.ts";
import { slipSentence } from "./order.ts";
import { SAME_PLACE_M } from "./possible.ts";
import { isCharged, upToEnd } from "./ending.ts";
import { placeEntries, type DistanceBasis, type KnownFactor, type PlacedEntry } from "./places.ts";
import { withoutRebounds } from "./rebounds.ts";
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

const makesMark = ({ body }: LiveEntry) =>
  !MARKLESS.includes(body.kind) ||
  ((body.kind === "stop" || body.kind === "go") &&
    READ_AT_STOPS.some((field) => (body as Record<string, unknown>)[field] !== undefined));

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

/**
 * Lays the rides of one test end to end as marks, legs and readings. A struck entry keeps its mark, level and ground but
 * its readings count for nothing. Entries of stops, notes and hand marks make no mark of their own. A refill ends its
 * mark: the leg to the next one is a charge, not a way ridden.
 */
export function buildTimeline(rides: readonly RideLog[], setting: TimelineSetting): Timeline {
  const marks: Mark[] = [];
  const legs: Leg[] = [];
  const plain: LoggedReading[] = [];
  const bases: DistanceBasis[] = [];
  const slips: LogSlip[] = [];
  const marked: MarkedEntry[] = [];
  const rideStart: number[] = [];
  const logged: LoggedReading[] = [];
  const handMarks: { rootId: string; distanceM: number }[] = [];
  let [isDone, afterEndM] = [false, 0];
  let offset = 0;
  let level = setting.firstLevel;
  let ground = setting.firstGround;
  let section = "";
  let side: Side | null = null;
  rides.forEach(({ entries, track, telemetry }, ride) => {
    const found = placeEntries(entries, track, setting.knownFactor, setting.circumferenceMm);
    const { basis, slips: slipped } = found;
    bases.push(basis);
    const { placed, afterM, done } = upToEnd(found.placed);
    if (isDone && !isCharged(entries)) {
      afterEndM += found.placed.at(-1)?.distanceM ?? 0;
      rideStart.push(marks.length);
      return;
    }
    [isDone, afterEndM] = [done, afterEndM + afterM];
    slips.push(
      ...slipped.map((slip) => ({
        rootId: slip.rootId,
        field: "distanceM" as const,
        sentence: slipSentence(slip),
      })),
    );
    const climbed = track?.hasHeights ? null : typedClimb(placed);
    rideStart.push(marks.length);
    for (const { entry, distanceM } of placed)
      if (entry.body.kind === "fullPowerEnd" && !entry.struck)
        handMarks.push({ rootId: entry.rootId, distanceM: offset + distanceM });
    groupsOf(placed.filter(({ entry }) => makesMark(entry))).forEach((group) => {
      const { distanceM: along, source } = nth(group, 0);
      const charge = marks.at(-1);
      if (charge && refillOf(charge)) {
        const left = charge.ride === ride ? charge.distanceM - offset : 0;
        if (along - left >= SAME_PLACE_M) {
          // The ride goes on from where it was charged, with no look at the gauge there: a mark without entries.
          const index = marks.length;
          legs.push({
            from: index - 1,
            to: index,
            distanceM: 0,
            level,
            ground,
            section,
            side,
            gainM: 0,
            lossM: 0,
            charged: true,
          });
          marks.push({ ...charge, index, ride, timeS: null, entries: [] });
        }
      }
      const index = marks.length;
      const previous = marks.at(-1);
      const fromM = previous?.ride === ride ? previous.distanceM - offset : 0;
      const charged = previous !== undefined && refillOf(previous) !== null;
      const climb = (key: "gainM" | "lossM") => {
        if (charged) return 0;
        if (track?.hasHeights) return climbAt(track, key, along) - climbAt(track, key, fromM);
        return climbed ? climbed(along) - climbed(fromM) : 0;
      };
      if (previous)
        legs.push({
          from: index - 1,
          to: index,
          distanceM: along - fromM,
          level,
          ground,
          section,
          side,
          gainM: climb("gainM"),
          lossM: climb("lossM"),
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
        plain.push(...readingsAt(index, entry, setting.meterStepV, sdM / METRES_PER_MILE));
        marked.push({ entry, mark: index, ride });
        level = levelOf(entry) ?? level;
        ground = groundOf(entry) ?? ground;
        section = sectionOf(entry) ?? section;
        side = sideOf(entry) ?? side;
      }
    });
    if (telemetry) logged.push(...telemetryReadings(marks.slice(rideStart[ride]), telemetry));
    offset = marks.at(-1)?.distanceM ?? offset;
  });
  const charges = new Map(legs.flatMap(({ from, to, charged }) => (charged ? [[from, to] as const] : [])));
  const steady = withoutRebounds(plain, new Set(charges.values()));
  const counted = counterReadings(marked, { rideStart, charges });
  return {
    marks,
    legs,
    readings: [...steady.readings, ...chargeReadings(marks), ...counted.readings, ...logged],
    bases,
    handMarks,
    afterEndM,
    slips: [...slips, ...steady.slips],
    rebounds: steady.rebounds,
    notices: [...steady.notices, ...counted.notices],
  };
}
