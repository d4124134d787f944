import type { EntryBody } from "#core/ride/log";
import type { Rng } from "./chance.ts";
import type { Gauge } from "./gauge.ts";
import type { Kind } from "./kinds.ts";
import { restedVolts, type Charge, type Pack } from "./pack.ts";
import type { Moment } from "./ride.ts";
import { at, MILE_M } from "./units.ts";

/** An entry with its moment, s since the ride's start; null where no time was noted. */
export interface Jotted {
  readonly atS: number | null;
  readonly body: EntryBody;
}

/** How a person's instruments are, each against the truth. */
export interface Instruments {
  readonly recorder: number;
  readonly display: number;
  readonly meter: number;
}

const UNIFORM = Math.sqrt(3);
/** Step of a display's trip meter, m. */
const TENTH_OF_A_MILE = MILE_M / 10;

export function drawInstruments(chance: Rng, { meterOff = false }: Kind): Instruments {
  const wide = (sd: number) => chance.between(-UNIFORM * sd, UNIFORM * sd);
  return {
    recorder: 1 + wide(0.005),
    // Most wheels are set about right, some are another wheel's.
    display: chance.happens(0.88) ? 1 + wide(0.03) : chance.between(0.75, 1.3),
    meter: meterOff ? 1 + chance.between(0.08, 0.18) * (chance.happens(0.5) ? 1 : -1) : 1 + wide(0.016),
  };
}

/** One ride of a test, with all that was true of it. */
export interface RiddenDay {
  readonly moments: readonly Moment[];
  /** True distance at its start. */
  readonly offsetM: number;
  /** Energy and charge as counters found them at its start. */
  readonly before: Charge;
  readonly heightAt: (metres: number) => number;
  readonly pack: Pack;
  readonly gauge: Gauge;
  readonly instruments: Instruments;
  readonly kind: Kind;
  readonly isFull: boolean;
}

/** Miles to the next look: uneven, now and then long forgotten. */
function nextLook(chance: Rng, kind: Kind): number {
  if (kind.sparse) return chance.between(9, 22);
  return chance.happens(0.15) ? chance.between(6, 11) : chance.between(1.2, 5.5);
}

/** Rest volts after some minutes: settled but for what is left of the slow drop, to a tenth. */
const restVolts = (pack: Pack, { pack: charge }: Moment, minutes: number, chance: Rng): number =>
  Math.round((restedVolts(pack, charge, minutes) + chance.between(-0.06, 0.06)) * 10) / 10;

/** Climb up to each moment, m. */
function climbed(moments: readonly Moment[], heightAt: (metres: number) => number): readonly number[] {
  let gainM = 0;
  return moments.map(({ distanceM }, i) => {
    gainM += i > 0 ? Math.max(0, heightAt(distanceM) - heightAt(at(moments, i - 1).distanceM)) : 0;
    return gainM;
  });
}

/** How the tester reads each thing that can be read, as it stands at a moment. */
function looksOf({ offsetM, before, pack, gauge, instruments, kind }: RiddenDay, chance: Rng) {
  const place = (moment: Moment) => {
    const metres = moment.distanceM - offsetM;
    return kind.displayOnly
      ? { displayM: Math.round((metres * instruments.display) / TENTH_OF_A_MILE) * TENTH_OF_A_MILE }
      : { distanceM: Math.max(0, Math.round(metres * instruments.recorder + chance.normal(0, 9))) };
  };
  const counted = (moment: Moment) => {
    if (kind.meter === "wh")
      return { counterWh: Math.round((moment.pack.usedWh - before.usedWh) * instruments.meter) };
    if (kind.meter === "ah") {
      const ah = moment.pack.usedAh - before.usedAh;
      return { counterAh: Number((ah * instruments.meter).toFixed(2)) };
    }
    return {};
  };
  const percent = () => {
    const shown = gauge.percent();
    return shown === null ? {} : { percent: shown };
  };
  const rested = (moment: Moment, minutes: number) =>
    kind.restVolts ? { packVolts: restVolts(pack, moment, minutes, chance), restMin: minutes } : {};
  const seen = (moment: Moment) =>
    (kind.bars ?? 0) > 0 && chance.happens(0.7) ? { bars: Math.max(0, gauge.bars(moment.pack, 0)) } : {};
  return { place, counted, percent, rested, seen };
}

