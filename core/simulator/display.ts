import { z } from "zod";
import { there, nth, DEFAULTS, METRES_PER_MILE } from "#core/base";
import type { DisplaySample } from "#core/ride/display";
import type { ForecastInput } from "#core/forecast";
import { drawRide } from "./drawn.ts";
import { barsShown, drawGauge, percentShown, type TrueGauge } from "./gauge.ts";
import { rngFrom } from "#core/world";
import type { Sample, Stand } from "./ride.ts";

/** What a rehearsal rides: a plan's forecast input and the seed that draws what nobody sees. */
export const rehearsalSchema = z.object({
  planId: z.string(),
  seed: z.number(),
  /** When the ride starts, ms since the epoch. */
  startMs: z.number(),
  /** Where it ends at the latest, m. */
  toM: z.number(),
  input: z.custom<ForecastInput>((input) => typeof input === "object" && input !== null),
});
export type Rehearsal = Readonly<z.infer<typeof rehearsalSchema>>;

/** What can be wrong with the display, in words. */
export const FAULTS = {
  none: "nothing",
  "drops out": "it falls silent for a minute in every four",
  freezes: "it shows the same figures on and on",
  "wrong wheel": "its wheel setting is 8 % too large",
  "stuck gauge": "its percent stands still under 25",
  "wrong amps": "its amps read 10 % high",
} as const;
export type Fault = keyof typeof FAULTS;

export interface DisplayOptions {
  readonly stands?: readonly Stand[];
  readonly fault?: Fault;
  /** From when the fault is there, s since the ride's start. */
  readonly faultFromS?: number;
}

/** A moment as the display shows it, null while it shows nothing; and as it truly is. */
export interface DisplayMoment {
  readonly atS: number;
  readonly shown: DisplaySample | null;
  readonly sample: Sample;
}

/** After its course's end the bike stands this long with its display on, s. */
const REST_S = 2 * 3600;
/** How the display guesses the way left: by the last miles, and with hope. */
const GUESS_OVER_M = 3 * METRES_PER_MILE;
const HOPE = 1.12;
const RECORDER_NOISE_M = 4;
const WRONG_WHEEL = 1.08;
const STUCK_AT = 0.25;
const WRONG_AMPS = 1.1;
const SILENT_S = 60;
const SILENT_EVERY_S = 240;

const rounded = (value: number, step: number) => Number((Math.round(value / step) * step).toFixed(3));

/** An input as it comes back from a store without infinities: a motor that never rests was written as null. */
function restored(input: ForecastInput): ForecastInput {
  const { assistToMps } = input.rig as { assistToMps: number | null };
  return { ...input, rig: { ...input.rig, assistToMps: assistToMps ?? Infinity } };
}

