import type { TrackProfile } from "#core/ride/distance";
import { bestPlaces, FARTHEST_S, likeliestOffset, type Agreement, type ClockOffset } from "./offset.ts";
import { onGrid, powerAlong, smoothed, speedAlong, type Recorded, type Series } from "./series.ts";

/** Steps of the first look and of the close one, s. */
const [COARSE_S, FINE_S] = [8, 1];
/** How far about a place of the first look the close one goes, s. */
const CLOSE_S = 24;
/** Least time that two recordings share, s, and least share of the shorter one. */
const [LEAST_SHARED_S, LEAST_SHARED] = [240, 0.5];
/** Moments nearer than this tell one thing, s, until it is measured; and never less or more. */
const [ALIKE_S, LEAST_ALIKE_S, MOST_ALIKE_S] = [30, 10, 240];

/** Sums over the steps that two series share when one is put later. */
interface Shared {
  readonly steps: number;
  /** Correlation, -1 to 1. */
  readonly r: number;
  /** Slope and mean of the second by the first, for what is left over. */
  readonly gain: number;
  readonly level: number;
}

const NOTHING: Shared = { steps: 0, r: 0, gain: 0, level: 0 };

function sharedAt(a: Float64Array, b: Float64Array, shift: number): Shared {
  let [n, sa, sb, saa, sbb, sab] = [0, 0, 0, 0, 0, 0];
  for (let i = Math.max(0, shift); i < Math.min(a.length, b.length + shift); i += 1) {
    const x = a[i] ?? NaN;
    const y = b[i - shift] ?? NaN;
    if (x !== x || y !== y) continue;
    n += 1;
    sa += x;
    sb += y;
    saa += x * x;
    sbb += y * y;
    sab += x * y;
  }
  if (n < 3) return NOTHING;
  const [va, vb, cov] = [saa - (sa * sa) / n, sbb - (sb * sb) / n, sab - (sa * sb) / n];
  if (!(va > 1e-9 * saa && vb > 1e-9 * sbb)) return { ...NOTHING, steps: n };
  const gain = cov / va;
  return { steps: n, r: cov / Math.sqrt(va * vb), gain, level: (sb - gain * sa) / n };
}

/** How well a line from one to the other explains it, as a log of likelihood: only what goes along with it counts. */
const logOf = ({ steps, r }: Shared, stepS: number, alikeS: number): number =>
  r <= 0 ? 0 : -0.5 * ((steps * stepS) / alikeS) * Math.log(1 - Math.min(r, 0.9999) ** 2);

const known = ({ values }: Series): number => values.reduce((n, each) => n + (each === each ? 1 : 0), 0);

/** Agreement at every step between two offsets, of a series whose clock is put later by it. */
function agreement(a: Series, b: Series, from: number, to: number, alikeS: number): Agreement {
  const { stepS } = a;
  const startsS = b.startS - a.startS;
  const least = Math.max(LEAST_SHARED_S, LEAST_SHARED * Math.min(known(a), known(b)) * stepS) / stepS;
  const count = 1 + Math.max(0, Math.floor((to - from) / stepS));
  const log = new Float64Array(count).fill(-Infinity);
  for (let k = 0; k < count; k += 1) {
    const shared = sharedAt(a.values, b.values, Math.round((startsS + from) / stepS) + k);
    if (shared.steps >= least) log[k] = logOf(shared, stepS, alikeS);
  }
  // Steps fall on the grid of the first: the offset that was asked for is up to half a step away.
  return { firstS: Math.round((startsS + from) / stepS) * stepS - startsS, stepS, log };
}

