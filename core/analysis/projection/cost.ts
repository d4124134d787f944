import { DEFAULTS, type Estimate } from "#core/base";

/**
 * What the current of a metre costs: energy at the pack over the charger's efficiency, times the tariff.
 *
 * @param whPerM Wh per metre; @param tariffMinor of a kWh, in minor units; @returns minor units per metre
 * @example 14 Wh/mi at 86 % and 30 a kWh is 0.488 a mile
 */
export function runningCost(
  whPerM: Estimate,
  tariffMinor: number,
  eta: Estimate = { mean: DEFAULTS.chargerEta, sd: DEFAULTS.chargerEtaSd },
): Estimate {
  const mean = ((whPerM.mean / eta.mean) * tariffMinor) / 1000;
  return { mean, sd: mean * Math.hypot(whPerM.sd / whPerM.mean, eta.sd / eta.mean) };
}
