import { curveOf, type Chemistry } from "#core/battery";
import { err, ok, type Result } from "#core/base";

/** The arithmetic a careful reviewer does on paper: no model, no plus-or-minus. Source: docs/method.md, "Plain". */
export interface Plain {
  readonly energyWh: number;
  readonly whPerMi: number;
  readonly projectedRangeMi: number;
}

function fromShare(share: number, labelWh: number, distanceMi: number): Result<Plain> {
  if (!(distanceMi > 0))
    return err("no-distance", "distanceMi", "Type the miles ridden: energy per mile needs a distance.");
  if (!(share > 0))
    return err("no-drop", "endPercent", "The end must be lower than the start: nothing was used otherwise.");
  const energyWh = share * labelWh;
  return ok({ energyWh, whPerMi: energyWh / distanceMi, projectedRangeMi: distanceMi / share });
}

/**
 * Label energy x the drop in percent, over the miles.
 *
 * @example plainFromPercent({ startPercent: 96, endPercent: 31, labelWh: 612, distanceMi: 27.4 }) is 397.8 Wh, 14.518 Wh/mi, 42.15 mi
 */
export function plainFromPercent(input: {
  readonly startPercent: number;
  readonly endPercent: number;
  readonly labelWh: number;
  readonly distanceMi: number;
}): Result<Plain> {
  return fromShare((input.startPercent - input.endPercent) / 100, input.labelWh, input.distanceMi);
}

/**
 * The same with the charge that rest volts show on the cell curve.
 *
 * @example 53.6 to 46.3 V, 13 NMC cells, 612 Wh, 24.8 mi is 419.66 Wh, 16.922 Wh/mi, 36.17 mi
 */
export function plainFromVolts(input: {
  readonly chemistry: Chemistry;
  readonly seriesCells: number;
  readonly startVolts: number;
  readonly endVolts: number;
  readonly labelWh: number;
  readonly distanceMi: number;
}): Result<Plain> {
  const curve = curveOf(input);
  const charge = (volts: number) => curve.chargeAt(volts / input.seriesCells);
  return fromShare(charge(input.startVolts) - charge(input.endVolts), input.labelWh, input.distanceMi);
}

/** At steady speed: range = Ah x speed / amps, Wh/mi = volts x amps / speed. 17 Ah, 18.5 mph, 7.2 A, 47.1 V: 43.68 mi, 18.33 Wh/mi. */
export function plainFromAmps(input: {
  readonly ampHours: number;
  readonly speedMph: number;
  readonly amps: number;
  readonly packVolts: number;
}): Result<{ readonly rangeMi: number; readonly whPerMi: number }> {
  if (!(input.amps > 0)) return err("no-current", "amps", "Type the amps drawn: more than zero.");
  if (!(input.speedMph > 0)) return err("no-speed", "speedMph", "Type the speed held: more than zero.");
  return ok({
    rangeMi: (input.ampHours * input.speedMph) / input.amps,
    whPerMi: (input.packVolts * input.amps) / input.speedMph,
  });
}
