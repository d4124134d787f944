import { DEFAULTS } from "#core/base";

/** What is to be added to one clock to have another's time. */
export interface ClockOffset {
  /** s */
  readonly offsetS: number;
  /** s, 1 sd about the likeliest. */
  readonly sdS: number;
  /** Probability that it is this one and none of the rivals, 0 to 1. */
  readonly sure: number;
  /** Others that would do as well, the likelier first, s. */
  readonly rivals: readonly number[];
}

/** How well each offset agrees with what was recorded: log of its likelihood, over even steps. */
export interface Agreement {
  readonly firstS: number;
  readonly stepS: number;
  /** -Infinity where too little is shared to tell. */
  readonly log: Float64Array;
}

/** Clocks are a zone or a summer's hour apart, or a few seconds or minutes, or set to nothing. */
const ZONE_S = 1800;
/** 1 sd of what a clock that was set is off, s. */
const SET_SD_S = 60;
/** How often a clock was right but for its zone, and how often it was never set. */
const [RIGHT, ZONED] = [0.75, 0.15];

/** Farthest that two clocks are looked for, s: zones from -12 to +14 hours. */
export const FARTHEST_S = 14 * 3600;

/** Density of a clock being so far off, before anything is matched, 1/s. */
export function priorOf(offsetS: number): number {
  const normal = (from: number) =>
    Math.exp(-0.5 * ((offsetS - from) / SET_SD_S) ** 2) / (SET_SD_S * Math.sqrt(2 * Math.PI));
  const zones = (2 * FARTHEST_S) / ZONE_S;
  const zone = Math.round(offsetS / ZONE_S) * ZONE_S;
  return (
    RIGHT * normal(0) +
    (zone === 0 ? 0 : (ZONED / zones) * normal(zone)) +
    (1 - RIGHT - ZONED) / (2 * FARTHEST_S)
  );
}

/** A peak's neighbours up to here are of it, s. */
const PEAK_S = 90;
/** Rivals less likely than this, against the likeliest, are none. */
const LEAST_RIVAL = 0.02;

/** Nothing is known of how far one clock is off the other, 1/s: a film's begins when it is switched on. */
export const anyOffset = (): number => 1 / (2 * FARTHEST_S);

/**
 * The likeliest offset of two clocks, with its doubt and what else it could be.
 *
 * @param prior density of an offset before anything is matched, 1/s
 * @returns null where nothing is shared
 */
export function likeliestOffset(
  { firstS, stepS, log }: Agreement,
  prior: (offsetS: number) => number = priorOf,
): ClockOffset | null {
  const most = log.reduce((max, each) => Math.max(max, each), -Infinity);
  if (!Number.isFinite(most)) return null;
  const at = (i: number) => firstS + i * stepS;
  const mass = log.map((each, i) => Math.exp(each - most) * prior(at(i)));
  const peaks: { readonly i: number; readonly mass: number }[] = [];
  const left = Float64Array.from(mass);
  const whole = mass.reduce((sum, each) => sum + each, 0);
  for (let found = 0; found < 4; found += 1) {
    let i = 0;
    for (let k = 1; k < left.length; k += 1) if ((left[k] ?? 0) > (left[i] ?? 0)) i = k;
    let sum = 0;
    const reach = Math.round(PEAK_S / stepS);
    for (let k = Math.max(0, i - reach); k <= Math.min(left.length - 1, i + reach); k += 1) {
      sum += left[k] ?? 0;
      left[k] = 0;
    }
    if (sum < LEAST_RIVAL * (peaks[0]?.mass ?? 0) || sum === 0) break;
    peaks.push({ i, mass: sum });
  }
  const ranked = peaks.sort((a, b) => b.mass - a.mass);
  const [best] = ranked;
  if (!best) return null;
  const { mean, sd } = momentsAbout(mass, best.i, Math.round(PEAK_S / stepS));
  return {
    offsetS: firstS + mean * stepS,
    sdS: Math.hypot(sd * stepS, DEFAULTS.clockMatchSd),
    sure: best.mass / whole,
    rivals: ranked.slice(1).map(({ i }) => at(i)),
  };
}

/** Mean and sd of the mass about a peak, in steps. */
function momentsAbout(mass: Float64Array, peak: number, reach: number) {
  let [sum, first, second] = [0, 0, 0];
  for (let k = Math.max(0, peak - reach); k <= Math.min(mass.length - 1, peak + reach); k += 1) {
    const weight = mass[k] ?? 0;
    sum += weight;
    first += weight * k;
    second += weight * k * k;
  }
  const mean = first / sum;
  return { mean, sd: Math.sqrt(Math.max(0, second / sum - mean * mean)) };
}

/** What of an offset is a zone that was set wrongly, s: the nearest half hour, where it is less than five minutes from it. */
export function zonePart(offsetS: number): number {
  const zone = Math.round(offsetS / ZONE_S) * ZONE_S;
  return Math.abs(offsetS - zone) < 300 ? zone : 0;
}

/** So many places of the coarse look are looked at closer. */
const LOOKED_AT = 14;

/** Middles of the coarse look's best places, s; a clock that was set right is always among them. */
export function bestPlaces({ firstS, stepS, log }: Agreement): readonly number[] {
  const at = (i: number) => firstS + i * stepS;
  const left = log.map((each, i) => each + Math.log(priorOf(at(i))));
  const reach = Math.ceil(PEAK_S / stepS / 2);
  const found = [0];
  while (found.length < LOOKED_AT) {
    let i = 0;
    for (let k = 1; k < left.length; k += 1) if ((left[k] ?? -Infinity) > (left[i] ?? -Infinity)) i = k;
    if (!Number.isFinite(left[i] ?? -Infinity)) break;
    found.push(at(i));
    left.fill(-Infinity, Math.max(0, i - reach), i + reach + 1);
  }
  return found;
}
