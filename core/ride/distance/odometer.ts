import { nth, DEFAULTS, err, ok, type Result } from "#core/base";

export interface OdometerFactor {
  /** True distance over displayed distance. */
  readonly k: number;
  readonly sdFromResiduals: number;
  readonly sd: number;
  /** Over 3 % off: the wheel setting is wrong. */
  readonly warn: boolean;
  readonly impliedCircumferenceMm?: number;
}

/**
 * The factor of a display's odometer from intervals where both it and a recorder are known: least squares through the
 * origin, k = sum(gps x odo) / sum(odo^2), with an sd of at least 0.005 k.
 *
 * @param gpsMi recorder distance of each interval; @param odoMi the display's, as many, same unit
 * @example gps 3.21 4.9 2.05 6.12 against 3.42 5.18 2.19 6.5 with a 2200 mm wheel: k 0.94221, sd 0.00471, 2072.9 mm
 */
export function odometerFactor(
  gpsMi: readonly number[],
  odoMi: readonly number[],
  wheelCircumferenceMm?: number,
): Result<OdometerFactor> {
  if (gpsMi.length !== odoMi.length)
    return err("uneven", "odoMi", "Give as many odometer distances as recorder distances.");
  const squares = odoMi.reduce((sum, odo) => sum + odo * odo, 0);
  if (gpsMi.length === 0 || squares === 0)
    return err("no-distance", "odoMi", "At least one interval needs both distances.");
  const k = gpsMi.reduce((sum, gps, i) => sum + gps * nth(odoMi, i), 0) / squares;
  const rss = gpsMi.reduce((sum, gps, i) => sum + (gps - k * nth(odoMi, i)) ** 2, 0);
  const sdFromResiduals = gpsMi.length > 1 ? Math.sqrt(rss / (gpsMi.length - 1) / squares) : 0;
  return ok({
    k,
    sdFromResiduals,
    sd: Math.max(sdFromResiduals, DEFAULTS.odometerSdFloor * k),
    warn: Math.abs(k - 1) > DEFAULTS.odometerWarn,
    ...(wheelCircumferenceMm === undefined ? {} : { impliedCircumferenceMm: wheelCircumferenceMm * k }),
  });
}