/** What the display and the meter at the bars show of a ride whose truth is hidden, moment after moment. */
function handlebar({ seed, startMs, input: stored }: Rehearsal, ridden: ReturnType<typeof drawRide>) {
  const input = restored(stored);
  const { pack, model, gaugeError } = ridden;
  const chance = rngFrom(seed ^ 0x0d15b1a7);
  const { percentStep, bars, meterStepV, counts } = input.display;
  const gauge: TrueGauge = {
    ...drawGauge(chance, { percentStep: percentStep || 1, bars, stuckBelow: 0 }),
    error: gaugeError,
  };
  const recorderScale = chance.normal(1, DEFAULTS.gpsScaleSd);
  const ampsGain = chance.normal(1, DEFAULTS.shuntGainSd);
  const wheel = chance.normal(1, 0.004);
  const capacityWh = pack.chemicalWh;
  const guessFrom: { metres: number; wh: number }[] = [];
  let recordedM = 0;

  return (sample: Sample, wrong: Fault): DisplaySample => {
    const f = sample.fractionUsed;
    const seen = { ...gauge, stuckBelow: wrong === "stuck gauge" ? STUCK_AT : 0 };
    recordedM = Math.max(recordedM, sample.distanceM * recorderScale + chance.normal(0, RECORDER_NOISE_M));
    const turned = wheel * (wrong === "wrong wheel" ? WRONG_WHEEL : 1);
    const sag = (sample.amps * pack.ohm) / pack.seriesCells;
    const percent =
      counts === "energy"
        ? Math.min(100, Math.max(0, rounded(100 * (1 - f - gaugeError(f)), percentStep || 1)))
        : percentShown(seen, model.curve, f);
    if ((guessFrom.at(-1)?.metres ?? -100) < sample.distanceM - 100)
      guessFrom.push({ metres: sample.distanceM, wh: sample.pack.usedWh });
    while (guessFrom.length > 2 && nth(guessFrom, 1).metres < sample.distanceM - GUESS_OVER_M)
      guessFrom.shift();
    const [first] = guessFrom;
    const ridden = sample.distanceM - (first?.metres ?? 0);
    const rate = ridden > METRES_PER_MILE / 4 ? (sample.pack.usedWh - there(first).wh) / ridden : null;
    const guess = rate && rate > 0 ? (HOPE * (1 - f) * capacityWh) / rate : null;
    return {
      timeS: startMs / 1000 + sample.timeS,
      distanceM: rounded(recordedM, 1),
      displayM: Math.floor((sample.distanceM * turned) / (METRES_PER_MILE / 10)) * (METRES_PER_MILE / 10),
      speedMps: rounded(sample.speedMps * turned, 0.05),
      volts: rounded(sample.volts, meterStepV || 0.1),
      amps: rounded(sample.amps * ampsGain * (wrong === "wrong amps" ? WRONG_AMPS : 1), 0.1),
      ...(percentStep > 0 && { percent }),
      ...(bars > 0 && { bars: Math.max(sample.cutOff ? 0 : 1, barsShown(gauge, f, sag)) }),
      airTempC: rounded(input.rig.tempC, 0.5),
      ...(guess !== null && { rangeGuessM: rounded(guess, METRES_PER_MILE / 2) }),
      level: sample.level,
      lowPower: sample.lowPower,
    };
  };
}

/**
 * The handlebar display and meter of a rehearsal, second by second: what a person at the bars would see, made from a ride
 * whose truth is hidden. After the course's end it goes on showing the bike at rest. The same rehearsal and options give
 * the same moments, so a stream that broke can go on from any second.
 */
export function* displayOf(rehearsal: Rehearsal, options: DisplayOptions = {}): Generator<DisplayMoment> {
  const { seed, toM } = rehearsal;
  const input = restored(rehearsal.input);
  const { stands = [], fault = "none", faultFromS = 0 } = options;
  const ridden = drawRide(seed, input, toM, stands);
  const { model, startUsed, samples } = ridden;
  const shownAt = handlebar(rehearsal, ridden);
  let frozen: DisplaySample | null = null;

  const momentAt = (sample: Sample): DisplayMoment => {
    const { timeS } = sample;
    const wrong: Fault = timeS >= faultFromS ? fault : "none";
    const now = shownAt(sample, wrong);
    if (wrong !== "freezes" || frozen === null) frozen = now;
    const silent = wrong === "drops out" && (timeS - faultFromS) % SILENT_EVERY_S < SILENT_S;
    const dark = sample.cutOff || silent;
    return {
      atS: timeS,
      sample,
      shown: dark ? null : wrong === "freezes" ? { ...frozen, timeS: now.timeS } : now,
    };
  };

  const state = { q: model.curve.chargeAtFraction(startUsed), polarisedV: 0, usedWh: 0 };
  const first = nth(input.way.lap, 0);
  let last: Sample = {
    timeS: 0,
    distanceM: 0,
    speedMps: 0,
    level: first.level in input.rig.speedMps ? first.level : input.rig.level,
    ground: first.ground,
    volts: model.restVolts(state),
    amps: 0,
    pack: state,
    fractionUsed: startUsed,
    lowPower: false,
    restS: 600,
    cutOff: false,
  };
  yield momentAt(last);
  for (const sample of samples()) {
    last = sample;
    yield momentAt(sample);
  }
  for (let i = 0; i < REST_S; i += 1) {
    const rested = model.draw(last.pack, 0, 1);
    const pack = rested?.state ?? last.pack;
    last = {
      ...last,
      timeS: last.timeS + 1,
      speedMps: 0,
      amps: 0,
      pack,
      volts: model.restVolts(pack),
      restS: last.restS + 1,
    };
    yield momentAt(last);
  }
}
