import type { Ground, Sighting } from "#core/fields";
import type { Entry, EntryBody } from "#core/ride/log";
import { curveOf, type CellCurve } from "#core/battery";
import { METRES_PER_MILE, MPS_PER_MPH } from "#core/base";
import type { PackRecord, TrackRecord } from "#core/records";
import { rideStage, type RodeOn } from "./ridden.ts";

/** Makes invented rides with a known truth: what the pack holds, what each mile costs, and what a gauge would then show. */

/** UUIDv7 ids in a row, the same at every seeding. */
export function idMaker(variant = "8000"): () => string {
  let count = 0;
  return () => {
    count += 1;
    return `019a0000-0000-7000-${variant}-${count.toString(16).padStart(12, "0")}`;
  };
}

/** One stage of a ride, ended by a check-in. */
export interface Stage {
  readonly miles: number;
  /** What a mile of it truly costs; left out where it is ridden on the road. */
  readonly whPerMi?: number;
  /** Steadily up all the way, m; and carried besides, kg. */
  readonly upM?: number;
  readonly loadKg?: number;
  /** Level and ground of this stage, when they change. */
  readonly level?: string;
  readonly ground?: Ground;
  /** What is read at its end. */
  readonly read?: readonly ("percent" | "bars" | "rest" | "display" | "counter")[];
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
  /** How it was truly ridden; left out where each stage says what it costs. */
  readonly rode?: RodeOn;
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
  /** What it truly took, and over how far; left out where the stand-in keeps that to itself. */
  readonly truth?: { readonly wh: number; readonly miles: number };
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

/** A counter's own gain, and what it is called. */
const COUNTER = { gain: 1.006, meter: "inline meter" } as const;

/** What the stages take, and how long: on the road, or at what each says of itself. */
function ridden({ rode, stages, mph }: RideSpec): readonly { readonly wh: number; readonly timeS: number }[] {
  let [level, ground, fromM]: [string, Ground, number] = ["", "asphalt", 0];
  return stages.map((stage, part) => {
    [level, ground] = [stage.level ?? level, stage.ground ?? ground];
    const own = rode
      ? rideStage(rode, { ...stage, level, ground, upM: stage.upM, loadKg: stage.loadKg }, fromM, part)
      : { wh: stage.miles * stage.whPerMi!, timeS: (stage.miles / mph) * 3600 };
    fromM += stage.miles * METRES_PER_MILE;
    return own;
  });
}

/** A ride to the cut-off: its stages as long as the pack lasts, in proportion. */
function toTheEnd(spec: RideSpec): RideSpec {
  const last = spec.stages.at(-1)!;
  if (!spec.rode || last.ends?.kind !== "end" || last.ends.reason !== "cutOff") return spec;
  let fitted = spec;
  for (let round = 0; round < 4; round += 1) {
    const wh = ridden(fitted).reduce((sum, each) => sum + each.wh, 0);
    const by = (spec.capacityWh * (1 - spec.from)) / wh;
    const stages = fitted.stages.map((stage) => ({ ...stage, miles: Number((stage.miles * by).toFixed(2)) }));
    fitted = { ...fitted, stages };
  }
  return fitted;
}

/** Rides the stages and writes down what would have been seen. */
export function makeRide(asked: RideSpec, nextId: () => string): MadeRide {
  const spec = toTheEnd(asked);
  const took = ridden(spec);
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
  let timeS = 0;
  let countedWh = 0;
  const keep = (afterS: number, body: EntryBody) => {
    entries.push({
      id: nextId(),
      seq: seq++,
      at: new Date(Math.round(startS + afterS) * 1000).toISOString(),
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
    const { wh, timeS: stageS } = took[i]!;
    const after = used + wh / spec.capacityWh;
    (spec.barsGo ?? []).forEach((at, lost) => {
      if (at > used && at <= after) {
        const share = (at - used) / (after - used);
        const where = miles + share * stage.miles;
        keep(timeS + share * stageS, {
          kind: "barLost",
          bar: (spec.bars ?? 0) - lost,
          ...place(Number(where.toFixed(1))),
        });
      }
    });
    miles += stage.miles;
    used = after;
    timeS += stageS;
    countedWh += wh;
    const seen = showing(spec, curve, used);
    const read = new Set(stage.read ?? []);
    const body = {
      kind: "checkIn",
      ...place(Number(miles.toFixed(2))),
      ...(read.has("percent") && { percent: seen.percent }),
      ...(read.has("bars") && { bars: seen.bars }),
      ...(read.has("rest") && { packVolts: seen.volts, restMin: 12 }),
      ...(read.has("counter") && {
        counterWh: Math.round(countedWh * COUNTER.gain),
        meter: COUNTER.meter,
      }),
      ...held(spec.stages[i + 1]),
      ...stage.typed,
      ...stage.ends,
    };
    keep(timeS, body as EntryBody);
  });
  return { entries, usedAtEnd: used, truth: { wh: countedWh, miles } };
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
