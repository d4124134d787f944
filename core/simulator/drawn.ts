import { nth, lastOf, DEFAULTS, pieceAt } from "#core/base";
import type { Route } from "#core/route";
import { type ForecastInput } from "#core/forecast";
import { applyAll, LASTING_UNKNOWNS, UNKNOWNS, type RideConditions } from "#core/bike";
import { usableEnergy } from "#core/battery";
import type { TrueCourse, Stretch } from "./course.ts";
import { LOSSES } from "./draw.ts";
import { slowError } from "./gauge.ts";
import { packModel, type PackModel, type TruePack } from "./pack.ts";
import { rngFrom, type Rng } from "#core/world";
import { rideCourse, type Sample, type Stand } from "./ride.ts";

/** A planned ride's hidden side: bike, rider, day, pack and gauge as they truly are. */
export interface DrawnRide {
  readonly pack: TruePack;
  readonly model: PackModel;
  /** The gauge's slow error along the charge. */
  readonly gaugeError: (f: number) => number;
  readonly lowPowerAt: number;
  readonly startUsed: number;
  /** The ride, second by second; once only, since the chance it takes is used up. */
  samples(): Generator<Sample>;
}

/** Draws the unknowns of a forecast: the bike's as far as they are known, the day's anew. */
function drawUnknowns({ mean, covariance }: ForecastInput["knowledge"], chance: Rng): readonly number[] {
  const lower: number[][] = [];
  for (let i = 0; i < LASTING_UNKNOWNS; i += 1) {
    lower.push([]);
    for (let j = 0; j <= i; j += 1) {
      let sum = nth(nth(covariance, i), j);
      for (let k = 0; k < j; k += 1) sum -= nth(nth(lower, i), k) * nth(nth(lower, j), k);
      nth(lower, i).push(i === j ? Math.sqrt(Math.max(0, sum)) : sum / nth(nth(lower, j), j));
    }
  }
  const normals = UNKNOWNS.map(() => chance.normal());
  return UNKNOWNS.map((_, i) =>
    i < LASTING_UNKNOWNS
      ? nth(mean, i) + nth(lower, i).reduce((sum, value, k) => sum + value * nth(normals, k), 0)
      : nth(normals, i),
  );
}

/** A planned way as the stand-in rides it, lap after lap. */
function courseOf(way: Route, rig: RideConditions, toM: number, chance: Rng): TrueCourse {
  const stretches: Stretch[] = [];
  const bounds = [0];
  for (const { lengthM } of way.lap) bounds.push(lastOf(bounds) + lengthM);
  for (let lap = 0; lap * way.lapM < toM; lap += 1)
    way.lap.forEach(({ ground, level }, i) =>
      stretches.push({
        toM: lap * way.lapM + nth(bounds, i + 1),
        level: level in rig.speedMps ? level : rig.level,
        ground,
      }),
    );
  const heights = [0];
  for (const { lengthM, slope } of way.lap) heights.push(lastOf(heights) + slope * lengthM);
  const inLap = (metres: number) => pieceAt(bounds, metres % way.lapM);
  // A way without headings turns through the wind once a lap, or once in five miles.
  const turnM = Math.min(way.lapM, 8000);
  const from = chance.between(0, 2 * Math.PI);
  return {
    lengthM: toM,
    stretches,
    heightAt: (metres) => nth(heights, inLap(metres)),
    slopeAt: (metres) => nth(way.lap, inLap(metres)).slope,
    windMps: rig.windMps,
    headwindAt: (metres) => {
      const { headingDeg } = nth(way.lap, inLap(metres));
      return headingDeg === null || rig.windFromDeg === null
        ? rig.windMps * Math.cos((2 * Math.PI * metres) / turnM + from)
        : rig.windMps * Math.cos(((rig.windFromDeg - headingDeg) * Math.PI) / 180);
    },
  };
}

/**
 * Draws what a forecast does not know and rides its way: the same seed, way and stands give the same ride.
 *
 * @param toM where the ride ends at the latest; @param stands when the rider is told to stand still
 */
export function drawRide(
  seed: number,
  input: ForecastInput,
  toM: number,
  stands: readonly Stand[] = [],
): DrawnRide {
  const usable = usableEnergy({ ...input.pack, packTempC: 25 });
  if (!usable.ok) throw new Error("a plan whose pack has no energy is not ridden");
  const chance = rngFrom(seed);
  const rig = applyAll(input.rig, drawUnknowns(input.knowledge, chance));
  const { pack: label, startPercent } = input;
  const pack: TruePack = {
    chemistry: label.chemistry,
    seriesCells: label.seriesCells ?? 13,
    ampHours: label.ampHours ?? 14,
    labelWh: usable.value.labelWh,
    chemicalWh: chance.normal(usable.value.mean, usable.value.sd) * (1 + LOSSES),
    ohm: DEFAULTS.cellOhm * (label.seriesCells ?? 13) * (DEFAULTS.stringAh / (label.ampHours ?? 14)),
    tempC: label.packTempC ?? DEFAULTS.packTempC,
  };
  const model = packModel(pack);
  const full = startPercent >= 100;
  const startUsed = full
    ? Math.abs(chance.normal(0, DEFAULTS.fullStartSd))
    : Math.max(0, model.curve.fractionAt(startPercent / 100) + chance.normal(0, DEFAULTS.smoothSd));
  const lowPowerAt = chance.normal(DEFAULTS.lowPowerAt, DEFAULTS.lowPowerSd);
  const gaugeError = slowError(chance, DEFAULTS.smoothSd);
  const samples = () =>
    rideCourse(
      {
        massKg: rig.massKg,
        cdA: rig.cdA,
        crr: rig.crr,
        etaM: rig.etaM,
        lightsOn: rig.lightsOn,
        riderW: rig.riderW,
        holds: "speed",
        stopsPerMile: rig.stopsPerMi,
        assistToMps: rig.assistToMps,
        lowPowerAt,
        levels: Object.fromEntries(
          Object.entries(rig.speedMps).map(([level, mps]) => [
            level,
            { speedMps: Math.min(mps, rig.assistToMps - 0.05), motorW: rig.motorW[level] ?? 750 },
          ]),
        ),
      },
      pack,
      courseOf(input.way, rig, toM, chance),
      { q: model.curve.chargeAtFraction(startUsed), polarisedV: 0, usedWh: 0 },
      0,
      toM,
      chance,
      stands,
    );
  return { pack, model, gaugeError, lowPowerAt, startUsed, samples };
}
