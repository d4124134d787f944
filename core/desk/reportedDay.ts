import { DEFAULTS } from "#core/base";
import { type Bike, type Reported, testSchema } from "#core/records";
import { dayOfTest } from "./testDay.ts";
import type { DeskDay } from "./types.ts";

/**
 * A range that somebody else published of a bike, as a day of the desk: how it was ridden, by whom and where, nobody knows, so
 * that it says little once there is a test of one's own. Null where its bike has no level to be ridden at.
 */
export function dayOfReported(id: string, bikeId: string, bike: Bike, reported: Reported): DeskDay | null {
  const { of, drive, distanceM, energyWh } = reported;
  // A climb tells nothing of the way it was ridden on.
  if (of === "climb") return null;
  const mean = energyWh / distanceM;
  const level = drive === "throttle" ? "throttle" : bike.levels[Math.floor((bike.levels.length - 1) / 2)];
  if (level === undefined) return null;
  const test = testSchema.parse({ title: reported.by || "another tester", day: "2026-01-01", drive });
  return dayOfTest({
    ...{ id, bikeId, riderId: null, packId: `of ${id}`, capacityShare: 0 },
    whPerM: { mean, sd: DEFAULTS.reportedSdShare * mean },
    ridden: {
      ...{ bike, setUp: null, rider: null, test },
      results: {
        parts: [{ level, ground: "asphalt", distanceM }],
        ...{ meanSpeedMps: null, climbM: null, slopes: null },
        noted: {
          ...{ stops: null, bpm: null, riderW: null, windMps: null, unassistedShare: null },
          ...{ clockSpeedMps: null, levelSpeedMps: {}, climbM: null },
        },
      },
    },
  });
}
