import {
  DEFAULTS,
  ok,
  type Result,
  METRES_PER_MILE,
  normalCdf,
  type Estimate,
  Z_ONE_SIDED_95,
  bisect,
} from "#core/base";
import type { Route } from "#core/route";
import { curveOf, usableOnRide, type Pack } from "#core/battery";
import { plus, rideAlong, slopedVariance, type Along, type Sloped } from "./along.ts";
import { barsAt, percentAt, restVoltsAt, type Display, type Span } from "./gauge.ts";
import type { Knowledge } from "./knowledge.ts";
import type { RideConditions } from "#core/bike";

/** What a forecast is made from. */
export interface ForecastInput {
  readonly way: Route;
  readonly rig: RideConditions;
  readonly knowledge: Knowledge;
  readonly pack: Pack;
  readonly display: Omit<Display, "curve" | "seriesCells">;
  /** Charge at the start, as the gauge would show it. */
  readonly startPercent: number;
  /** Share of the charge the owner keeps back. */
  readonly reserve: number;
}

/** What is expected at a place of the way. */
export interface ExpectedAt {
  /** Since the start, m. */
  readonly atM: number;
  /** What a recorder will show there. */
  readonly distanceM: Estimate;
  readonly timeS: Estimate;
  readonly energyWh: Estimate;
  /** Fraction of the usable energy used. */
  readonly used: Estimate;
  readonly percent: Span | null;
  readonly bars: Span | null;
  readonly restVolts: Span | null;
}

/** A forecast: what is expected anywhere on the way, and how far the pack goes. */
export interface Forecast {
  readonly input: ForecastInput;
  readonly along: Along;
  readonly capacity: Estimate;
  readonly start: Estimate;
  readonly at: (atM: number) => ExpectedAt;
  /** Where a fraction of the pack is used; null when the way ends long before. */
  readonly where: (fraction: number, sd?: number) => Estimate | null;
  /** Chance that a part of the way and an energy on top use no more than a fraction. */
  readonly chanceWithin: (energy: Sloped, overM: number, fraction: number) => number;
  /** Fraction that an energy takes at 95 % of the days: with one-sided doubt. */
  readonly takes: (energy: Sloped, overM: number) => number;
}

/** Furthest a closed way is repeated to find where the pack ends, m. */
const FARTHEST_M = 1_000_000;
const HALVINGS = 40;

/** Sd of the road's own scatter over a distance, Wh, at a mean rate: as the ledger has it. */
function scatterWh(energyWh: number, overM: number): number {
  const miles = Math.max(overM / METRES_PER_MILE, DEFAULTS.shortestLegMi);
  return DEFAULTS.scatterShare * (energyWh / miles) * Math.sqrt(miles);
}

/**
 * Forecasts a ride from its road load: energy and time along the way with their doubt (what is not known of bike, rider
 * and day, the road's scatter, the pack), and what the display will show.
 *
 * @returns problems when the pack's label gives no energy
 */
export function forecastRide(input: ForecastInput): Result<Forecast> {
  const usable = usableOnRide(input.pack);
  if (!usable.ok) return usable;
  const { way, rig, knowledge, startPercent } = input;
  const curve = curveOf(input.pack);
  const display: Display = { ...input.display, curve, seriesCells: input.pack.seriesCells };
  const along = rideAlong(way, rig, knowledge);
  const capacity: Estimate = { mean: usable.value.mean, sd: usable.value.sd };
  const start: Estimate =
    startPercent >= 100
      ? { mean: 0, sd: DEFAULTS.fullStartSd }
      : { mean: curve.fractionAt(startPercent / 100), sd: DEFAULTS.smoothSd };

  const energySd = (energy: Sloped, overM: number) =>
    Math.sqrt(slopedVariance(energy, knowledge) + scatterWh(energy.mean, overM) ** 2);
  const usedBy = (energy: Sloped, overM: number): Estimate => {
    const share = energy.mean / capacity.mean;
    return {
      mean: start.mean + share,
      sd: Math.hypot(
        start.sd,
        energySd(energy, overM) / capacity.mean,
        (share * capacity.sd) / capacity.mean,
      ),
    };
  };
  // Stops come by chance: a count scatters by its root.
  const chanceStopsS = (atM: number) => DEFAULTS.stopS * Math.sqrt((rig.stopsPerMi * atM) / METRES_PER_MILE);
  const used = (atM: number) => usedBy(along.whTo(atM), atM);
  const at = (atM: number): ExpectedAt => {
    const energy = along.whTo(atM);
    const seconds = along.secondsTo(atM);
    const fraction = usedBy(energy, atM);
    return {
      atM,
      distanceM: { mean: atM, sd: DEFAULTS.courseSd * atM },
      timeS: {
        mean: seconds.mean,
        sd: Math.sqrt(slopedVariance(seconds, knowledge) + chanceStopsS(atM) ** 2),
      },
      energyWh: { mean: energy.mean, sd: energySd(energy, atM) },
      used: fraction,
      percent: percentAt(display, fraction),
      bars: barsAt(display, fraction),
      restVolts: restVoltsAt(display, fraction),
    };
  };
  const where = (fraction: number, sd = 0): Estimate | null => {
    const most = way.closed ? FARTHEST_M : way.lengthM;
    if (used(most).mean < fraction) return null;
    const [, high] = bisect(0, most, HALVINGS, (atM) => used(atM).mean < fraction);
    // A steep hill uses much in little way: the doubt goes by the mean rate up to there.
    const perM = (fraction - start.mean) / Math.max(high, 1);
    return { mean: high, sd: Math.hypot(used(high).sd, sd) / perM };
  };
  return ok({
    input,
    along,
    capacity,
    start,
    at,
    where,
    chanceWithin: (energy, overM, fraction) => {
      const { mean, sd } = usedBy(energy, overM);
      return normalCdf((fraction - mean) / sd);
    },
    takes: (energy, overM) =>
      (energy.mean + Z_ONE_SIDED_95 * energySd(energy, overM)) /
      (capacity.mean - Z_ONE_SIDED_95 * capacity.sd),
  });
}

/** Energy to a place and on from there. */
export const onward = (forecast: Forecast, atM: number, more: Sloped): Sloped =>
  plus(forecast.along.whTo(atM), more);

/** The same forecast over another number of laps of its way. */
export function withLaps(forecast: Forecast, laps: number): Forecast {
  const { way } = forecast.along;
  const longer = { ...way, laps, lengthM: way.lapM * laps };
  return {
    ...forecast,
    input: { ...forecast.input, way: longer },
    along: { ...forecast.along, way: longer },
  };
}
