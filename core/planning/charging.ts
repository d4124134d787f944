import { DEFAULTS } from "#core/base";
import { NOMINAL_CELL_VOLTS, labelEnergy, type Pack } from "#core/battery";

/** Ah a pack holds by its label: printed, else printed energy over its nominal volts; null when neither can be had. */
function ampHoursOf(pack: Pack): number | null {
  const label = labelEnergy(pack);
  const volts = pack.seriesCells === undefined ? null : pack.seriesCells * NOMINAL_CELL_VOLTS[pack.chemistry];
  if (label.ok && volts !== null && pack.beside?.length) return label.value / volts;
  return pack.ampHours ?? (label.ok && volts !== null ? label.value / volts : null);
}

/**
 * How long a charge to full takes, minutes: charge missing over the charger's amps, and the slow last part.
 *
 * @example a 14 Ah pack at 30 % on 2 A: 294 min and the last 40, 334 in all
 */
export function chargeMinutes(pack: Pack, fromPercent: number, chargerA: number): number | null {
  const ampHours = ampHoursOf(pack);
  if (ampHours === null) return null;
  return (60 * ampHours * (1 - fromPercent / 100)) / chargerA + DEFAULTS.chargeTaperMinutes;
}
