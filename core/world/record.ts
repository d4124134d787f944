import type { TelemetryRecord, TrackRecord } from "#core/records";
import type { Rng } from "./chance.ts";
import type { Moment } from "./ride.ts";

/** A logger's columns of a ride: its gain on amps, and now and then a gap. */
export function loggerOf(
  moments: readonly Moment[],
  startS: number,
  gain: number,
  chance: Rng,
): TelemetryRecord {
  let gapUntil = 0;
  const kept = moments.filter(({ timeS }) => {
    if (timeS > gapUntil && chance.happens(1 / 2500)) gapUntil = timeS + chance.between(10, 120);
    return timeS > gapUntil;
  });
  const rounded = (value: number) => Number(value.toFixed(2));
  return {
    logger: "box",
    timeS: kept.map(({ timeS }) => startS + timeS),
    volts: kept.map(({ volts }) => rounded(volts)),
    amps: kept.map(({ amps }) => rounded(amps * gain)),
    speedMps: kept.map(({ speedMps }) => rounded(speedMps)),
  };
}

const METRES_A_DEGREE = 111_195;

/** A recorder's track of a ride, in open sea where no road is; a point every four seconds. */
export function trackOf(
  moments: readonly Moment[],
  startS: number,
  fromM: number,
  heightAt: (metres: number) => number,
): TrackRecord {
  const points = moments.filter(({ timeS }) => timeS % 4 === 1);
  return {
    name: "loop",
    timeS: points.map(({ timeS }) => startS + timeS),
    lat: points.map(({ distanceM }) => 0.3 + (distanceM - fromM) / METRES_A_DEGREE),
    lon: points.map(() => 0.3),
    eleM: points.map(({ distanceM }) => Number(heightAt(distanceM).toFixed(1))),
  };
}
