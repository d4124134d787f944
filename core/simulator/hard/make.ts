import type { Entry } from "#core/ride/log";
import { nth, lastOf, METRES_PER_MILE } from "#core/base";
import { testRecordSchema, type TestRecord } from "#core/records";
import { idsFrom } from "../ids.ts";
import { FULL, packModel, type PackState, type TruePack } from "../pack.ts";
import { rngFrom } from "../random.ts";
import { logOf, trackOf } from "../recordings.ts";
import { rideCourse, type Sample, type TrueRig } from "../ride.ts";
import { drawHardGauge } from "./gauges.ts";
import { HARD_KINDS, type HardKind, type HardKindName } from "./kinds.ts";
import { drawInstruments, jotDown } from "./log.ts";
import { drawHardPack, type HardPack } from "./packs.ts";
import { drawHardRig, drawRoad, HARD_LEVELS } from "./road.ts";
import { mistypeOne, type HardSlip } from "./slips.ts";

/** What was true of a hard test. Energy at the terminals, Wh; distances in miles. */
export interface HardTruth {
  readonly kind: HardKindName;
  readonly seed: number;
  readonly whPerMi: number;
  readonly energyWh: number;
  readonly miles: number;
  /** From full to cut-off on such a ride. */
  readonly capacityWh: number;
  /** From this start to the cut-off, had it gone on along the same road. */
  readonly rangeMi: number;
  readonly slip: HardSlip | null;
  /** Mean strength of the wind; stops and riding time, m/s and s. */
  readonly windMps: number;
  readonly stops: number;
  readonly movingS: number;
  readonly climbM: number;
}

export interface HardTest {
  readonly record: TestRecord;
  readonly truth: HardTruth;
}

const YEAR = 2026;
const START_S = Date.UTC(YEAR, 5, 1, 8) / 1000;
const BIKE_KG = 26;
const NIGHT_S = 15 * 3600;

/** What of a hard test is given instead of drawn. */
export interface HardGiven {
  readonly rig?: TrueRig;
  readonly pack?: HardPack;
  readonly level?: string;
  /** Instead of the kind's. */
  readonly kind?: Partial<HardKind>;
  readonly bikeKg?: number;
}

/** The whole road to the cut-off, second by second, and where each day of the test ends. */
function rideWhole(seed: number, kind: HardKind, given: HardGiven) {
  const chance = rngFrom(seed);
  const { pack, known } = given.pack ?? drawHardPack(chance, kind, YEAR);
  const rig = given.rig ?? drawHardRig(chance);
  const drawn = drawRoad(chance, kind);
  const { level } = given;
  const road =
    level === undefined
      ? drawn
      : { ...drawn, stretches: drawn.stretches.map((stretch) => ({ ...stretch, level })) };
  const model = packModel(pack);
  const startUsed = kind.startUsed
    ? chance.between(...kind.startUsed)
    : Math.max(0, chance.between(-0.01, 0.02));
  const from: PackState = { ...FULL, q: model.curve.chargeAtFraction(startUsed) };
  const whole = [...rideCourse(rig, pack, road, from, 0, road.lengthM, chance)];
  const stopUsed = kind.untilEmpty ? 2 : Math.min(0.95, startUsed + chance.between(0.35, 0.72));
  const stop = whole.findIndex(({ fractionUsed }) => fractionUsed >= stopUsed);
  const ridden = stop < 0 ? whole : whole.slice(0, stop + 1);
  return { chance, pack, known, rig, road, from, startUsed, whole, ridden };
}

/** What a tester could have noted of the day. */
function dayOf(ridden: readonly Sample[], { windMps, heightAt }: ReturnType<typeof drawRoad>) {
  const stood = ridden.map(({ speedMps }) => speedMps < 0.3);
  const climbs = ridden
    .slice(1)
    .map(({ distanceM }, i) => heightAt(distanceM) - heightAt(nth(ridden, i).distanceM));
  return {
    windMps,
    stops: stood.filter((stands, i) => stands && !stood[i - 1]).length,
    movingS: stood.filter((stands) => !stands).length,
    climbM: climbs.reduce((sum, climb) => sum + Math.max(0, climb), 0),
  };
}

/** Cuts a ride into its days at even shares of the way. */
function daysOf(ridden: readonly Sample[], days: number): readonly (readonly Sample[])[] {
  const cuts = Array.from({ length: days + 1 }, (_, i) => Math.round((i * ridden.length) / days));
  return cuts.slice(1).map((to, i) => ridden.slice(nth(cuts, i), to));
}

interface HardRecord {
  readonly name: HardKindName;
  readonly seed: number;
  readonly kind: HardKind;
  readonly pack: TruePack;
  readonly known: object;
  readonly riderKg: number;
  readonly bikeKg: number;
  readonly firstLevel: string;
  readonly rides: TestRecord["rides"];
}

