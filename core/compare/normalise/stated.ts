import type { Reference } from "#core/bike";
import { there, nth, KG_PER_LB, MPS_PER_MPH } from "#core/base";

const MPS_PER_KMH = 1 / 3.6;

const MASS = /(\d{2,3}(?:[.,]\d)?)\s*(kg|kilos?|lbs?|pounds?)\b/i;
const SPEED = /(\d{1,2}(?:[.,]\d)?)\s*(mph|km\/?h|kph)\b/i;
const TEMPERATURE = /(-?\d{1,2})\s*(?:°|degrees?\s*)?\s*([CF])\b/;
const LEVEL_ROAD = /\b(flat|level (?:road|ground)|no hills|without hills)\b/i;
const NO_WIND = /\b(no wind|windless|calm air)\b/i;

const figure = (text: string) => Number(text.replace(",", "."));

/**
 * The conditions a maker states beside a claim, in words: the rider's weight, a speed, level road, no wind, a temperature; the
 * rest as in the reference. "70 kg rider, flat, 25 km/h".
 *
 * @returns null where the words say nothing of how it was ridden
 */
export function statedConditions(words: string, reference: Reference): Reference | null {
  const mass = MASS.exec(words);
  const speed = SPEED.exec(words);
  const temperature = TEMPERATURE.exec(words);
  const flat = LEVEL_ROAD.test(words);
  const calm = NO_WIND.test(words);
  if (!mass && !speed && !temperature && !flat && !calm) return null;
  const degrees = temperature && figure(nth(temperature, 1));
  return {
    ...reference,
    name: "as stated",
    version: 1,
    carriedKg: mass
      ? figure(nth(mass, 1)) * (/^(lb|pound)/i.test(nth(mass, 2)) ? KG_PER_LB : 1)
      : reference.carriedKg,
    conditions: {
      ...reference.conditions,
      ...(speed && {
        speedMps: figure(nth(speed, 1)) * (/mph/i.test(nth(speed, 2)) ? MPS_PER_MPH : MPS_PER_KMH),
      }),
      ...(flat && { gainMPerMi: 0, lossMPerMi: 0 }),
      ...(calm && { headwindMps: 0 }),
      ...(degrees !== null && { tempC: there(temperature)[2] === "F" ? ((degrees - 32) * 5) / 9 : degrees }),
    },
  };
}
