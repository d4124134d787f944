import type { Entry, EntryBody, Ground, Sighting } from "#core/log";
import { curveOf, type CellCurve } from "#core/pack";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/quantities";
import type { PackRecord, TrackRecord } from "#core/records";

/** Makes invented rides with a known truth: what the pack holds, what each mile costs, and what a gauge would then show. */

/** UUIDv7 ids in a row, the same at every seeding. */
export function idMaker(): () => string {
  let count = 0;
  return () => {
    count += 1;
    return `019a0000-0000-7000-8000-${count.toString(16).padStart(12, "0")}`;
  };
}

/** One stage of a ride, ended by a check-in. */
export interface Stage {
  readonly miles: number;
  /** What a mile of it truly costs. */
  readonly whPerMi: number;
  /** Level and ground of this stage, when they change. */
  readonly level?: string;
  readonly ground?: Ground;
  /** What is read at its end. */
  readonly read?: readonly ("percent" | "bars" | "rest" | "display")[];
  /** Anything typed otherwise than the truth, or besides it. */
  readonly typed?: Sighting;
  /** The stage ends with something other than a check-in. */
  readonly ends?: EntryBody;
}

export interface RideSpec {
  readonly pack: PackRecord;
  /** What the pack truly holds on the day. */
  readonly capacityWh: number;
  /** Fraction used at the start. */
  readonly from: number;
  readonly startsAt: string;
  readonly mph: number;
  readonly percentStep?: number;
  readonly bars?: number;
  /** Where each bar truly goes, as fractions used, first bar to go first. */
  readonly barsGo?: readonly number[];
  /** Display miles per true mile. */
  readonly display?: number;
  /** The recorder was forgotten: only the display's distance is known. */
  readonly noRecorder?: boolean;
  readonly start: EntryBody;
  readonly stages: readonly Stage[];
}

export interface MadeRide {
  readonly entries: readonly Entry[];
  readonly usedAtEnd: number;
}

/** A gauge's slow error: up to 1.2 points either way along the charge. */
const slow = (used: number) => 0.012 * Math.sin(5.1 * used + 0.7);

function showing(spec: RideSpec, curve: CellCurve, used: number) {
  const q = curve.chargeAtFraction(used);
  const step = spec.percentStep ?? 1;
  return {
    percent: Math.min(100, Math.max(0, Math.round(((q + slow(used)) * 100) / step) * step)),
    volts: Number(((spec.pack.seriesCells ?? 13) * curve.voltsAt(q)).toFixed(1)),
    bars: (spec.bars ?? 0) - (spec.barsGo ?? []).filter((at) => at <= used).length,
  };
}

/** Rides the stages and writes down what would have been seen. */
export function makeRide(spec: RideSpec, nextId: () => string): MadeRide {
  const curve = curveOf(spec.pack);
  const entries: Entry[] = [];
  let seq = 0;
  let miles = 0;
  let used = spec.from;
  const startS = Date.parse(spec.startsAt) / 1000;
  const place = (at: number) => ({
    ...(spec.noRecorder ? {} : { distanceM: Math.round(at * METRES_PER_MILE) }),
    ...(spec.display ? { displayM: Math.round(at * spec.display * 10) * METRES_PER_MILE * 0.1 } : {}),
  });
  const keep = (at: number, body: EntryBody) => {
    entries.push({
      id: nextId(),
      seq: seq++,
      at: new Date((startS + (at / spec.mph) * 3600) * 1000).toISOString(),
      body,
      supersedes: null,
    });
  };
  const held = (stage: Stage | undefined) => ({
    ...(stage?.level && { level: stage.level }),
    ...(stage?.ground && { ground: stage.ground }),
  });
  keep(0, { ...spec.start, ...place(0), ...held(spec.stages[0]) } as EntryBody);
  spec.stages.forEach((stage, i) => {
    const after = used + (stage.miles * stage.whPerMi) / spec.capacityWh;
    (spec.barsGo ?? []).forEach((at, lost) => {
      if (at > used && at <= after) {
        const where = miles + ((at - used) / (after - used)) * stage.miles;
        keep(where, { kind: "barLost", bar: (spec.bars ?? 0) - lost, ...place(Number(where.toFixed(1))) });
      }
    });
    miles += stage.miles;
    used = after;
    const seen = showing(spec, curve, used);
    const read = new Set(stage.read ?? []);
    const body = {
      kind: "checkIn",
      ...place(Number(miles.toFixed(2))),
      ...(read.has("percent") && { percent: seen.percent }),
      ...(read.has("bars") && { bars: seen.bars }),
      ...(read.has("rest") && { packVolts: seen.volts, restMin: 12 }),
      ...held(spec.stages[i + 1]),
      ...stage.typed,
      ...stage.ends,
    };
    keep(miles, body as EntryBody);
  });
  return { entries, usedAtEnd: used };
}

/** A recorded loop of a given length as a track, one point every four seconds, over low hills. Set in open sea, where no road is. */
export function makeTrack(
  name: string,
  startsAt: string,
  miles: number,
  mph: number,
  hillM: number,
): TrackRecord {
  const startS = Date.parse(startsAt) / 1000;
  const metres = miles * METRES_PER_MILE;
  const speed = mph * MPS_PER_MPH;
  const count = Math.ceil(metres / speed / 4);
  const radius = metres / (2 * Math.PI * 2) / 111_195;
  const steps = Array.from({ length: count + 1 }, (_, i) => i / count);
  return {
    name,
    timeS: steps.map((_, i) => startS + i * 4),
    lat: steps.map((share) => 0.4 + radius * Math.sin(4 * Math.PI * share)),
    lon: steps.map((share) => 0.4 + radius * Math.cos(4 * Math.PI * share)),
    eleM: steps.map((share) => Number((8 + (hillM / 2) * (1 - Math.cos(8 * Math.PI * share))).toFixed(1))),
  };
}
