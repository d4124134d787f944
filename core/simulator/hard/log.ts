import type { EntryBody } from "#core/ride/log";
import { nth, METRES_PER_MILE } from "#core/base";
import { packModel, type TruePack } from "../pack.ts";
import type { Rng } from "../random.ts";
import type { Sample } from "../ride.ts";
import type { HardGauge } from "./gauges.ts";
import type { HardKind } from "./kinds.ts";

/** An entry with its moment, s since the ride's start; null where no time was noted. */
export interface Jotted {
  readonly atS: number | null;
  readonly body: EntryBody;
}

/** How a person's instruments are, each against the truth. */
export interface HardInstruments {
  readonly recorder: number;
  readonly display: number;
  readonly meter: number;
}

const UNIFORM = Math.sqrt(3);
/** Step of a display's trip meter, m. */
const TENTH_OF_A_MILE = METRES_PER_MILE / 10;

export function drawInstruments(chance: Rng, kind: HardKind): HardInstruments {
  const wide = (sd: number) => chance.between(-UNIFORM * sd, UNIFORM * sd);
  return {
    recorder: 1 + wide(0.005),
    // Most wheels are set about right, some are another wheel's.
    display: chance.happens(0.88) ? 1 + wide(0.03) : chance.between(0.75, 1.3),
    meter: 1 + wide(kind.meter === "ah" ? 0.015 : kind.meter === "logger" ? 0.015 : 0.01),
  };
}

/** One ride of a test, with all that was true of it. */
export interface RiddenDay {
  readonly samples: readonly Sample[];
  /** True distance at its start. */
  readonly offsetM: number;
  /** Energy and charge as counters found them at its start. */
  readonly before: { readonly usedWh: number; readonly q: number };
  readonly heightAt: (metres: number) => number;
  readonly pack: TruePack;
  readonly gauge: HardGauge;
  readonly instruments: HardInstruments;
  readonly kind: HardKind;
  readonly isFull: boolean;
}

/** Miles to the next look: uneven, now and then long forgotten. */
function nextLook(chance: Rng, kind: HardKind): number {
  if (kind.sparse) return chance.between(9, 22);
  return chance.happens(0.15) ? chance.between(6, 11) : chance.between(1.2, 5.5);
}

/** Rest volts after some minutes: settled but for what is left of the polarisation. */
function restVolts(pack: TruePack, { pack: state }: Sample, minutes: number, chance: Rng): number {
  const model = packModel(pack);
  const left = state.polarisedV * Math.exp((-minutes * 60) / 150);
  const volts = model.restVolts({ ...state, polarisedV: left }) + chance.between(-0.06, 0.06);
  return Math.round(volts * 10) / 10;
}

/** Climb up to each sample, m. */
function climbed(samples: readonly Sample[], heightAt: (metres: number) => number): readonly number[] {
  let gainM = 0;
  return samples.map(({ distanceM }, i) => {
    gainM += i > 0 ? Math.max(0, heightAt(distanceM) - heightAt(nth(samples, i - 1).distanceM)) : 0;
    return gainM;
  });
}

/** How the tester reads each thing that can be read, as it stands at a sample. */
function looksOf({ offsetM, before, pack, gauge, instruments, kind }: RiddenDay, chance: Rng) {
  const model = packModel(pack);
  const place = (sample: Sample) => {
    const metres = sample.distanceM - offsetM;
    return kind.displayOnly
      ? { displayM: Math.round((metres * instruments.display) / TENTH_OF_A_MILE) * TENTH_OF_A_MILE }
      : { distanceM: Math.max(0, Math.round(metres * instruments.recorder + chance.normal(0, 9))) };
  };
  const counted = (sample: Sample) => {
    if (kind.meter === "wh")
      return { counterWh: Math.round((sample.pack.usedWh - before.usedWh) * instruments.meter) };
    if (kind.meter === "ah") {
      const ah = ((before.q - sample.pack.q) * model.coulombs) / 3600;
      return { counterAh: Number((ah * instruments.meter).toFixed(2)) };
    }
    return {};
  };
  const percent = () => {
    const shown = gauge.percent();
    return shown === null ? {} : { percent: shown };
  };
  const rested = (sample: Sample, minutes: number) =>
    kind.restVolts ? { packVolts: restVolts(pack, sample, minutes, chance), restMin: minutes } : {};
  const seen = (sample: Sample) =>
    (kind.bars ?? 0) > 0 && chance.happens(0.7)
      ? { bars: Math.max(0, gauge.bars({ ...sample, amps: 0 })) }
      : {};
  return { place, counted, percent, rested, seen };
}

