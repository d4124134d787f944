import { DEFAULTS } from "#core/base";
import { odometerFactor, trackAt, type OdometerFactor, type TrackProfile } from "#core/ride/distance";
import { READING_FIELDS } from "./entry.ts";
import type { LiveEntry } from "./fold.ts";
import { distanceSlips, type DistanceSlip } from "./order.ts";

/** How the distance of a mark was found. */
export type PlaceSource = "recorder" | "track" | "display" | "between";

export interface PlacedEntry {
  readonly entry: LiveEntry;
  readonly distanceM: number;
  readonly source: PlaceSource;
  /** Doubt of the place beyond the instrument's, m; of entries noted without a distance. */
  readonly sdM?: number;
}

/** Where the ride's distances come from, with the relative sd of the whole. */
export interface DistanceBasis {
  readonly source: "recorder" | "track" | "display";
  readonly relativeSd: number;
  readonly factor: OdometerFactor | null;
}

/** A display's factor known from elsewhere, for rides without a recorder. */
export interface KnownFactor {
  readonly k: number;
  readonly sd: number;
  /** How many tests it is from. */
  readonly tests?: number | undefined;
}

const recorderOf = (entry: LiveEntry, track: TrackProfile | null) =>
  ("distanceM" in entry.body && !entry.struckFields.includes("distanceM")
    ? entry.body.distanceM
    : undefined) ?? (track && entry.timeS !== null ? trackAt(track, "distanceM", entry.timeS) : undefined);

const displayOf = (entry: LiveEntry) => ("displayM" in entry.body ? entry.body.displayM : undefined);

/** The odometer factor from the entries of a ride that hold both distances. */
export function factorOf(
  entries: readonly LiveEntry[],
  track: TrackProfile | null,
  circumferenceMm?: number,
): OdometerFactor | null {
  const both = entries
    .flatMap((entry) => {
      const gps = recorderOf(entry, track);
      const odo = displayOf(entry);
      return gps === undefined || odo === undefined ? [] : [{ gps, odo }];
    })
    .sort((a, b) => a.odo - b.odo);
  const gps: number[] = [];
  const odo: number[] = [];
  let last = { gps: 0, odo: 0 };
  for (const pair of both) {
    if (pair.odo - last.odo > 100 && pair.gps > last.gps) {
      gps.push(pair.gps - last.gps);
      odo.push(pair.odo - last.odo);
      last = pair;
    }
  }
  const factor = odometerFactor(gps, odo, circumferenceMm);
  return factor.ok ? factor.value : null;
}

/** A moment typed afterwards tells little of the place; so much of the way between the neighbours, 1 sd. */
const BY_TIME_SD = 0.1;

/** What an entry says of the way from it on. */
const HOLDS = ["level", "ground", "section", "side"] as const;

/** What an entry changes that is no look at the charge: it is said where one stands, right after the look there. */
function changesOf({ body }: LiveEntry): readonly string[] | null {
  if (READING_FIELDS.some((field) => field in body)) return null;
  const held = HOLDS.filter((field) => field in body);
  const kind = body.kind === "stop" || body.kind === "go" ? [body.kind] : [];
  return held.length + kind.length > 0 ? [...held, ...kind] : null;
}

/**
 * Whether an entry without a distance belongs to the place noted before it: a level, a ground, a stop or the start after one, where no
 * other of them came between. Typed in one go, nothing else tells where it was.
 */
function belongsBefore(entry: LiveEntry, before: PlacedEntry, lost: readonly LiveEntry[]): boolean {
  const changes = changesOf(entry);
  if (changes === null) return false;
  const between = lost.filter(({ seq }) => seq > before.entry.seq && seq < entry.seq);
  return between.every((other) => !changesOf(other)?.some((change) => changes.includes(change)));
}

/**
 * Gives entries without any distance the places their times or their neighbours allow: by time where it tells, else evenly
 * between the neighbours, anywhere of which they may have been.
 */