/** What the tester knows of it: the bike, the pack's label, the rider, the log. */
const hardRecord = ({ name, seed, kind, pack, known, riderKg, bikeKg, firstLevel, rides }: HardRecord) =>
  testRecordSchema.parse({
    test: {
      title: `${name} ${seed}`,
      day: `${YEAR}-06-01`,
      school: kind.untilEmpty ? "run-down" : "part charge",
      airTempC: pack.tempC,
      firstLevel: firstLevel,
    },
    bike: {
      name: "Hard stand-in",
      levels: HARD_LEVELS.filter((level) => level !== "throttle"),
      throttle: true,
      percentStep: kind.step ?? 1,
      bars: kind.bars ?? 0,
      wheelCircumferenceM: 2.1,
      massKg: bikeKg,
    },
    pack: {
      name: "Its pack",
      chemistry: pack.chemistry,
      labelWh: pack.labelWh,
      ampHours: pack.ampHours,
      seriesCells: pack.seriesCells,
      ...known,
    },
    rider: { name: "Its rider", massKg: Math.round(riderKg) },
    rides,
  });

/**
 * A test on a bike, pack, gauge, road and day that do not keep to the computation's assumptions, logged as testers log, with
 * what was true of it. The same seed and kind give the same test.
 *
 * @param name of one of HARD_KINDS; @param given what is not drawn
 */
export function makeHardTest(seed: number, name: HardKindName, given: HardGiven = {}): HardTest {
  const kind: HardKind = { ...HARD_KINDS[name], ...given.kind };
  const { bikeKg = BIKE_KG } = given;
  const { chance, pack, known, rig, road, from, startUsed, whole, ridden } = rideWhole(seed, kind, given);
  const gauge = drawHardGauge(chance, kind, pack);
  const instruments = drawInstruments(chance, kind);
  const nextId = idsFrom(seed, "019c");
  let [startS, before, offsetM, firstS] = [START_S, from, 0, 0];
  let slip: HardSlip | null = null;
  const days = daysOf(ridden, kind.days ?? 1);
  const end = lastOf(ridden);
  const usedShare = end.fractionUsed - startUsed;
  const rides = days.map((samples, d): TestRecord["rides"][number] => {
    const jotted = jotDown(
      {
        ...{ samples, offsetM, before, heightAt: road.heightAt, pack, gauge, instruments, kind },
        isFull: d === 0 && kind.startUsed === undefined,
      },
      chance,
    );
    const entries = jotted.map(({ atS, body }, seq): Entry => ({
      id: nextId(),
      seq,
      at: atS === null ? null : new Date((startS + atS - firstS) * 1000).toISOString(),
      body: d < days.length - 1 && body.kind === "end" ? { ...body, kind: "checkIn" } : body,
      supersedes: null,
    }));
    if (kind.refill && d === days.length - 1) {
      const sinceFullWh = end.fractionUsed * (end.pack.usedWh / usedShare);
      const wallWh = Math.round(sinceFullWh / chance.between(0.8, 0.92));
      entries.push({ id: nextId(), seq: entries.length, at: null, body: { kind: "refill", toFull: true, wallWh, charger: "shed" }, supersedes: null }); // prettier-ignore
    }
    slip ??= mistypeOne(entries, kind.slip, chance);
    const own = samples.map((sample) => ({ ...sample, timeS: sample.timeS - firstS }));
    const ride = {
      name: days.length > 1 ? `Day ${d + 1}` : "Ride 1",
      entries,
      track: kind.told === "track" ? trackOf(own, startS, offsetM, road.heightAt) : null,
      telemetry: kind.meter === "logger" ? logOf(own, startS, instruments.meter - 1, chance) : null,
    };
    const last = lastOf(samples);
    startS += last.timeS - firstS + NIGHT_S;
    [before, offsetM, firstS] = [last.pack, last.distanceM, last.timeS];
    return ride;
  });
  const miles = end.distanceM / METRES_PER_MILE;
  const record = hardRecord({
    name,
    seed,
    kind,
    pack,
    known,
    riderKg: rig.massKg - bikeKg,
    bikeKg,
    firstLevel: nth(ridden, 0).level,
    rides,
  });
  return {
    record,
    truth: {
      ...{ kind: name, seed, miles, slip },
      whPerMi: end.pack.usedWh / miles,
      energyWh: end.pack.usedWh,
      capacityWh: end.pack.usedWh / usedShare,
      rangeMi: lastOf(whole).distanceM / METRES_PER_MILE,
      ...dayOf(ridden, road),
    },
  };
}