/** How long what is left over stays alike, s: so many seconds tell one thing. */
function alikeSeconds(a: Series, b: Series, offsetS: number): number {
  const shift = Math.round((b.startS - a.startS + offsetS) / a.stepS);
  const { gain, level } = sharedAt(a.values, b.values, shift);
  const left: number[] = [];
  for (let i = Math.max(0, shift); i < Math.min(a.values.length, b.values.length + shift); i += 1) {
    const rest = (b.values[i - shift] ?? NaN) - level - gain * (a.values[i] ?? NaN);
    if (rest === rest) left.push(rest);
  }
  const power = left.reduce((sum, each) => sum + each * each, 0);
  if (!(power > 0)) return LEAST_ALIKE_S;
  let alike = 1;
  for (let lag = 1; lag * a.stepS < MOST_ALIKE_S; lag += 1) {
    let sum = 0;
    for (let i = lag; i < left.length; i += 1) sum += (left[i] ?? 0) * (left[i - lag] ?? 0);
    if (sum / power < 0.1) break;
    alike += 2 * (sum / power);
  }
  return Math.min(MOST_ALIKE_S, Math.max(LEAST_ALIKE_S, alike * a.stepS));
}

/** Steps over which both are smoothed in the close look: devices smooth on their own. */
const SMOOTH = 5;

/**
 * What to add to the second's clock so that it goes as the first: by the shape of two speeds, or of a speed's power and a
 * meter's. Offsets of up to 14 hours either way are looked at.
 *
 * @returns null where they share too little, or nothing that moves together
 */
export function offsetBySeries(first: Recorded, second: Recorded): ClockOffset | null {
  const [a, b] = [onGrid(first, COARSE_S), onGrid(second, COARSE_S)];
  const [fineA, fineB] = [onGrid(first, FINE_S), onGrid(second, FINE_S)];
  if (!a || !b || !fineA || !fineB) return null;
  const coarse = agreement(a, b, -FARTHEST_S, FARTHEST_S, ALIKE_S);
  const places = bestPlaces(coarse);
  const [evenA, evenB] = [smoothed(fineA, SMOOTH), smoothed(fineB, SMOOTH)];
  const look = (alikeS: number) => fine(evenA, evenB, places, alikeS);
  const roughly = likeliestOffset(look(ALIKE_S));
  if (!roughly) return null;
  const found = look(alikeSeconds(evenA, evenB, roughly.offsetS));
  // Nothing goes together: the prior alone would answer.
  if (found.log.reduce((most, each) => Math.max(most, each), 0) < LEAST_LOG) return null;
  return likeliestOffset(found);
}

/** Less than this is what chance gives somewhere among thousands of offsets. */
const LEAST_LOG = 12;

/** The close look about some places: everywhere else it is as bad as can be. */
function fine(a: Series, b: Series, places: readonly number[], alikeS: number): Agreement {
  const count = 1 + (2 * FARTHEST_S) / FINE_S;
  const startsS = b.startS - a.startS;
  const log = new Float64Array(count).fill(-Infinity);
  for (const place of places) {
    const near = agreement(a, b, place - CLOSE_S, place + CLOSE_S, alikeS);
    near.log.forEach((each, k) => {
      const i = Math.round(near.firstS + k * FINE_S + FARTHEST_S);
      if (i >= 0 && i < count) log[i] = each;
    });
  }
  // Both grids stand on whole seconds.
  return { firstS: -FARTHEST_S - (startsS - Math.round(startsS)), stepS: FINE_S, log };
}

/** A logger's samples, as far as a clock can be told by them. */
export interface Samples {
  readonly timeS: readonly number[];
  readonly volts: readonly number[];
  readonly amps: readonly number[];
  readonly speedMps?: readonly number[] | undefined;
}

/** What to add to a logger's clock to have a recorder's: by speed where it has one, else by when power was drawn. */
export function offsetOfSamples(
  track: TrackProfile,
  { timeS, volts, amps, speedMps }: Samples,
): ClockOffset | null {
  if (speedMps) return offsetBySeries(speedAlong(track), { timeS, values: speedMps });
  const drawn = timeS.map((_, i) => Math.max(0, (volts[i] ?? NaN) * (amps[i] ?? NaN)));
  return offsetBySeries(powerAlong(track), { timeS, values: drawn });
}