function between(known: readonly PlacedEntry[], lost: readonly LiveEntry[]): readonly PlacedEntry[] {
  return lost.map((entry): PlacedEntry => {
    const before = known.filter((other) => other.entry.seq < entry.seq).at(-1);
    const after = known.find((other) => other.entry.seq > entry.seq);
    if (!before) return { entry, distanceM: 0, source: "between" };
    if (!after) return { entry, distanceM: before.distanceM, source: "between" };
    const gapM = Math.max(0, after.distanceM - before.distanceM);
    const [from, to] = [before.entry.timeS, after.entry.timeS];
    if (entry.timeS !== null && from !== null && to !== null && to > from) {
      const share = Math.min(1, Math.max(0, (entry.timeS - from) / (to - from)));
      return { entry, distanceM: before.distanceM + share * gapM, source: "between", sdM: BY_TIME_SD * gapM };
    }
    if (belongsBefore(entry, before, lost)) return { entry, distanceM: before.distanceM, source: "between" };
    const beside = lost.filter(({ seq }) => seq > before.entry.seq && seq < after.entry.seq);
    const share = (beside.indexOf(entry) + 1) / (beside.length + 1);
    return {
      entry,
      distanceM: before.distanceM + share * gapM,
      source: "between",
      sdM: gapM / Math.sqrt(12),
    };
  });
}

/**
 * A start that lies further on than all that follows was read off the bike's whole mileage, the rest off the trip: it is at nought.
 * Where what follows lies further on, all of it was read off the same.
 *
 * @returns what it was noted at; null where it stays
 */
function startAtNought(found: PlacedEntry[]): number | null {
  const at = found.findIndex(({ entry }) => entry.body.kind === "start");
  const start = found[at];
  const rest = found.filter((_, i) => i !== at);
  if (!start || rest.length === 0 || rest.some(({ distanceM }) => distanceM >= start.distanceM)) return null;
  found[at] = { ...start, distanceM: 0 };
  return start.distanceM;
}

/**
 * Puts every entry of one ride at its distance: the recorder's, else the track's at its time, else the display's
 * corrected by the odometer factor (this ride's own, else a known one), else between its neighbours by time.
 */
export function placeEntries(
  entries: readonly LiveEntry[],
  track: TrackProfile | null,
  known: KnownFactor | null,
  circumferenceMm?: number,
): {
  readonly placed: readonly PlacedEntry[];
  readonly basis: DistanceBasis;
  readonly slips: readonly DistanceSlip[];
  /** What a start was noted at that is taken to be at nought; null where none is. */
  readonly startedAtM: number | null;
} {
  const factor = factorOf(entries, track, circumferenceMm);
  const k = factor?.k ?? known?.k ?? 1;
  const found: PlacedEntry[] = [];
  const lost: LiveEntry[] = [];
  for (const entry of entries) {
    const recorder = recorderOf(entry, track);
    const display = displayOf(entry);
    if (recorder !== undefined)
      found.push({
        entry,
        distanceM: recorder,
        source: "distanceM" in entry.body && entry.body.distanceM !== undefined ? "recorder" : "track",
      });
    else if (display !== undefined) found.push({ entry, distanceM: display * k, source: "display" });
    else if (entry.body.kind === "start") found.push({ entry, distanceM: 0, source: "recorder" });
    else lost.push(entry);
  }
  const startedAtM = startAtNought(found);
  const slips = distanceSlips(found.filter(({ source }) => source !== "track"));
  const slipped = new Set(slips.map(({ rootId }) => rootId));
  const placed = found.filter(({ entry }) => !slipped.has(entry.rootId));
  lost.push(...found.flatMap(({ entry }) => (slipped.has(entry.rootId) ? [entry] : [])));
  const anchors = [...placed].sort((a, b) => a.entry.seq - b.entry.seq);
  placed.push(...between(anchors, lost));
  placed.sort((a, b) => a.distanceM - b.distanceM || a.entry.seq - b.entry.seq);
  const farthest = [...placed]
    .reverse()
    .find(({ source, entry }) => source !== "between" && entry.body.kind !== "start");
  const source = farthest?.source === "between" ? "display" : (farthest?.source ?? "recorder");
  const displaySd = factor ? factor.sd / factor.k : known ? known.sd / known.k : DEFAULTS.uncheckedOdometerSd;
  return {
    ...{ placed, slips, startedAtM },
    basis: { source, relativeSd: source === "display" ? displaySd : DEFAULTS.gpsScaleSd, factor },
  };
}