/**
 * Writes one ride's log as testers keep it: looks at uneven places, some without a time or a distance, the first miles
 * sometimes forgotten, bars noticed late.
 */
export function jotDown(day: RiddenDay, chance: Rng): readonly Jotted[] {
  const { moments, offsetM, gauge, kind } = day;
  const jotted: Jotted[] = [];
  const { place, counted, percent, rested, seen } = looksOf(day, chance);
  const time = (moment: Moment) => (kind.loose || chance.happens(0.3) ? null : moment.timeS);
  const jot = (moment: Moment, body: Record<string, unknown>) =>
    jotted.push({ atS: time(moment), body: body as unknown as EntryBody });

  const [first] = moments;
  if (!first) return jotted;
  gauge.see(first);
  const bars = kind.bars ?? 0;
  let barsSeen = bars > 0 ? gauge.bars(first.pack, 0) : 0;
  // A display is looked at before it counts anything at a full start.
  jot(first, {
    kind: "start",
    ...(day.isFull && { chargerDone: true }),
    ...(kind.displayOnly ? { displayM: 0 } : { distanceM: 0 }),
    level: first.level,
    ground: first.ground,
    ...percent(),
    ...rested(first, 30),
    ...counted(first),
    ...(bars > 0 && { bars: barsSeen }),
  });
  let nextAt = offsetM + (chance.happens(0.2) ? chance.between(3, 7) : nextLook(chance, kind)) * MILE_M;
  const gains = kind.told === "typed" ? climbed(moments, day.heightAt) : [];
  const barometer = chance.between(0.92, 1.08);
  const climb = (i: number) => (gains[i] === undefined ? {} : { climbM: Math.round(gains[i] * barometer) });
  let waiting: { bar: number; atM: number }[] = [];
  let last = first;
  for (const [i, moment] of moments.entries()) {
    if (i === 0) continue;
    gauge.see(moment);
    if (bars > 0) {
      const shown = Math.max(1, gauge.bars(moment.pack, moment.amps));
      while (shown < barsSeen) {
        waiting.push({ bar: barsSeen, atM: moment.distanceM + chance.between(0, 0.3) * MILE_M });
        barsSeen -= 1;
      }
      for (const { bar } of waiting.filter(({ atM }) => atM <= moment.distanceM))
        jot(moment, { kind: "barLost", bar, ...place(moment) });
      waiting = waiting.filter(({ atM }) => atM > moment.distanceM);
    }
    const changed = moment.level !== last.level || moment.ground !== last.ground;
    if (moment.distanceM >= nextAt || changed) {
      if (moment.distanceM >= nextAt) nextAt = moment.distanceM + nextLook(chance, kind) * MILE_M;
      const isPlaced = changed || !(kind.loose && chance.happens(0.25));
      jot(moment, {
        kind: "checkIn",
        ...(isPlaced && place(moment)),
        ...(changed && chance.happens(0.5) ? {} : percent()),
        ...seen(moment),
        ...(chance.happens(0.25) ? rested(moment, Math.round(chance.between(2, 20))) : {}),
        ...counted(moment),
        ...(chance.happens(0.6) && climb(i)),
        level: moment.level,
        ground: moment.ground,
      });
    }
    last = moment;
  }
  jot(last, {
    kind: "end",
    reason: last.cutOff ? "cutOff" : "byChoice",
    ...place(last),
    ...(last.cutOff && chance.happens(0.5) ? {} : percent()),
    ...(last.cutOff ? {} : seen(last)),
    ...(last.cutOff ? {} : rested(last, 15)),
    ...counted(last),
    ...climb(moments.length - 1),
  });
  return jotted;
}
