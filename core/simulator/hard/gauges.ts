import { cellCurve, OCV, temperatureFactor } from "#core/battery";
import { packModel, type TruePack } from "../pack.ts";
import type { Rng } from "../random.ts";
import type { Sample } from "../ride.ts";
import type { HardKind } from "./kinds.ts";

/** A display as it truly is: it is shown every second, and read now and then. */
export interface HardGauge {
  see(sample: Sample): void;
  /** Null without a percent. */
  percent(): number | null;
  /** Bars at this moment, under load or not. */
  bars(sample: Sample): number;
  /** Fraction used at which each bar goes, first bar to go first. */
  readonly barsGo: readonly number[];
}

/** How slowly a display that follows the volts settles, s. */
const SMOOTHED_S = 100;
const UNIFORM = Math.sqrt(3);

/** Bars that are shifted together, bowed, and each off by itself. */
function drawBars(chance: Rng, bars: number): readonly number[] {
  const wide = (sd: number) => chance.between(-UNIFORM * sd, UNIFORM * sd);
  const [shift, bow] = [wide(0.05), wide(0.08)];
  return Array.from({ length: Math.max(0, bars - 1) }, (_, i) => {
    const at = (i + 1) / bars;
    return Math.min(0.97, Math.max(0.03, at + shift + bow * 4 * at * (1 - at) + wide(0.3 / bars)));
  }).sort((a, b) => a - b);
}

/** Draws a display that counts charge or energy, or follows the loaded volts, none of it as the assumptions have it. */
export function drawHardGauge(chance: Rng, kind: HardKind, pack: TruePack): HardGauge {
  const step = kind.step ?? 1;
  const bars = kind.bars ?? 0;
  const barsGo = drawBars(chance, bars);
  const follows = kind.follows ?? (chance.happens(0.7) ? "charge" : "energy");
  const model = packModel(pack);
  const book = cellCurve(OCV[pack.chemistry]);
  const scale = 1 + chance.between(-0.05, 0.05);
  const knowsCold = chance.between(0, 1);
  const loss = (pack.coldShare ?? 1) * (1 - temperatureFactor(pack.chemistry, pack.tempC));
  // It counts against what it believes the pack holds.
  const believed = ((1 - loss) / (1 - knowsCold * loss)) * scale;
  const wobbles = [1, 2, 3].map((wave) => ({
    wave,
    size: chance.between(-0.018, 0.018) / wave,
    phase: chance.between(0, 2 * Math.PI),
  }));
  const wobble = (x: number) =>
    wobbles.reduce(
      (sum, { wave, size, phase }) =>
        sum + size * (Math.sin(2 * Math.PI * wave * x + phase) - Math.sin(phase)),
      0,
    );
  const compensates = chance.between(0.2, 0.9);
  const stuckAt = kind.stuck ? chance.between(0.05, 0.14) : 0;
  const sagShare = chance.between(0, 0.5);
  let [shown, smoothed] = [1, NaN];
  return {
    barsGo,
    see(sample) {
      if (follows === "volts") {
        const volts = sample.volts + compensates * sample.amps * pack.ohm;
        smoothed = Number.isNaN(smoothed) ? volts : smoothed + (volts - smoothed) / SMOOTHED_S;
        shown = book.chargeAt(smoothed / pack.seriesCells);
      } else {
        const used = follows === "charge" ? 1 - sample.pack.q : model.fractionUsed(sample.pack);
        shown = 1 - used * believed + wobble(used);
      }
    },
    percent() {
      if (step === 0) return null;
      const held = Math.max(shown, stuckAt);
      return Math.min(100, Math.max(0, Math.round((held * 100) / step) * step));
    },
    bars(sample) {
      const sag = (sample.amps * pack.ohm) / pack.seriesCells;
      const seen = sample.fractionUsed + sagShare * sag;
      return bars - barsGo.filter((at) => at <= seen).length;
    },
  };
}
