import type { TelemetryRecord, TrackRecord } from "#core/records";
import type { Rng } from "#core/world";
import type { Sample } from "./ride.ts";

/** A logger's columns of a ride: its gain on amps, and now and then a gap. */
export function logOf(
  samples: readonly Sample[],
  startS: number,
  gain: number,
  chance: Rng,
): TelemetryRecord {
  let gapUntil = 0;
  const kept = samples.filter(({ timeS }) => {
    if (timeS > gapUntil && chance.happens(1 / 2500)) gapUntil = timeS + chance.between(10, 120);
    return timeS > gapUntil;
  });
  const rounded = (value: number, digits: number) => Number(value.toFixed(digits));
  return {
    logger: "box",
    timeS: kept.map(({ timeS }) => startS + timeS),
    volts: kept.map(({ volts }) => rounded(volts, 2)),
    amps: kept.map(({ amps }) => rounded(amps * (1 + gain), 2)),
    speedMps: kept.map(({ speedMps }) => rounded(speedMps, 2)),
  };
}

/** A recorder's track of a ride, set in open sea where no road is; a point every four seconds. */
export function trackOf(
  samples: readonly Sample[],
  startS: number,
  fromM: number,
  heightAt: (metres: number) => number,
): TrackRecord {
  const points = samples.filter(({ timeS }) => timeS % 4 === 1);
  const metresPerDegree = 111_195;
  return {
    name: "loop",
    timeS: points.map(({ timeS }) => startS + timeS),
    lat: points.map(({ distanceM }) => 0.3 + (distanceM - fromM) / metresPerDegree),
    lon: points.map(() => 0.3),
    eleM: points.map(({ distanceM }) => Number(heightAt(distanceM).toFixed(1))),
  };
}