/**
 * Writes one ride's log as testers keep it: looks at uneven places, some without a time or a distance, the first miles
 * sometimes forgotten, bars noticed late.
 */
export function jotDown(day: RiddenDay, chance: Rng): readonly Jotted[] {
  const { samples, offsetM, gauge, kind } = day;
  const jotted: Jotted[] = [];
  const { place, counted, percent, rested, seen } = looksOf(day, chance);
  const time = (sample: Sample) => (kind.loose || chance.happens(0.3) ? null : sample.timeS);
  const jot = (sample: Sample, body: Record<string, unknown>) =>
    jotted.push({ atS: time(sample), body: body as unknown as EntryBody });

  const [first] = samples;
  if (!first) return jotted;
  gauge.see(first);
  const bars = kind.bars ?? 0;
  let barsSeen = bars > 0 ? gauge.bars({ ...first, amps: 0 }) : 0;
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
  let nextAt =
    offsetM + (chance.happens(0.2) ? chance.between(3, 7) : nextLook(chance, kind)) * METRES_PER_MILE;
  const gains = kind.told === "typed" ? climbed(samples, day.heightAt) : [];
  const barometer = chance.between(0.92, 1.08);
  const climb = (i: number) => (gains[i] === undefined ? {} : { climbM: Math.round(gains[i] * barometer) });
  let waiting: { bar: number; atM: number }[] = [];
  let last = first;
  for (const [i, sample] of samples.entries()) {
    if (i === 0) continue;
    gauge.see(sample);
    if (bars > 0) {
      const shown = Math.max(1, gauge.bars(sample));
      while (shown < barsSeen) {
        waiting.push({ bar: barsSeen, atM: sample.distanceM + chance.between(0, 0.3) * METRES_PER_MILE });
        barsSeen -= 1;
      }
      for (const { bar } of waiting.filter(({ atM }) => atM <= sample.distanceM))
        jot(sample, { kind: "barLost", bar, ...place(sample) });
      waiting = waiting.filter(({ atM }) => atM > sample.distanceM);
    }
    const changed = sample.level !== last.level || sample.ground !== last.ground;
    if (sample.distanceM >= nextAt || changed) {
      if (sample.distanceM >= nextAt) nextAt = sample.distanceM + nextLook(chance, kind) * METRES_PER_MILE;
      const isPlaced = changed || !(kind.loose && chance.happens(0.25));
      jot(sample, {
        kind: "checkIn",
        ...(isPlaced && place(sample)),
        ...(changed && chance.happens(0.5) ? {} : percent()),
        ...seen(sample),
        ...(chance.happens(0.25) ? rested(sample, Math.round(chance.between(2, 20))) : {}),
        ...counted(sample),
        ...(chance.happens(0.6) && climb(i)),
        level: sample.level,
        ground: sample.ground,
      });
    }
    last = sample;
  }
  jot(last, {
    kind: "end",
    reason: last.cutOff ? "cutOff" : "byChoice",
    ...place(last),
    ...(last.cutOff && chance.happens(0.5) ? {} : percent()),
    ...(last.cutOff ? {} : seen(last)),
    ...(last.cutOff ? {} : rested(last, 15)),
    ...counted(last),
    ...climb(samples.length - 1),
  });
  return jotted;
}
