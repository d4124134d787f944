import { ASSUMED } from "#core/assumptions";
import { bad, good, type Result } from "#core/problems";
import type { Uncertain } from "#core/quantities";
import { interpolate } from "./interpolate.ts";
import type { Pack } from "./schema.ts";
import { NOMINAL_CELL_VOLTS, TEMPERATURE, type Chemistry } from "./tables.ts";

/** Share of the 25 C energy that a pack yields at a temperature. NMC at 4 C: 0.908. */
export function temperatureFactor(chemistry: Chemistry, tempC: number): number {
  const { tempC: temps, factor } = TEMPERATURE[chemistry];
  return interpolate(temps, factor, tempC);
}

/** Printed Wh, else nominal volts x Ah; a problem when the label gives neither. */
export function labelEnergy(pack: Pack): Result<number> {
  if (pack.labelWh !== undefined) return good(pack.labelWh);
  if (pack.ampHours !== undefined && pack.seriesCells !== undefined)
    return good(pack.ampHours * pack.seriesCells * NOMINAL_CELL_VOLTS[pack.chemistry]);
  return bad("no-label", "labelWh", "Type the pack's printed Wh, or its Ah and series cells.");
}

export interface UsableEnergy extends Uncertain {
  readonly labelWh: number;
  readonly from: "measured" | "label";
}

/**
 * Usable energy at the test's temperature, Wh: the measurement if there is one (at least 1.5 % sd), else label x 0.95
 * with 4 % sd.
 *
 * @example usableEnergy({ chemistry: "NMC", labelWh: 612, packTempC: 4 }) is 527.91 with sd 21.116
 */
export function usableEnergy(pack: Pack): Result<UsableEnergy> {
  const label = labelEnergy(pack);
  if (!label.ok && pack.measuredWh === undefined) return label;
  const factor = temperatureFactor(pack.chemistry, pack.packTempC ?? ASSUMED.packTempC);
  if (pack.measuredWh !== undefined) {
    const measuredAt = temperatureFactor(pack.chemistry, pack.measuredTempC ?? 25);
    const mean = (pack.measuredWh * factor) / measuredAt;
    const relative = Math.max((pack.measuredSdWh ?? 0) / pack.measuredWh, ASSUMED.measuredSdFloor);
    return good({
      mean,
      sd: mean * relative,
      labelWh: label.ok ? label.value : pack.measuredWh,
      from: "measured",
    });
  }
  if (!label.ok) return label;
  const mean = label.value * ASSUMED.labelDerate * factor;
  return good({ mean, sd: mean * ASSUMED.labelSd, labelWh: label.value, from: "label" });
}

/** Pack resistance when none was measured, ohm: 12 milliohm a series cell over parallel strings of 3 Ah. 13 cells, 15 Ah: 0.0312. */
export function defaultResistance(seriesCells: number, ampHours: number | undefined): number {
  const strings = ampHours === undefined ? 4 : Math.max(1, ampHours / ASSUMED.stringAh);
  return (ASSUMED.cellOhm * seriesCells) / strings;
}

/** Lowest and highest rest volts a pack's cells can show, with room for a charger's last tenth. */
export function voltsLimits(pack: Pack): { readonly low: number; readonly high: number } | undefined {
  if (pack.seriesCells === undefined) return undefined;
  return pack.chemistry === "NMC"
    ? { low: 2.2 * pack.seriesCells, high: 4.3 * pack.seriesCells }
    : { low: 1.8 * pack.seriesCells, high: 3.75 * pack.seriesCells };
}
