import type { Entry } from "#core/ride/log";
import type { TestRecord } from "#core/records";
import { rngFrom, type Rng } from "./chance.ts";
import { drawGauge } from "./gauge.ts";
import { idsFrom } from "./ids.ts";
import { drawInstruments, jotDown } from "./jot.ts";
import { KINDS, type Kind, type KindName } from "./kinds.ts";
import { benchWh, drawPack, type Charge, type KnownAge, type Pack } from "./pack.ts";
import { loggerOf, trackOf } from "./record.ts";
import { drawRig, type Rig } from "./rider.ts";
import { rideRoad, type Moment } from "./ride.ts";
import { drawRoad, LEVELS, type Road } from "./road.ts";
import { mistypeOne, type Slip } from "./slips.ts";
import { at, MILE_M } from "./units.ts";

/** What was true of a test. Energy at the terminals, Wh; distances in miles. */
export interface Truth {
  readonly kind: KindName;
  readonly seed: number;
  readonly whPerMi: number;
  readonly energyWh: number;
  readonly miles: number;
  /** From full to cut-off on such a ride. */
  readonly capacityWh: number;
  /** From this start to the cut-off, had it gone on along the same road. */
  readonly rangeMi: number;
  readonly slip: Slip | null;
  /** Mean strength of the wind, m/s; stops, rests among them, and time in motion, s. */
  readonly windMps: number;
  readonly stops: number;
  readonly movingS: number;
  readonly climbM: number;
}

export interface WorldTest {
  readonly record: TestRecord;
  readonly truth: Truth;
}

/** What of a test is given instead of drawn. */
export interface WorldGiven {
  readonly rig?: Rig;
  readonly pack?: { readonly pack: Pack; readonly known: KnownAge };
  readonly level?: string;
  /** Instead of the kind's. */
  readonly kind?: Partial<Kind>;
  readonly bikeKg?: number;
}

const YEAR = 2026;
const START_S = Date.UTC(YEAR, 5, 1, 8) / 1000;
const BIKE_KG = 26;
const NIGHT_S = 15 * 3600;

/** The whole road to the cut-off, and what of it was the test. */
function rideWhole(chance: Rng, kind: Kind, given: WorldGiven) {
  const { pack, known } = given.pack ?? drawPack(chance, kind, YEAR);
  const rig = given.rig ?? drawRig(chance);
  const drawn = drawRoad(chance, kind);
  const { level } = given;
  const road: Road =
    level === undefined
      ? drawn
      : { ...drawn, stretches: drawn.stretches.map((stretch) => ({ ...stretch, level })) };
  // A charger that is done has left a little out.
  const full: Charge = { share: 1 - chance.between(0, 0.02), slowV: 0, usedWh: 0, usedAh: 0 };
  const whole = rideRoad(rig, pack, road, full, chance);
  const startUsed = kind.startUsed ? chance.between(...kind.startUsed) : 0;
  const placeOf = (used: number) => whole.findIndex(({ pack: { share } }) => 1 - share >= used);
  const begins = kind.startUsed ? Math.max(0, placeOf(startUsed)) : 0;
  const ends = kind.untilEmpty ? -1 : placeOf(Math.min(0.93, startUsed + chance.between(0.35, 0.72)));
  const ridden = whole.slice(begins, ends < 0 ? whole.length : ends + 1);
  const before = begins > 0 ? at(whole, begins - 1) : null;
  return { pack, known, rig, road, whole, ridden, full, before };
}

/** What a tester could have noted of the day. */
function dayOf(ridden: readonly Moment[], { windMps, heightAt }: Road) {
  const stands = ridden.map(({ speedMps }) => speedMps === 0);
  const climbs = ridden
    .slice(1)
    .map(({ distanceM }, i) => heightAt(distanceM) - heightAt(at(ridden, i).distanceM));
  return {
    windMps,
    stops: stands.filter((each, i) => each && !stands[i - 1]).length,
    movingS: stands.filter((each) => !each).length,
    climbM: climbs.reduce((sum, climb) => sum + Math.max(0, climb), 0),
  };
}

/** Cuts a ride into its days at even shares of its time. */
function daysOf(ridden: readonly Moment[], days: number): readonly (readonly Moment[])[] {
  const cuts = Array.from({ length: days + 1 }, (_, i) => Math.round((i * ridden.length) / days));
  return cuts.slice(1).map((to, i) => ridden.slice(at(cuts, i), to));
}

