import numberToWords from "number-to-words";
import { fromSi, halfWidth95, unitOf, type Estimate, type System } from "#core/base";

/** Units as they are spoken: of one and of several. */
const SPOKEN = {
  "Wh/mi": ["watt-hour a mile", "watt-hours a mile"],
  "Wh/km": ["watt-hour a kilometre", "watt-hours a kilometre"],
  mi: ["mile", "miles"],
  km: ["kilometre", "kilometres"],
  Wh: ["watt-hour", "watt-hours"],
} as const;

type SpokenDimension = "energyPerDistance" | "distance" | "energy";

/** Steps in which people say figures, the finest first. */
const STEPS = [0.1, 0.5, 1, 5, 10, 50];
/** A figure is said in steps of no more than this share of its doubt. */
const STEP_OF_DOUBT = 0.4;

/**
 * A number as it is said: halves as halves, tenths by their digit.
 *
 * @param value 0 or more, in whole, halves or tenths
 * @example spokenNumber(1.5) === "one and a half"
 * @example spokenNumber(4.2) === "four point two"
 */
export function spokenNumber(value: number): string {
  const tenths = Math.round(value * 10);
  const whole = Math.floor(tenths / 10);
  const rest = tenths - whole * 10;
  if (rest === 0) return numberToWords.toWords(whole);
  if (rest === 5) return whole === 0 ? "a half" : `${numberToWords.toWords(whole)} and a half`;
  return `${numberToWords.toWords(whole)} point ${numberToWords.toWords(rest)}`;
}

/**
 * A figure as a person says it, rounded to what its doubt supports.
 *
 * @param value SI, with one sd; what is said is half of its span that holds the truth 95 times in 100
 * @example asSaid({ mean: 18.1 / 1609.344, sd: 0.75 / 1609.344 }, "energyPerDistance", "imperial") is "about eighteen watt-hours a mile, give or take one and a half"
 */
export function asSaid(value: Estimate, dimension: SpokenDimension, system: System): string {
  const unit = unitOf(dimension, system) as keyof typeof SPOKEN;
  const shown = Math.max(0, fromSi(value.mean, dimension, unit));
  const doubt = Math.abs(fromSi(halfWidth95(value), dimension, unit));
  const step = STEPS.filter((each) => each <= Math.max(STEPS[0]!, STEP_OF_DOUBT * doubt)).at(-1) ?? 1;
  const rounded = (figure: number, to: number) => Math.round(figure / to) * to;
  const said = rounded(shown, step);
  const [one, many] = SPOKEN[unit];
  const margin = Math.max(STEPS[0]!, rounded(doubt, step));
  return `about ${spokenNumber(said)} ${said === 1 ? one : many}, give or take ${spokenNumber(margin)}`;
}
