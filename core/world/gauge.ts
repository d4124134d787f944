import type { Rng } from "./chance.ts";
import type { Kind } from "./kinds.ts";
import { availableAh, type Charge, type Pack } from "./pack.ts";
import type { Moment } from "./ride.ts";
import { at } from "./units.ts";

/** A display as it truly is: it sees every second, and is read now and then. */
export interface Gauge {
  see(moment: Moment): void;
  /** Null without a percent. */
  percent(): number | null;
  /** Bars at this moment, under load or not. */
  bars(charge: Charge, amps: number): number;
}

/** How slowly a display that follows the volts settles, s. */
const SETTLES_S = 120;
/** Cell volts by charge that such a display has in its table, of no pack in particular. */
const TABLE = [
  [0, 3.1],
  [0.1, 3.45],
  [0.3, 3.59],
  [0.5, 3.7],
  [0.7, 3.9],
  [0.9, 4.07],
  [1, 4.16],
] as const;
const FLAT_TABLE = [
  [0, 2.8],
  [0.1, 3.16],
  [0.3, 3.25],
  [0.5, 3.285],
  [0.7, 3.31],
  [0.9, 3.335],
  [1, 3.38],
] as const;

/** Charge that a table gives for volts, at most all and at least nothing. */
function chargeBy(table: readonly (readonly [number, number])[], volts: number): number {
  for (let i = 1; i < table.length; i += 1) {
    const [[from, low], [to, high]] = [at(table, i - 1), at(table, i)];
    if (volts < high) return Math.max(0, from + ((volts - low) / (high - low)) * (to - from));
  }
  return 1;
}

/** Bars cut anywhere: each as wide as it happens, the last up to three times another. */
function drawBars(chance: Rng, bars: number): readonly number[] {
  const widths = Array.from(
    { length: bars },
    (_, i) => chance.between(0.5, 1.5) * (i === bars - 1 ? chance.between(0.4, 2) : 1),
  );
  const all = widths.reduce((sum, width) => sum + width, 0);
  let gone = 0;
  return widths.slice(0, -1).map((width) => (gone += width / all));
}

/** What it counts against, as a share of what the pack truly holds: of age it has learned a part. */
function believedShare(chance: Rng, kind: Kind, pack: Pack): number {
  const learned = chance.between(0.2, 1);
  const labelAh = pack.ampHours * 0.95;
  const aged = kind.aged ? Math.max(1, labelAh / pack.trueAh) ** (1 - learned) : 1;
  const cold = (pack.trueAh / availableAh(pack)) ** chance.between(0, 1);
  return aged * cold * (1 + chance.between(-0.05, 0.05));
}

/** Draws a display that counts charge or energy, or follows the loaded volts, wherever its bars are cut. */
export function drawGauge(chance: Rng, kind: Kind, pack: Pack): Gauge {
  const [step, bars] = [kind.step ?? 1, kind.bars ?? 0];
  const barsGo = drawBars(chance, bars);
  const follows = kind.follows ?? (chance.happens(0.7) ? "charge" : "energy");
  const table = pack.chemistry === "LFP" ? FLAT_TABLE : TABLE;
  const believes = believedShare(chance, kind, pack);
  const meanVolts = pack.restVolts(0.5) * pack.seriesCells;
  const waves = [1, 2, 3].map((wave) => ({ wave, size: chance.between(-0.018, 0.018) / wave, from: chance.between(0, 2 * Math.PI) })); // prettier-ignore
  const wobble = (x: number) =>
    waves.reduce(
      (sum, { wave, size, from }) => sum + size * (Math.sin(2 * Math.PI * wave * x + from) - Math.sin(from)),
      0,
    );
  const corrects = chance.between(0.2, 0.9);
  const leans = chance.between(0, 0.5);
  const stuckAt = kind.stuck ? chance.between(0.05, 0.14) : 0;
  let [shown, settled] = [1, NaN];
  return {
    see({ volts, amps, pack: charge }) {
      if (follows === "volts") {
        const corrected = (volts + corrects * amps * pack.ohm) / pack.seriesCells;
        settled = Number.isNaN(settled) ? corrected : settled + (corrected - settled) / SETTLES_S;
        shown = chargeBy(table, settled);
        return;
      }
      const holds = availableAh(pack) * believes;
      const used = follows === "charge" ? charge.usedAh / holds : charge.usedWh / (holds * meanVolts);
      shown = 1 - used + wobble(used);
    },
    percent() {
      if (step === 0) return null;
      return Math.min(100, Math.max(0, Math.round((Math.max(shown, stuckAt) * 100) / step) * step));
    },
    bars(charge, amps) {
      const seen = 1 - charge.share + (leans * amps * pack.ohm) / pack.seriesCells;
      return bars - barsGo.filter((gone) => gone <= seen).length;
    },
  };
}