/**
 * A test in a world that shares nothing with what is tried in it, logged as testers log, with what was true of it. The same seed and
 * kind give the same test.
 *
 * @param name of one of KINDS; @param given what is not drawn
 */
export function makeTest(seed: number, name: KindName, given: WorldGiven = {}): WorldTest {
  const kind: Kind = { ...KINDS[name], ...given.kind };
  const { bikeKg = BIKE_KG } = given;
  const chance = rngFrom(seed);
  const { pack, known, rig, road, whole, ridden, full, before: earlier } = rideWhole(chance, kind, given);
  const gauge = drawGauge(chance, kind, pack);
  for (const moment of earlier ? whole.slice(0, whole.indexOf(earlier)) : []) gauge.see(moment);
  const instruments = drawInstruments(chance, kind);
  const measured = kind.benched ? { measuredWh: Math.round(benchWh(pack) * chance.normal(1, 0.015)) } : {};
  const nextId = idsFrom(seed, "019c");
  const begunM = earlier?.distanceM ?? 0;
  let [startS, before, offsetM, firstS] = [START_S, earlier?.pack ?? full, begunM, earlier?.timeS ?? 0];
  const begun = before;
  let slip: Slip | null = null;
  const days = daysOf(ridden, kind.days ?? 1);
  const end = at(ridden, -1);
  const rides = days.map((moments, d): TestRecord["rides"][number] => {
    const isLast = d === days.length - 1;
    const jotted = jotDown(
      {
        ...{ moments, offsetM, before, heightAt: road.heightAt, pack, gauge, instruments, kind },
        isFull: d === 0 && kind.startUsed === undefined,
      },
      chance,
    );
    const entries = jotted.map(({ atS, body }, seq): Entry => ({
      id: nextId(),
      seq,
      at: atS === null ? null : new Date((startS + atS - firstS) * 1000).toISOString(),
      body: !isLast && body.kind === "end" ? { ...body, kind: "checkIn" } : body,
      supersedes: null,
    }));
    if (kind.refill && isLast) {
      // Into the wall goes what came out, and what the charger keeps.
      const wallWh = Math.round(end.pack.usedWh / chance.between(0.8, 0.92));
      entries.push({ id: nextId(), seq: entries.length, at: null, body: { kind: "refill", toFull: true, wallWh, charger: "shed" }, supersedes: null }); // prettier-ignore
    }
    slip ??= mistypeOne(entries, kind.slip, chance);
    const own = moments.map((moment) => ({ ...moment, timeS: moment.timeS - firstS }));
    const last = at(moments, -1);
    const ride = {
      name: days.length > 1 ? `Day ${d + 1}` : "Ride 1",
      entries,
      track: kind.told === "track" ? trackOf(own, startS, offsetM, road.heightAt) : null,
      telemetry: kind.meter === "logger" ? loggerOf(own, startS, instruments.meter, chance) : null,
    };
    startS += last.timeS - firstS + NIGHT_S;
    [before, offsetM, firstS] = [last.pack, last.distanceM, last.timeS];
    return ride as TestRecord["rides"][number];
  });
  const miles = (end.distanceM - begunM) / MILE_M;
  const energyWh = end.pack.usedWh - begun.usedWh;
  const record = {
    test: { title: `${name} ${seed}`, day: `${YEAR}-06-01`, school: kind.untilEmpty ? "run-down" : "part charge", airTempC: pack.tempC, firstLevel: at(ridden, 0).level }, // prettier-ignore
    bike: { name: "A bike of the world", levels: LEVELS.filter((level) => level !== "throttle"), throttle: true, percentStep: kind.step ?? 1, ...(kind.follows && { counts: kind.follows }), bars: kind.bars ?? 0, wheelCircumferenceM: 2.1, massKg: bikeKg }, // prettier-ignore
    pack: { name: "Its pack", chemistry: pack.chemistry, labelWh: pack.labelWh, ampHours: pack.ampHours, seriesCells: pack.seriesCells, ...known, ...measured }, // prettier-ignore
    rider: { name: "Its rider", massKg: Math.round(rig.massKg - bikeKg) },
    rides,
  };
  return {
    record: record as unknown as TestRecord,
    truth: {
      ...{ kind: name, seed, miles, slip, energyWh },
      whPerMi: energyWh / miles,
      capacityWh: at(whole, -1).pack.usedWh,
      rangeMi: (at(whole, -1).distanceM - begunM) / MILE_M,
      ...dayOf(ridden, road),
    },
  };
}
