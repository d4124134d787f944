import { DEFAULTS, err, ok, type Result, scale, type Estimate } from "#core/base";
import { temperatureFactor, type Chemistry } from "#core/battery";
import { conditionsOfTest, rideEnergy } from "#core/bike";
import type { Compared, PartOf } from "../compared.ts";
import { asRidden } from "../figure.ts";
import { inMeasure } from "../ranking/measure.ts";
import { mapComponents, combine, type ErrorComponents } from "../errorComponents.ts";

/** A time of year by its air, C. */
export interface Season {
  readonly name: string;
  readonly tempC: number;
}

export const SEASONS: readonly Season[] = [
  { name: "summer", tempC: 22 },
  { name: "spring and autumn", tempC: 10 },
  { name: "frost", tempC: -2 },
];

/** Range three ways, m. */
export interface SeasonRange {
  readonly total: Estimate;
  readonly fullPower: Estimate;
  readonly withReserve: Estimate;
}

/** A test's figure, of the whole or a part, ridden the same in other air; Wh per metre. */
export function inAir(compared: Compared, tempC: number, part?: PartOf): Result<ErrorComponents> {
  const figure = asRidden(compared, part);
  if (!figure.ok) return figure;
  const ride = conditionsOfTest(compared.ridden, part);
  if (!ride) return err("no-parts", "part", "That part is too short to say anything.");
  const air = rideEnergy({ ...ride, conditions: { ...ride.conditions, tempC } });
  const by = air / rideEnergy(ride);
  return ok(mapComponents(figure.value, (x) => x * by, by));
}

/**
 * Ranges of a figure on its pack in a season: to the end, to where full power ends, and with the reserve kept. The pack's
 * own error cancels as far as the figure leans on it.
 *
 * @param at25 the pack's usable energy at 25 C, Wh
 */
export function seasonRange(
  whPerM: ErrorComponents,
  at25: ErrorComponents,
  chemistry: Chemistry,
  tempC: number,
): SeasonRange | null {
  const factor = temperatureFactor(chemistry, tempC);
  const capacity = mapComponents(at25, (wh) => wh * factor, factor);
  const range = inMeasure("rangeOwn", whPerM, {
    capacity,
    climbPerM: null,
    option: null,
    commonWh: 0,
  });
  if (!range.ok) return null;
  const total = combine(range.value);
  const low = scale(total, DEFAULTS.lowPowerAt);
  return {
    total,
    fullPower: { mean: low.mean, sd: Math.hypot(low.sd, total.mean * DEFAULTS.lowPowerSd) },
    withReserve: scale(total, 1 - DEFAULTS.reserve),
  };
}
