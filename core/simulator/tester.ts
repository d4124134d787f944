import { DEFAULTS, METRES_PER_MILE } from "#core/base";
import type { EntryBody } from "#core/ride/log";
import { barsShown, percentShown, type TrueGauge } from "./gauge.ts";
import { packModel, type PackState, type TruePack } from "./pack.ts";
import type { Rng } from "#core/world";
import type { Sample } from "./ride.ts";
import type { Scenario } from "./scenarios.ts";

/** What the person who rides the test does and how well their instruments are. */
export interface Tester {
  /** Miles between check-ins. */
  readonly everyMi: number;
  readonly restVolts: number;
  /** Recorder's and display's distance over the true one. */
  readonly recorder: number;
  readonly display: number | null;
  readonly noRecorder: boolean;
  readonly meterGain: number;
  readonly meterStepV: number;
  /** Slow error of the pack's own curve against the table. */
  readonly curveError: (f: number) => number;
}

/** How far a cell's volts fall from full to empty, about: a bar gauge that goes by volts takes sag for charge. */
const VOLTS_PER_CHARGE = 1;

/** Step of a display's trip meter, m. */
const TENTH_OF_A_MILE = METRES_PER_MILE / 10;

/** An entry with its moment, s since the ride's start. */
export interface Noted {
  readonly atS: number;
  readonly body: EntryBody;
}

/** Rest volts as read after standing: settled but for what is left of the polarisation, off by the curve's slow error. */
export function restVoltsRead(
  pack: TruePack,
  state: PackState,
  minutes: number,
  tester: Tester,
  chance: Rng,
) {
  const model = packModel(pack);
  const f = model.fractionUsed(state);
  const q = model.curve.chargeAtFraction(f + tester.curveError(f));
  const settled = state.polarisedV * Math.exp((-minutes * 60) / 150);
  const noise = chance.normal(0, DEFAULTS.restedVoltsSd * pack.seriesCells * 0.8);
  const volts = pack.seriesCells * model.curve.voltsAt(q) - settled + noise;
  return Number((Math.round(volts / tester.meterStepV) * tester.meterStepV).toFixed(2));
}

/** How a tester reads the place, the gauge and the counter at a sample. */
function readsOf(
  offsetM: number,
  gauge: TrueGauge,
  model: ReturnType<typeof packModel>,
  tester: Tester,
  scenario: Scenario,
  chance: Rng,
) {
  let counted: number | null = null;
  let [skyFrom, lostM] = [chance.between(2, 5) * METRES_PER_MILE, 0];
  const place = (sample: Sample) => {
    const metres = sample.distanceM - offsetM;
    if (scenario.lostSky && metres > skyFrom) {
      // Bridged straight over a bend: shorter than the way.
      lostM += chance.between(20, 90);
      skyFrom += chance.between(2, 5) * METRES_PER_MILE;
    }
    const recorded = Math.max(0, metres * tester.recorder - lostM + chance.normal(0, 8));
    return {
      ...(tester.noRecorder ? {} : { distanceM: Math.round(recorded) }),
      ...(tester.display === null
        ? {}
        : { displayM: Math.round((metres * tester.display) / TENTH_OF_A_MILE) * TENTH_OF_A_MILE }),
    };
  };
  const seen = (sample: Sample): Record<string, unknown> => ({
    ...(gauge.percentStep > 0 && { percent: percentShown(gauge, model.curve, sample.fractionUsed) }),
    ...(scenario.meter === "counter" &&
      counted !== null && {
        counterWh: Math.round((sample.pack.usedWh - counted) * (1 + tester.meterGain)),
        meter: "inline meter",
      }),
  });
  const startCounting = (wh: number) => {
    counted = wh;
  };
  return { place, seen, startCounting };
}

/**
 * Writes one ride's log as a person would: a start, check-ins every few miles and at each change of level or ground, bars
 * as they are seen to go, low-power mode, the end.
 *
 * @param samples of the ride; @param offsetM true distance at the ride's start, since trips start at zero
 */
export function writeLog(
  samples: Iterable<Sample>,
  offsetM: number,
  pack: TruePack,
  gauge: TrueGauge,
  tester: Tester,
  scenario: Scenario,
  chance: Rng,
  startBody: EntryBody,
): { readonly notes: Noted[]; readonly last: Sample | null; readonly samples: Sample[] } {
  const model = packModel(pack);
  const notes: Noted[] = [];
  const kept: Sample[] = [];
  let last: Sample | null = null;
  let nextCheck = offsetM + tester.everyMi * METRES_PER_MILE;
  let barsSeen = gauge.bars;
  let [lowSeen, blinkSeen] = [false, false];
  const { place, seen, startCounting } = readsOf(offsetM, gauge, model, tester, scenario, chance);
  const note = (sample: Sample, body: Record<string, unknown>) =>
    notes.push({ atS: sample.timeS, body: body as unknown as EntryBody });
  for (const sample of samples) {
    if (!last) {
      startCounting(sample.pack.usedWh);
      note(sample, {
        ...startBody,
        ...place({ ...sample, distanceM: offsetM }),
        level: sample.level,
        ground: sample.ground,
        ...seen(sample),
        ...(gauge.bars > 0 && { bars: barsShown(gauge, sample.fractionUsed, 0) }),
      });
      if (gauge.bars > 0) barsSeen = barsShown(gauge, sample.fractionUsed, 0);
    }
    const changed = last !== null && (sample.level !== last.level || sample.ground !== last.ground);
    const held = { level: sample.level, ground: sample.ground };
    kept.push(sample);
    if (gauge.bars > 0) {
      const sag = (sample.amps * pack.ohm) / pack.seriesCells / VOLTS_PER_CHARGE;
      const shown = Math.max(1, barsShown(gauge, sample.fractionUsed, sag));
      while (shown < barsSeen) {
        note(sample, { kind: "barLost", bar: barsSeen, ...place(sample) });
        barsSeen -= 1;
      }
      if (!blinkSeen && barsSeen === 1 && sample.fractionUsed > 1 - DEFAULTS.lastBarAt / gauge.bars) {
        blinkSeen = true;
        note(sample, { kind: "lastBar", ...place(sample) });
      }
    }
    if (sample.lowPower && !lowSeen && last) {
      lowSeen = true;
      note(sample, { kind: "lowPower", ...place(sample) });
    }
    if (sample.distanceM >= nextCheck || changed) {
      if (sample.distanceM >= nextCheck) nextCheck = sample.distanceM + tester.everyMi * METRES_PER_MILE;
      const rests = chance.happens(tester.restVolts);
      const volts = rests
        ? { packVolts: restVoltsRead(pack, sample.pack, 12, tester, chance), restMin: 12 }
        : {};
      note(sample, { kind: "checkIn", ...place(sample), ...seen(sample), ...volts, ...held });
    }
    last = sample;
  }
  if (last) {
    const rests = tester.restVolts > 0 && !last.cutOff;
    note(last, {
      kind: "end",
      reason: last.cutOff ? "cutOff" : "byChoice",
      ...place(last),
      ...seen(last),
      ...(rests && { packVolts: restVoltsRead(pack, last.pack, 15, tester, chance), restMin: 15 }),
    });
  }
  return { notes, last, samples: kept };
}
